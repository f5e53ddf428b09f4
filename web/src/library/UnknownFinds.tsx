import { endpoints, type UnknownFind } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks, useOrganisms, useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { signWords } from './signWords.js'
import type { SmallPhoto } from './photo.js'
import { PhotoField } from './PhotoField.js'

const NO_BLOCK = 'none'

/** Keeps what nobody can name, as it was described, with how many there were and a photo. */
export function KeepUnknown(p: { place: string; seen: string; notSeen: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const entry = useEntry(
    endpoints.library.keepUnknown,
    { blockId: NO_BLOCK, howMany: null as number | null, note: '' },
    null,
    `${site.id} ${p.seen}`,
  )
  const save = async (): Promise<void> => {
    const { place, seen, notSeen } = p
    const says = t('unknown.says', { what: seen || notSeen })
    // With what was seen, so that the form can be opened there again.
    const address = `library/suspects?${new URLSearchParams({ place, seen, notSeen }).toString()}`
    const saved = await entry.put({ siteId: site.id }, says, address, (values) => ({
      ...values,
      foundOn: site.today,
      blockId: values.blockId === NO_BLOCK ? null : values.blockId,
      place,
      seen,
      notSeen,
      photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? site.today, position: null } : null,
    }))
    if (saved) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('check.block')}
            placeholder={t('choose')}
            width="22ch"
            options={[{ id: NO_BLOCK, label: t('check.noBlock') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
            {...entry.bind.choice('blockId')}
          />
          <NumberField label={t('unknown.howMany')} width="16ch" digits={0} {...entry.bind.number('howMany')} />
          <TextField label={t('check.note')} width="40ch" {...entry.bind.text('note')} />
        </Fields>
        <PhotoField photo={photo} onChange={setPhoto} />
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} words={t('unknown.keep')} />
      </Stack>
    </Sheet>
  )
}

/** What was kept because nobody could name it: each can be named when somebody can. */
export function UnknownFinds() {
  const t = useText()
  const site = useSite()
  const { data: finds = [] } = useRead(endpoints.library.unknownFinds, { params: { siteId: site.id }, input: {} })
  if (finds.length === 0) return null
  return (
    <Stack>
      <Heading>{t('unknown.title')}</Heading>
      <Rows data-testid="unknown-finds">
        {finds.map((find) => (
          <li key={find.id}>
            <FindLine find={find} />
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function FindLine({ find }: { find: UnknownFind }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: organisms = [] } = useOrganisms()
  const name = useWrite(endpoints.library.nameUnknown)
  const where = blocks.find(({ id }) => id === find.blockId)?.name ?? find.place
  const named = organisms.find(({ id }) => id === find.namedAs)
  return (
    <Stack $gap={6}>
      <Line style={{ alignItems: 'flex-start' }}>
        {find.photoId ? (
          <img src={`/api/v1/sites/${site.id}/photos/${find.photoId}/jpeg`} alt={t('unknown.photo')} height={72} loading="lazy" />
        ) : null}
        <div>
          <b>{named ? t('unknown.named', { name: named.name }) : t('unknown.unnamed')}</b>{' '}
          <Quiet>
            {[f.withYear(find.foundOn), where, find.howMany === null ? '' : t('unknown.count', { count: find.howMany }), find.personName]
              .filter(Boolean)
              .join(', ')}
          </Quiet>
          <Small>
            {find.observations.map((o) => t('suspects.observed', { sign: signWords(o, t), seen: o.seen ? 'yes' : 'no' })).join(' · ')}
          </Small>
          {find.note}
        </div>
      </Line>
      <Line>
        <Select
          label={t('unknown.nameIt')}
          placeholder={t('unknown.later')}
          width="28ch"
          hideLabel
          options={organisms.map(({ id, name: label }) => ({ id, label }))}
          value={find.namedAs}
          onChange={(namedAs) =>
            void name.save({ params: { siteId: site.id, findId: find.id }, input: { namedAs, rowVersion: find.rowVersion } })
          }
        />
        <RemoveButton
          remove={endpoints.library.removeUnknown}
          restore={endpoints.library.restoreUnknown}
          params={{ siteId: site.id, findId: find.id }}
          rowVersion={find.rowVersion}
          label={t('unknown.removeNamed', { date: f.date(find.foundOn) })}
          said={t('unknown.removed')}
        />
      </Line>
    </Stack>
  )
}
