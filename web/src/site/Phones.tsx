import { endpoints, type ResponseOf } from '@bocado/contract'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { Caution, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'
import { isThisMachine } from './reach.js'

/** Phones that are handed on from one to the next: shown where they are asked for. */
export function Phones() {
  return (
    <Unfold title={useText()('phones.title')}>
      <List />
    </Unfold>
  )
}

const moment = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso))

function List() {
  const t = useText()
  const site = useSite()
  const { data = [] } = useRead(endpoints.phones.list, { params: { siteId: site.id }, input: {} })
  const { save, isBarred } = useWrite(endpoints.phones.sendAway)
  const [isNew, setNew] = useState(false)
  const [refused, setRefused] = useState<string | null>(null)
  const sendAway = async (phoneId: string, rowVersion: number): Promise<void> => {
    try {
      await save({ params: { siteId: site.id, phoneId }, input: { rowVersion } })
      setRefused(null)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <Stack>
      <Small>{t('phones.text')}</Small>
      {data.length > 0 ? (
        <Rows>
          {data.map(({ id, name, pairedBy, seenAt, pairUntil, rowVersion }) => (
            <li key={id}>
              <Line>
                <span>
                  {name}{' '}
                  <Quiet>
                    {pairUntil === null
                      ? t('phones.seen', { by: pairedBy, seen: moment(seenAt ?? '') })
                      : t('phones.waits', { by: pairedBy, until: moment(pairUntil) })}
                  </Quiet>
                </span>
                <TextButton
                  isDisabled={isBarred}
                  aria-label={t('phones.sendAwayNamed', { name })}
                  onPress={() => void sendAway(id, rowVersion)}
                >
                  {t('phones.sendAway')}
                </TextButton>
              </Line>
            </li>
          ))}
        </Rows>
      ) : null}
      {refused === null ? null : <FormError text={refused} />}
      {isNew ? <Offer onDone={() => setNew(false)} /> : <TextButton onPress={() => setNew(true)}>{t('phones.add')}</TextButton>}
    </Stack>
  )
}

type Offered = ResponseOf<typeof endpoints.phones.offer>

function Offer({ onDone }: { onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.phones.offer, { name: '' }, null, site.id)
  const [offered, setOffered] = useState<Offered | null>(null)
  const offer = async (): Promise<void> => {
    const made = await entry.submit({ siteId: site.id })
    if (made) setOffered(made)
  }
  if (offered) return <Scan offered={offered} onDone={onDone} />
  return (
    <Stack>
      <TextField label={t('phones.name')} autoFocus {...entry.bind.text('name')} />
      <EntryEnd entry={entry} onSave={offer} onCancel={onDone} words={t('invite.make')} />
    </Stack>
  )
}

function Scan({ offered: { token, code, link, pairUntil }, onDone }: { offered: Offered; onDone: () => void }) {
  const t = useText()
  return (
    <Stack>
      <Caution>{t('phones.once', { until: moment(pairUntil) })}</Caution>
      {code === null ? null : (
        <img src={`data:image/svg+xml;utf8,${encodeURIComponent(code)}`} alt={t('phones.scan')} width={200} height={200} />
      )}
      <code data-testid="link" style={{ overflowWrap: 'anywhere' }}>
        {link ?? `${location.origin}/pair#${token}`}
      </code>
      {link === null && isThisMachine() ? <Small>{t('invite.hereOnly')}</Small> : null}
      <Line>
        <Button $plain onPress={onDone}>
          {t('invite.done')}
        </Button>
      </Line>
    </Stack>
  )
}
