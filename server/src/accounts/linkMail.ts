import { randomUUID } from 'node:crypto'
import type { crew, ParsedInputOf, ResponseOf } from '@bocado/contract'
import { canMail } from '../alerts/mail.js'
import { putLetter } from '../alerts/outbox.js'
import { auditOther, type Row, type Write } from '../database/index.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import { openLink } from './links.js'

/** Letters with links that a person may send in a day: enough for a crew, too few for a nuisance. */
const MOST_A_DAY = 40

const dayWords = (iso: string): string => `${iso.slice(0, 16).replace('T', ' ')} UTC`

/**
 * Sends a link that was just made to whom it is for. Only whoever made it can: the link itself is what they were shown.
 *
 * @param origin address under which whoever gets it reaches this server
 */
export async function mailLink(
  w: Write,
  { token, to }: ParsedInputOf<typeof crew.mailLink>,
  origin: string,
): Promise<ResponseOf<typeof crew.mailLink>> {
  if (!canMail()) throw new HttpProblem(409, 'No mail goes out from this server. Hand the link over yourself.')
  const link = await openLink(w.tx, token, 'FOR UPDATE')
  if (link.siteId !== w.siteId || link.createdBy !== w.personId) throw new HttpProblem(404, 'There is no such link of yours at this site.')
  const [[sent]] = await w.tx.query<Row[]>(
    'SELECT COUNT(*) AS n FROM outbox WHERE person_id = ? AND recipient IS NOT NULL AND created_at > NOW(6) - INTERVAL 1 DAY',
    [w.personId],
  )
  if (Number(sent?.['n']) >= MOST_A_DAY)
    throw fieldProblem('to', `at most ${MOST_A_DAY} links go out by mail in a day; hand this one over yourself`)
  const isReset = link.kind === 'reset'
  const lines = [
    isReset
      ? `${link.invitedBy} made you a link with which you set a new password for Bocado.`
      : `${link.invitedBy} invites you to ${link.siteName} in Bocado.`,
    '',
    `${origin}/come-in#${token}`,
    '',
    `It works once, until ${dayWords(link.expiresAt)}. Whoever has it comes in by it: hand it to nobody.`,
    'If you expected nothing of the kind, leave it: it ends by itself.',
  ]
  const id = randomUUID()
  await putLetter(w, {
    id,
    to,
    subject: isReset ? 'Bocado: set a new password' : `Bocado: come to ${link.siteName}`,
    text: lines.join('\n'),
  })
  await auditOther(w, 'link', link.id, 'change', null, { mailed: true })
  return { to }
}
