import { endpoints, plantHappenings, type Place, type PlantEvent } from '@bocado/contract'
import { useBand, useOrganisms, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/site.js'

const UNKNOWN = 'unknown'

export const usePlantEvents = (siteId: string) => useRead(endpoints.places.events, { params: { siteId }, input: {} })

/** How many of the plants of a place are lost, and how many were put in for them. */
export function plantsNow(place: Pick<Place, 'id' | 'plants'>, events: readonly PlantEvent[], t: Say): string {
  const own = events.filter(({ placeId }) => placeId === place.id)
  const sum = (kind: PlantEvent['happened']): number =>
    own.filter(({ happened }) => happened === kind).reduce((all, { plants }) => all + plants, 0)
  const gone = Math.max(0, sum('lost') - sum('replaced'))
  return gone === 0 || place.plants === null ? '' : t('happened.left', { left: Math.max(0, place.plants - gone), of: place.plants })
}

/** The exceptions of a place’s plants: affected, rescued, lost, replaced; the newest first, and a line to add to them. */
export function PlantEvents({ place, onDone }: { place: Place; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: events = [] } = usePlantEvents(site.id)
  const { data: organisms = [] } = useOrganisms()
  const { data: band } = useBand(site.id, site.season.start)
  const initial = {
    happened: 'affected' as string | null,
    plants: 1 as number | null,
    organismId: UNKNOWN as string | null,
    happenedOn: site.today as string | null,
    note: '',
  }
  const entry = useEntry(endpoints.places.addEvent, initial, null, `plants ${place.id}`)
  const { bind } = entry
  const watched = new Set(band?.watches.map(({ watch }) => watch.organismId))
  const first = [...organisms].sort((a, b) => Number(watched.has(b.id)) - Number(watched.has(a.id)) || a.name.localeCompare(b.name))
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id }, (v) => ({
      placeId: place.id,
      happened: v.happened as PlantEvent['happened'],
      plants: v.plants ?? NaN,
      organismId: v.organismId === UNKNOWN ? null : v.organismId,
      happenedOn: v.happenedOn ?? '',
      note: v.note,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Rows>
          {events
            .filter(({ placeId }) => placeId === place.id)
            .map((event) => (
              <li key={event.id}>
                <Line style={{ justifyContent: 'space-between' }}>
                  <span>
                    {t(`happened.line.${event.happened}`, { count: event.plants, name: event.organismName ?? 'none' })}{' '}
                    <Small as="span">{[f.withYear(event.happenedOn), event.personName, event.note].filter(Boolean).join(', ')}</Small>
                  </span>
                  <RemoveButton
                    remove={endpoints.places.removeEvent}
                    restore={endpoints.places.restoreEvent}
                    params={{ siteId: site.id, plantEventId: event.id }}
                    rowVersion={event.rowVersion}
                    label={t('happened.remove', { date: f.date(event.happenedOn) })}
                    said={t('happened.removed')}
                  />
                </Line>
              </li>
            ))}
        </Rows>
        <Fields>
          <NumberField label={t('happened.count')} width="12ch" digits={0} {...bind.number('plants')} />
          <Select
            label={t('happened.happened')}
            placeholder=""
            width="16ch"
            options={plantHappenings.map((id) => ({ id, label: t(`happened.${id}`) }))}
            {...bind.choice('happened')}
          />
          <Select
            label={t('happened.by')}
            placeholder=""
            width="24ch"
            options={[{ id: UNKNOWN, label: t('happened.unknown') }, ...first.map(({ id, name }) => ({ id, label: name }))]}
            {...bind.choice('organismId')}
          />
          <DateField label={t('happened.on')} {...bind.day('happenedOn')} />
          <TextField label={t('note')} width="26ch" {...bind.text('note')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
