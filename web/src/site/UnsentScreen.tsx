import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { useIntl } from 'react-intl'
import { useNavigate } from 'react-router'
import { keepDraft, readDraft } from '../api/drafts.js'
import { letGo, nameOf, useUnsent, waitAgain, type Unsent } from '../api/unsent.js'
import { useWorkplace } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { momentWords } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { heldCount, holdCount, type HeldCount } from '../scouting/heldCount.js'
import { useUndo } from '../shell/Undo.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import '../messages/en/unsent.js'

/** Puts what was recorded back into the form that it came from. @returns where that is; null where it has none */
async function backToItsForm({ what, input, params, form }: Unsent): Promise<string | null> {
  if (what === nameOf(endpoints.scouting.create)) {
    holdCount(input['watchId'] as string, { checkAreaId: null, note: '', ...input } as unknown as HeldCount)
    return `/sites/${params['siteId']}/scouting/${input['watchId'] as string}/count`
  }
  if (!form) return null
  await keepDraft(form.draft, { values: form.values, rowVersion: null, at: new Date().toISOString() })
  return `/sites/${params['siteId']}/${form.address}`
}

/** Whether something else stands in its form already. */
async function isBegun({ what, input, form }: Unsent): Promise<boolean> {
  if (what === nameOf(endpoints.scouting.create)) return heldCount(input['watchId'] as string) !== null
  return form !== null && (await readDraft(form.draft)) !== undefined
}

const hasForm = ({ what, form }: Unsent): boolean => form !== null || what === nameOf(endpoints.scouting.create)

/** What was recorded without signal: what waits, what was refused and why, and what can be done about it. */
export function UnsentScreen() {
  const t = useText()
  usePageTitle(t('unsent.title'))
  const { locale } = useIntl()
  const { personId } = useWorkplace()
  const undo = useUndo()
  const navigate = useNavigate()
  const items = useUnsent()
  const [busy, setBusy] = useState<string | null>(null)
  const drop = async (item: Unsent): Promise<void> => {
    if (await letGo(item.id)) undo.offer(t('unsent.letGone', { what: item.says }), () => waitAgain(item))
  }
  const mend = async (item: Unsent): Promise<void> => {
    // What somebody has begun there meanwhile is not put over.
    if (await isBegun(item)) return setBusy(item.id)
    const address = await backToItsForm(item)
    if (address === null) return
    await letGo(item.id)
    await navigate(address)
  }
  return (
    <Page>
      <Title>{t('unsent.title')}</Title>
      <p>{t(items.length === 0 ? 'unsent.none' : 'unsent.text')}</p>
      <Rows data-testid="unsent">
        {items.map((item) => (
          <li key={item.id}>
            <Line style={{ justifyContent: 'space-between' }}>
              <Stack $gap={4}>
                <b>{item.says}</b>
                <Quiet>{t('unsent.made', { when: momentWords(locale)(item.at), person: item.personName, site: item.siteName })}</Quiet>
                {item.personId === personId ? null : <Small>{t('unsent.other', { person: item.personName })}</Small>}
                <FormError text={busy === item.id ? t('unsent.begun') : null} />
                <FormError text={item.refused === null ? null : t('unsent.refused', { reason: item.refused })} />
              </Stack>
              {item.personId === personId ? (
                <Line>
                  {item.refused === null ? null : (
                    <TextButton onPress={() => void waitAgain(item)} aria-label={t('unsent.againOne', { what: item.says })}>
                      {t('unsent.again')}
                    </TextButton>
                  )}
                  {hasForm(item) ? (
                    <TextButton onPress={() => void mend(item)} aria-label={t('unsent.mendOne', { what: item.says })}>
                      {t('unsent.mend')}
                    </TextButton>
                  ) : null}
                  <TextButton onPress={() => void drop(item)} aria-label={t('unsent.letGoOne', { what: item.says })}>
                    {t('unsent.letGo')}
                  </TextButton>
                </Line>
              ) : null}
            </Line>
          </li>
        ))}
      </Rows>
    </Page>
  )
}
