import { endpoints, type Person, type Role } from '@bocado/contract'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { HelpFields } from './helpLater.js'
import { helpInput, type HelpValues } from './helpValues.js'
import { isThisMachine } from './reach.js'
import { useRoleOptions } from './useRoleOptions.js'

/** A link that is shown once: whoever has it comes in by it. */
function Link({ token, name, onDone }: { token: string; name: string; onDone: () => void }) {
  const t = useText()
  const [isCopied, setCopied] = useState(false)
  const { data: way } = useRead(endpoints.account.wayIn, { params: {}, input: {} })
  const elsewhere = isThisMachine() ? way?.addresses[0] : location.origin
  const link = `${elsewhere ?? location.origin}/come-in#${token}`
  return (
    <Stack>
      <Caution>{t('invite.once', { name })}</Caution>
      <code data-testid="link" style={{ overflowWrap: 'anywhere' }}>
        {link}
      </code>
      {way && elsewhere === undefined ? <Small>{t('invite.hereOnly')}</Small> : null}
      {way?.mails ? <ByMail token={token} /> : null}
      <Line>
        <Button
          onPress={() =>
            void navigator.clipboard.writeText(link).then(
              () => setCopied(true),
              () => undefined,
            )
          }
        >
          {isCopied ? t('invite.copied') : t('invite.copy')}
        </Button>
        <TextButton onPress={onDone}>{t('invite.done')}</TextButton>
      </Line>
    </Stack>
  )
}

/** Sends the link to whom it is for; it is shown all the same, for whoever gets no mail. */
function ByMail({ token }: { token: string }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.crew.mailLink, { to: '' }, null)
  const [sentTo, setSentTo] = useState<string | null>(null)
  if (sentTo !== null) return <p role="status">{t('invite.mailed', { to: sentTo })}</p>
  const send = async (): Promise<void> => {
    const sent = await entry.submit({ siteId: site.id }, ({ to }) => ({ token, to: to.trim() }))
    if (sent) setSentTo(sent.to)
  }
  return (
    <Stack $gap={6}>
      <TextField label={t('invite.mailTo')} width="32ch" {...entry.bind.text('to')} />
      <FormError text={entry.general} />
      <Line>
        <Button $plain isDisabled={entry.isBarred || entry.values.to.trim() === ''} onPress={() => void send()}>
          {t('invite.mail')}
        </Button>
      </Line>
    </Stack>
  )
}

const moment = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso))

/** Those who were invited and have not come yet, and the way to invite more. */
export function Invitations() {
  const t = useText()
  const site = useSite()
  const [isOpen, setOpen] = useState(false)
  const { data = [] } = useRead(endpoints.crew.invitations, { params: { siteId: site.id }, input: {} })
  const { save, isBarred } = useWrite(endpoints.crew.withdraw)
  return (
    <Stack>
      {data.length > 0 ? (
        <>
          <Heading>{t('invite.open')}</Heading>
          <Rows>
            {data.map(({ id, name, role, invitedBy, expiresAt, isExpired, rowVersion }) => (
              <li key={id}>
                <Line>
                  <span>
                    {name}{' '}
                    <Quiet>
                      {t(`role.${role}`)}, {t(isExpired ? 'invite.ended' : 'invite.until', { by: invitedBy, until: moment(expiresAt) })}
                    </Quiet>
                  </span>
                  <TextButton
                    isDisabled={isBarred}
                    aria-label={t('invite.withdrawNamed', { name })}
                    onPress={() => void save({ params: { siteId: site.id, invitationId: id }, input: { rowVersion } })}
                  >
                    {t('invite.withdraw')}
                  </TextButton>
                </Line>
              </li>
            ))}
          </Rows>
        </>
      ) : null}
      {isOpen ? <Invite onDone={() => setOpen(false)} /> : <TextButton onPress={() => setOpen(true)}>{t('invite.do')}</TextButton>}
    </Stack>
  )
}

function Invite({ onDone }: { onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.crew.invite,
    { name: '', role: 'scout' as Role, personId: null as string | null, help: { on: null, blockIds: [] } as HelpValues },
    null,
    site.id,
  )
  const { bind, values } = entry
  const [token, setToken] = useState<string | null>(null)
  const options = useRoleOptions()
  if (token !== null) return <Link token={token} name={values.name} onDone={onDone} />
  const invite = async (): Promise<void> => {
    const made = await entry.submit({ siteId: site.id }, (v) => ({ ...v, help: helpInput(v.role, v.help) }))
    if (made) setToken(made.token)
  }
  return (
    <Stack>
      <TextField label={t('person.name')} autoFocus {...bind.text('name')} />
      <Select label={t('person.role')} placeholder={t('choose')} options={options} {...bind.choice('role')} />
      {values.role === 'volunteer' ? (
        <HelpFields value={values.help} onChange={(help) => entry.set({ help })} errors={entry.errors} />
      ) : null}
      <Small>{t('invite.days')}</Small>
      <EntryEnd entry={entry} onSave={invite} onCancel={onDone} words={t('invite.make')} />
    </Stack>
  )
}

/** A way in for somebody who works here: their first, or a new password. */
export function GiveLink({ person }: { person: Person }) {
  const t = useText()
  const site = useSite()
  const invite = useWrite(endpoints.crew.invite)
  const reset = useWrite(endpoints.crew.resetLink)
  const [token, setToken] = useState<string | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const { id: personId, name, role, signsIn } = person
  const give = async (): Promise<void> => {
    try {
      const made = signsIn
        ? await reset.save({ params: { siteId: site.id, personId }, input: {} })
        : await invite.save({ params: { siteId: site.id }, input: { name, role, personId, help: person.help } })
      setRefused(null)
      setToken(made.token)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  if (token !== null) return <Link token={token} name={name} onDone={() => setToken(null)} />
  return (
    <>
      <TextButton
        isDisabled={invite.isBarred || reset.isBarred}
        aria-label={t(signsIn ? 'invite.resetNamed' : 'invite.wayInNamed', { name })}
        onPress={() => void give()}
      >
        {t(signsIn ? 'invite.reset' : 'invite.wayIn')}
      </TextButton>
      {refused === null ? null : <FormError text={refused} />}
    </>
  )
}
