import { endpoints, type Block, type Harvest } from '@bocado/contract'
import { usePlaces } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Caution, Fields, Quiet, Sheet, Stack } from '../design/text.js'
import type { Measure } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useWhat } from './harvestWords.js'
import { readHarvest, type Named } from './readHarvest.js'
import '../messages/en/harvest.js'

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

/** What was picked, in one line, read back before it is stored. */
export function HarvestForm(p: {
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
    pickedOn: harvest?.pickedOn ?? (site.today <= site.season.end ? site.today : null),
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
      : await add.put({ siteId: site.id }, t('harvest.says', { what: words }), 'treatments?do=harvest', input)
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
