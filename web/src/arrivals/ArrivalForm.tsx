import { arrivalKinds, arrivalLooks, endpoints, type Arrival } from '@bocado/contract'
import { useBlocks, usePlaces, useSites } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/arrivals.js'

const ELSEWHERE = 'elsewhere'
/** Most of what lives in a root ball shows itself within so many days. */
const USUAL_DAYS = 21

/** What came in, where it stands, and what looks at it showed. */
export function ArrivalForm({ arrival, onDone }: { arrival?: Arrival; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: sites = [] } = useSites()
  const initial = {
    what: (arrival?.what ?? 'plants') as string | null,
    name: arrival?.name ?? '',
    source: arrival?.source ?? '',
    fromSiteId: ELSEWHERE as string | null,
    arrivedOn: arrival?.arrivedOn ?? (site.today as string | null),
    placeId: arrival?.placeId ?? (blocks.length === 1 ? (blocks[0]?.id ?? null) : (null as string | null)),
    rootLook: (arrival?.rootLook ?? 'not-looked') as string | null,
    stemLook: (arrival?.stemLook ?? 'not-looked') as string | null,
    isolatedUntil: arrival ? arrival.isolatedUntil : (f.nudge(site.today, USUAL_DAYS) as string | null),
    releasedOn: arrival?.releasedOn ?? (null as string | null),
    note: arrival?.note ?? '',
  }
  const add = useEntry(endpoints.arrivals.add, initial, null, arrival ? undefined : `${site.id} arrival`)
  const update = useEntry(endpoints.arrivals.update, initial, arrival, arrival?.id)
  const entry = arrival ? update : add
  const { bind } = entry
  const input = ({ fromSiteId: _, ...v }: typeof initial) =>
    ({
      ...v,
      what: v.what as Arrival['what'],
      rootLook: v.rootLook as Arrival['rootLook'],
      stemLook: v.stemLook as Arrival['stemLook'],
      placeId: v.placeId ?? '',
      arrivedOn: v.arrivedOn ?? '',
    }) as const
  const save = async (): Promise<void> => {
    const saved = arrival
      ? await update.submit({ siteId: site.id, arrivalId: arrival.id }, (v, rowVersion) => ({ ...input(v), rowVersion }))
      : await add.submit({ siteId: site.id }, (v) => ({ ...input(v), fromSiteId: v.fromSiteId === ELSEWHERE ? null : v.fromSiteId }))
    if (saved) onDone()
  }
  const mine = sites.filter(({ id }) => id !== site.id)
  const looks = arrivalLooks.map((id) => ({ id, label: t(`arrivals.look.${id}`) }))
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('arrivals.what')}
            placeholder=""
            width="18ch"
            options={arrivalKinds.map((id) => ({ id, label: t(`arrivals.what.${id}`) }))}
            {...bind.choice('what')}
          />
          <TextField label={t('arrivals.name')} width="32ch" hint={t('arrivals.nameHint')} {...bind.text('name')} />
          <TextField label={t('arrivals.source')} width="22ch" {...bind.text('source')} />
          {!arrival && mine.length > 0 ? (
            <Select
              label={t('arrivals.fromSite')}
              placeholder=""
              width="22ch"
              options={[{ id: ELSEWHERE, label: t('arrivals.elsewhere') }, ...mine.map(({ id, name }) => ({ id, label: name }))]}
              {...bind.choice('fromSiteId')}
            />
          ) : null}
          <Select
            label={t('arrivals.where')}
            placeholder={t('choose')}
            width="22ch"
            options={[...blocks, ...places].map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('placeId')}
          />
          <DateField label={t('arrivals.arrivedOn')} {...bind.day('arrivedOn')} />
        </Fields>
        <Fields>
          <Select label={t('arrivals.root')} placeholder="" width="20ch" options={looks} {...bind.choice('rootLook')} />
          <Select label={t('arrivals.stem')} placeholder="" width="20ch" options={looks} {...bind.choice('stemLook')} />
          <DateField label={t('arrivals.apart')} {...bind.day('isolatedUntil')} />
          {arrival ? <DateField label={t('arrivals.released')} {...bind.day('releasedOn')} /> : null}
          <TextField label={t('note')} width="32ch" {...bind.text('note')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
