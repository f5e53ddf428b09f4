import { endpoints, type Block, type Harvest } from '@bocado/contract'
import { useState } from 'react'
import { useHarvests, usePlaces } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Caution, Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import type { Measure } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useAsked } from '../shell/useAsked.js'
import { readHarvest, type Named } from './readHarvest.js'
import '../messages/en/harvest.js'

/** As many as are of these weeks; the rest is one press away. */
const SHOWN = 5

type What = Pick<Harvest, 'kg' | 'pieces' | 'spoilt'> & { spoiltByName: string | null }

/** What was picked and where, in words. */
function useWhat(): (what: What, place: string | undefined) => string {
  const t = useText()
  const f = useFormat()
  return ({ kg, pieces, spoilt, spoiltByName }, place) => {
    const amount = [kg === null ? null : f.weight(kg), pieces === null ? null : t('harvest.pieces', { count: pieces })]
      .filter((one) => one !== null)
      .join(', ')
    const spoiltWords = spoilt === null ? null : t('harvest.spoilt', { count: spoilt })
    return [
      place === undefined ? amount : t('harvest.in', { what: amount, place }),
      spoiltWords !== null && spoiltByName !== null ? t('harvest.spoiltBy', { spoilt: spoiltWords, organism: spoiltByName }) : spoiltWords,
    ]
      .filter((one) => one !== null)
      .join(', ')
  }
}

/** What was picked this season, what a label keeps waiting, and a line to add to it. */
export function HarvestPart({ blocks, organisms }: { blocks: readonly Block[]; organisms: readonly Named[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const what = useWhat()
  const { data } = useHarvests(site.id, site.season.start)
  const [open, setOpen] = useState<string | null>(null)
  const [showsAll, setShowsAll] = useState(false)
  useAsked('harvest', () => setOpen('new'))
  if (!data) return null
  const { harvests, waits } = data
  const weight = harvests.reduce((sum, { kg }) => sum + (kg ?? 0), 0)
  const shared = { blocks, organisms, waits, onDone: () => setOpen(null) }
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{weight > 0 ? t('harvest.sum', { weight: f.weight(weight) }) : t('harvest.title')}</Heading>
        {open === 'new' ? null : <TextButton onPress={() => setOpen('new')}>{t('harvest.add')}</TextButton>}
      </Line>
      {waits.map(({ treatmentId, name, from, placeName }) => (
        <Caution key={treatmentId}>{t('harvest.wait', { place: placeName, date: f.date(from), name })}</Caution>
      ))}
      {open === 'new' ? <HarvestForm {...shared} /> : null}
      <Rows>
        {(showsAll ? harvests : harvests.slice(0, SHOWN)).map((harvest) => (
          <li key={harvest.id}>
            {open === harvest.id ? (
              <HarvestForm harvest={harvest} {...shared} />
            ) : (
              <Line style={{ justifyContent: 'space-between' }}>
                <span>
                  {what(harvest, harvest.placeName)}{' '}
                  <Quiet>{t('harvest.by', { date: f.date(harvest.pickedOn), person: harvest.personName })}</Quiet>
                  {harvest.note === '' ? null : <Small>{harvest.note}</Small>}
                </span>
                <Line>
                  <TextButton aria-label={t('harvest.correct', { date: f.date(harvest.pickedOn) })} onPress={() => setOpen(harvest.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.harvests.remove}
                    restore={endpoints.harvests.restore}
                    params={{ siteId: site.id, harvestId: harvest.id }}
                    rowVersion={harvest.rowVersion}
                    label={t('harvest.removeOne', { date: f.date(harvest.pickedOn), what: what(harvest, harvest.placeName) })}
                    said={t('harvest.removed', { date: f.date(harvest.pickedOn) })}
                  />
                </Line>
              </Line>
            )}
            {harvest.tooEarly.map(({ treatmentId, name, from }) => (
              <Caution key={treatmentId}>{t('harvest.tooEarly', { name, date: f.date(from) })}</Caution>
            ))}
          </li>
        ))}
      </Rows>
      {harvests.length > SHOWN && !showsAll ? (
        <TextButton onPress={() => setShowsAll(true)}>{t('harvest.more', { count: harvests.length - SHOWN })}</TextButton>
      ) : null}
    </Stack>
  )
}

/** A harvest as a line that is read as what it is, in any language and without thousands set apart. */
const lineOf = ({ kg, pieces, spoilt, spoiltByName, placeName, note }: Harvest, weight: Measure): string =>
  [
    kg === null ? '' : `${Number(weight.shown(kg).toFixed(3))} ${weight.unit}`,
    pieces === null ? '' : `${pieces} pieces`,
    placeName,
    spoilt === null ? '' : `${spoilt} spoilt${spoiltByName === null ? '' : ` by ${spoiltByName}`}`,
    note,
  ]
    .filter((part) => part !== '')
    .join(', ')

function HarvestForm(p: {
  harvest?: Harvest
  blocks: readonly Block[]
  organisms: readonly Named[]
  waits: readonly { treatmentId: string; name: string; from: string; placeIds: readonly string[] }[]
  onDone: () => void
}) {
  const { harvest, organisms } = p
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const what = useWhat()
  const { data: parts = [] } = usePlaces(site.id)
  const places = [...p.blocks, ...parts]
  const initial = {
    line: harvest ? lineOf(harvest, f.measures.weight) : '',
    placeId: harvest?.placeId ?? (places.length === 1 ? (places[0]?.id ?? null) : null),
    pickedOn: (harvest?.pickedOn ?? site.today) as string | null,
  }
  const add = useEntry(endpoints.harvests.add, initial, null, harvest ? undefined : site.id)
  const update = useEntry(endpoints.harvests.update, initial, harvest, harvest?.id)
  const entry = harvest ? update : add
  const { values, bind, errors } = entry
  const read = readHarvest(values.line, places, organisms)
  const placeId = read.placeId ?? values.placeId
  const input = (v: typeof initial) => {
    const { placeId: said, ...rest } = readHarvest(v.line, places, organisms)
    return { ...rest, placeId: said ?? v.placeId ?? '', pickedOn: v.pickedOn ?? '' }
  }
  const save = async (): Promise<void> => {
    const done = harvest
      ? await update.submit({ siteId: site.id, harvestId: harvest.id }, (v, rowVersion) => ({ ...input(v), rowVersion }))
      : await add.submit({ siteId: site.id }, input)
    if (done) p.onDone()
  }
  const isRead = read.kg !== null || read.pieces !== null
  const place = places.find(({ id }) => id === placeId)
  const words = what({ ...read, spoiltByName: organisms.find(({ id }) => id === read.spoiltBy)?.name ?? null }, place?.name)
  const early = p.waits.filter(({ placeIds, from }) => placeId !== null && placeIds.includes(placeId) && (values.pickedOn ?? '') < from)
  const example = {
    place: (p.blocks.find(({ kind }) => kind !== 'natural-area') ?? p.blocks[0])?.name ?? '',
    organism: organisms.find(({ id }) => id === 'codling-moth')?.name ?? '',
  }
  return (
    <Sheet>
      <Stack>
        <TextField
          label={t('harvest.line')}
          hint={t('harvest.hint', { example: t(site.units === 'us' ? 'harvest.exampleUs' : 'harvest.example', example) })}
          width="100%"
          autoFocus
          {...bind.text('line')}
          error={errors['kg'] ?? errors['pieces'] ?? errors['spoilt'] ?? errors['spoiltBy']}
        />
        <Fields>
          {read.placeId === null ? (
            <Select
              label={t('harvest.where')}
              placeholder={t('choose')}
              width="22ch"
              options={places.map(({ id, name }) => ({ id, label: name }))}
              {...bind.choice('placeId')}
            />
          ) : null}
          <DateField label={t('harvest.day')} {...bind.day('pickedOn')} />
        </Fields>
        {values.line === '' ? null : (
          <p role="status">
            {isRead ? t('harvest.understood', { what: words }) : t('harvest.nothing')}{' '}
            {read.note === '' ? null : <Quiet>{t('harvest.asNote', { note: read.note })}</Quiet>}
          </p>
        )}
        {early.map(({ treatmentId, name, from }) => (
          <Caution key={treatmentId}>{t('harvest.tooEarly', { name, date: f.date(from) })}</Caution>
        ))}
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}
