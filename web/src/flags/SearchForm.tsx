import { endpoints, type Block, type Organism, type Search } from '@bocado/contract'
import { useEffect, useRef, useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { RequestProblem } from '../api/client.js'
import { usePlaces, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { viewWidth } from '../band/searchWidth.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Several } from '../design/Several.js'
import { Fields, Heading, Line, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useRefusal } from '../messages/refusal.js'
import { useText } from '../messages/useText.js'
import { lengthOf, ROUGH_M, useWay } from './useWay.js'

type Track = NonNullable<Search['track']>

const MOST_BYTES = 1_900_000
/** Points of one line; a longer way is gone on with in another one. */
const MOST_POINTS = 4900

/** A search: what for, where, for how long, and which part of the ground was seen; one that found nothing is a record as well. */
export function SearchForm(p: {
  blocks: readonly Block[]
  organisms: readonly Organism[]
  begins: { organismId: string | null; placeId: string | null }
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: parts = [] } = usePlaces(site.id)
  const entry = useEntry(
    endpoints.flags.addSearch,
    {
      organismIds: p.begins.organismId === null ? [] : [p.begins.organismId],
      placeId: p.begins.placeId,
      searchedOn: site.today as string | null,
      minutes: null as number | null,
      viewM: null as number | null,
      share: null as number | null,
      track: null as Track | null,
      found: false,
      note: '',
    },
    null,
    site.id,
  )
  const { values, bind, errors, set } = entry
  const places = [...p.blocks, ...parts]
  const nameOf = (id: string): string => p.organisms.find((one) => one.id === id)?.name ?? id
  const save = async (): Promise<void> => {
    const place = places.find(({ id }) => id === values.placeId)?.name ?? ''
    const says = t('flags.searchSays', { names: values.organismIds.map(nameOf).join(', '), place })
    const saved = await entry.put({ siteId: site.id }, says, 'scouting?panel=flags&do=search', ({ share, ...v }) => ({
      ...v,
      placeId: v.placeId ?? '',
      searchedOn: v.searchedOn ?? '',
      coveredShare: share === null ? null : share / 100,
      track: v.track?.filter((line) => line.length > 1) ?? null,
    }))
    if (saved) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t('flags.search')}</Heading>
        <Fields>
          <Several
            label={t('flags.lookedFor')}
            placeholder={t('flags.addName')}
            width="26ch"
            options={p.organisms.map(({ id, name }) => ({ id, label: name }))}
            value={values.organismIds}
            onChange={(organismIds) => set({ organismIds })}
            dropWords={(name) => t('flags.dropName', { name })}
            error={errors['organismIds']}
          />
          <Select
            label={t('flags.where')}
            placeholder={t('choose')}
            width="24ch"
            options={places.map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('placeId')}
          />
          <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
        </Fields>
        <Way track={values.track} onChange={(track) => set({ track })} />
        <Fields>
          {values.track ? (
            <NumberField
              label={t('flags.view')}
              width="17ch"
              digits={1}
              unit={f.measures.height.unit}
              hint={t('flags.viewHint', { seedlings: f.height(viewWidth('seedling')), flowers: f.height(viewWidth('flower')) })}
              {...bind.number('viewM', f.measures.height)}
            />
          ) : (
            <NumberField
              label={t('flags.share')}
              width="17ch"
              digits={0}
              unit="%"
              hint={t('flags.shareHint')}
              {...bind.number('share')}
              error={errors['coveredShare']}
            />
          )}
          <DateField label={t('flags.searchedOn')} {...bind.day('searchedOn')} />
          <TextField label={t('note')} width="30ch" {...bind.text('note')} />
        </Fields>
        <Checkbox label={t('flags.foundSome')} value={values.found} onChange={(found) => set({ found })} />
        {values.found ? <Small>{t('flags.foundHint')}</Small> : null}
        <FormError text={errors['track'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}

/** The way walked: from the file of a handheld, or from this device while its screen is lit. */
function Way({ track, onChange }: { track: Track | null; onChange: (track: Track | null) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const said = useRefusal()
  const read = useWrite(endpoints.flags.readTrack)
  const [wrong, setWrong] = useState<string | null>(null)
  // The way of this device is one line, which grows while it walks.
  const walked = useRef(track)
  useEffect(() => {
    walked.current = track
  })
  const way = useWay((point) => {
    // Two points may come before what the first changed is drawn.
    const before = walked.current ?? []
    const last = before.at(-1) ?? []
    const end = last.at(-1)
    walked.current = last.length < MOST_POINTS || !end ? [...before.slice(0, -1), [...last, point]] : [...before, [end, point]]
    onChange(walked.current)
  })
  const choose = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    setWrong(null)
    if (file.size > MOST_BYTES) return setWrong(t('flags.trackLarge', { name: file.name }))
    try {
      const { tracks } = await read.save({ params: { siteId: site.id }, input: { text: await file.text() } })
      onChange(tracks.map(({ line }) => line))
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      const [field] = error.problem.fields ?? []
      setWrong(field ? said(field) : error.problem.detail)
    }
  }
  const length = (track ?? []).reduce((sum, line) => sum + lengthOf(line), 0)
  const { here } = way
  return (
    <>
      <Line role="group" aria-label={t('flags.track')}>
        {way.isWalking ? (
          <Button onPress={() => way.setWalking(false)}>{t('flags.trackStop')}</Button>
        ) : (
          <>
            <FileTrigger acceptedFileTypes={['.gpx', '.geojson', '.json', '.csv']} onSelect={(files) => void choose(files)}>
              <Button $plain>{t('flags.trackFile')}</Button>
            </FileTrigger>
            <Button
              $plain
              onPress={() => {
                // Each walk is a line of its own: nobody knows what lies between two.
                if (track?.length) onChange([...track, []])
                way.setWalking(true)
              }}
            >
              {t('flags.trackWalk')}
            </Button>
          </>
        )}
        {track ? (
          <Small role="status">
            {way.isWalking && here
              ? t('flags.trackNow', { length: f.height(length), accuracy: f.height(here.accuracyM) })
              : t('flags.trackLength', { length: f.height(length) })}
          </Small>
        ) : null}
        {track && !way.isWalking ? <TextButton onPress={() => onChange(null)}>{t('flags.trackDrop')}</TextButton> : null}
      </Line>
      {way.isWalking && here && here.accuracyM > ROUGH_M ? (
        <Small>{t('flags.trackRough', { accuracy: f.height(here.accuracyM) })}</Small>
      ) : null}
      {way.isWalking && !way.isLit ? <Small>{t('flags.trackLit')}</Small> : null}
      <FormError text={way.isLost ? t('flags.positionNone') : wrong} />
    </>
  )
}
