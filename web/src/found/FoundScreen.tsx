import { endpoints, type ResponseOf } from '@bocado/contract'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation } from 'react-router'
import { call } from '../api/client.js'
import { watched } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { Door } from '../account/Door.js'
import { Sent } from '../account/Sent.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { Line, Small } from '../design/text.js'
import { whereNow, type Whereabouts } from '../flags/whereabouts.js'
import type { SmallPhoto } from '../library/photo.js'
import { PhotoField } from '../library/PhotoField.js'
import { useText } from '../messages/useText.js'
import '../messages/en/field.js'
import '../messages/en/finds.js'

type Board = ResponseOf<typeof endpoints.finds.look>

/** Where a board at the gate leads: whoever found something says what and where, without an account. */
export function FoundScreen() {
  const t = useText()
  const inAddress = useLocation().hash.slice(1)
  const [typed, setTyped] = useState('')
  const [asked, setAsked] = useState(inAddress)
  const { data, error, isFetching } = useQuery({
    queryKey: ['found', asked],
    enabled: asked !== '',
    throwOnError: false,
    queryFn: () => watched(call(endpoints.finds.look, { params: {}, input: { code: asked } }, { idempotencyKey: crypto.randomUUID() })),
  })
  if (data) return <Find key={asked} board={data} code={asked} />
  if (isFetching) return <Door title={t('found.title')}>{t('found.looking')}</Door>
  return (
    <Door title={t('found.title')} text={t('found.text')}>
      <Sent onSend={() => Promise.resolve(setAsked(typed.trim().toLowerCase().replace(/[\s-]/g, '')))}>
        <TextField label={t('found.code')} hint={t('found.codeHint')} width="20ch" value={typed} onChange={setTyped} />
        <FormError text={error ? error.message : null} />
        <Line>
          <Button type="submit">{t('found.go')}</Button>
        </Line>
      </Sent>
    </Door>
  )
}

function Find({ board, code }: { board: Board; code: string }) {
  const t = useText()
  const [isSent, setSent] = useState(false)
  const [id, setId] = useState(() => crypto.randomUUID())
  if (!isSent)
    return (
      <Door title={t('found.at', { site: board.site })} text={t('found.text')}>
        <FindForm key={id} id={id} board={board} code={code} onSent={() => setSent(true)} />
      </Door>
    )
  return (
    <Door title={t('found.thanks')} text={t('found.thanksText', { site: board.site })}>
      <Line>
        <Button
          $plain
          onPress={() => {
            setId(crypto.randomUUID())
            setSent(false)
          }}
        >
          {t('found.more')}
        </Button>
      </Line>
    </Door>
  )
}

function FindForm(p: { id: string; board: Board; code: string; onSent: () => void }) {
  const t = useText()
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const [here, setHere] = useState<Whereabouts | 'asking' | 'none' | null>(null)
  const entry = useEntry(
    endpoints.finds.send,
    { id: p.id, said: '', note: '', seenOn: p.board.today as string | null },
    null,
    `found ${p.code}`,
  )
  const { bind, errors } = entry
  const position = typeof here === 'object' ? here : null
  const send = async (): Promise<void> => {
    const sent = await entry.submit({}, ({ id, said, note, seenOn }) => ({
      ...{ id, said, note, position, code: p.code },
      seenOn: seenOn ?? '',
      photo: photo && { jpeg: photo.jpeg, takenOn: p.board.today, position: null },
    }))
    if (sent) p.onSent()
  }
  const ask = async (): Promise<void> => {
    setHere('asking')
    setHere((await whereNow()) ?? 'none')
  }
  return (
    <Sent onSend={send}>
      <PhotoField photo={photo} onChange={setPhoto} />
      <Small>{t('found.photoNote')}</Small>
      <FormError text={errors['photo.jpeg'] ?? errors['photo'] ?? null} />
      <TextField label={t('found.said')} hint={t('optional')} {...bind.text('said')} />
      <TextField label={t('found.note')} rows={3} {...bind.text('note')} />
      <DateField label={t('found.seenOn')} {...bind.day('seenOn')} />
      <Line>
        {position ? (
          <>
            <Small role="status">{t('found.hereSet', { accuracy: Math.round(position.accuracyM) })}</Small>
            <TextButton onPress={() => setHere(null)}>{t('found.hereNot')}</TextButton>
          </>
        ) : (
          <Button $plain isDisabled={here === 'asking'} onPress={() => void ask()}>
            {t('found.here')}
          </Button>
        )}
      </Line>
      {here === 'none' ? <Small role="status">{t('found.hereNone')}</Small> : null}
      <FormError text={entry.general ?? errors['position'] ?? errors['code'] ?? null} />
      <Line>
        <Button type="submit" isDisabled={entry.isBarred}>
          {t('found.send')}
        </Button>
      </Line>
    </Sent>
  )
}
