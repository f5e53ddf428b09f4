import { endpoints, type Product, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks, useOrganisms, usePlaces } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { handMeans, idsOf, meansGate, productMeans } from '../band/means.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Caution, Fields, Heading, Sheet, Stack } from '../design/text.js'
import { hectaresFromSquareMetres } from '../design/units.js'
import { useText } from '../messages/useText.js'
import { ProductCautions } from './ProductCautions.js'
import { DoneFields } from './DoneFields.js'
import { doneInput, isAboveLabel, NO_WEATHER, NOTHING_MORE, saysWhy, takenOf, type DoneValues } from './doneValues.js'
import { useMethods } from '../windows/useShelfFor.js'
import { PlaceSelect } from './PlaceSelect.js'
import { useMostRate } from './useMostRate.js'

type Values = DoneValues & { watchId: string | null; means: string | null; placeId: string | null; deviationReason: string }

/** How much was treated is of the place: of another one nothing has been said yet. */
const NO_GROUND = { areaHa: null, keptClearM: null }

/** What was done without a plan. A record accepts what was done: what is not for its target is marked, with the reason that is given. */
export function RecordUnplanned(p: {
  rows: readonly WatchForecast[]
  products: readonly Product[]
  /** Chosen where it was asked for. */
  watchId: string | null
  means: string | null
  onDone: () => void
}) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: organisms = [] } = useOrganisms()
  const { data: methods } = useMethods()
  const entry = useEntry(
    endpoints.treatments.recordUnplanned,
    {
      watchId: p.watchId,
      means: p.means,
      placeId: null,
      day: site.today <= site.season.end ? site.today : null,
      time: '',
      rate: null,
      areaHa: null,
      keptClearM: null,
      minutes: null,
      doneById: null,
      ...takenOf(null),
      weather: NO_WEATHER,
      ...NOTHING_MORE,
      note: '',
      deviationReason: '',
    } as Values,
    null,
    site.id,
  )
  const { values, bind, errors } = entry
  const row = p.rows.find(({ watch }) => watch.id === values.watchId)
  const block = blocks.find(({ id }) => id === row?.watch.blockId)
  const organism = organisms.find(({ id }) => id === row?.watch.organismId)
  // What is known against it comes first; what was done all the same can be recorded, too.
  const all = [...p.products.map(productMeans), ...(methods ?? []).filter(({ product: labelled }) => !labelled).map(handMeans)]
  const gates = new Map(organism && block ? all.map((one) => [one.key, meansGate(one, organism, block)]) : [])
  const options = [...all].sort((a, b) => Number(gates.get(b.key)?.verdict === 'fits') - Number(gates.get(a.key)?.verdict === 'fits'))
  const means = all.find(({ key }) => key === values.means)
  const product = means?.product ?? null
  const gate = means ? gates.get(means.key) : undefined
  const most = useMostRate(product, row?.watch.organismId ?? '', values.placeId ?? block?.id ?? '')
  const part = places.find(({ id }) => id === values.placeId)
  const areaHa = part ? (part.areaM2 === null ? null : hectaresFromSquareMetres(part.areaM2)) : (block?.areaHa ?? null)
  const nameOf = ({ watch, organismName }: WatchForecast): string =>
    t('place.within', { name: organismName, parent: blocks.find(({ id }) => id === watch.blockId)?.name ?? '' })
  const [asksWhy, setAsksWhy] = useState(false)
  const save = async (): Promise<void> => {
    if (isAboveLabel({ rate: values.rate ?? most }, product, most) && !saysWhy(values)) return setAsksWhy(true)
    const says = t('record.says', { what: means?.name ?? '', organism: row?.organismName ?? '' })
    const saved = await entry.put({ siteId: site.id }, says, 'treatments?did=', (typed) => ({
      ...doneInput({ ...typed, rate: typed.rate ?? most, areaHa: typed.areaHa ?? areaHa }, site.timeZone),
      watchId: typed.watchId ?? '',
      ...idsOf(means),
      placeId: typed.placeId,
      deviationReason: typed.deviationReason,
    }))
    if (saved) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t('record.unplanned')}</Heading>
        <Fields>
          <Select
            label={t('record.against')}
            placeholder={t('choose')}
            width="32ch"
            options={p.rows.map((r) => ({ id: r.watch.id, label: nameOf(r) }))}
            value={values.watchId}
            onChange={(watchId) => entry.set({ watchId, placeId: null, ...NO_GROUND })}
            error={errors['watchId']}
          />
          <Select
            label={t('plan.product')}
            placeholder={t('choose')}
            width="28ch"
            options={options.map(({ key, name }) => ({ id: key, label: name }))}
            {...bind.choice('means')}
            error={errors['productId'] ?? errors['methodId']}
          />
          {block ? (
            <PlaceSelect
              block={block}
              places={places}
              value={values.placeId}
              onChange={(placeId) => entry.set({ placeId, ...NO_GROUND })}
              error={errors['placeId']}
            />
          ) : null}
        </Fields>
        {row && means && block ? (
          <>
            <DoneFields
              {...entry}
              values={{ ...values, rate: values.rate ?? most, areaHa: values.areaHa ?? areaHa }}
              bind={{
                ...bind,
                number: (path, measure) => {
                  const field = bind.number(path, measure)
                  const known = path === 'rate' ? most : path === 'areaHa' ? areaHa : null
                  return { ...field, value: field.value ?? (known !== null && measure ? measure.shown(known) : known) }
                },
              }}
              label={product}
              most={most}
              place={{ id: values.placeId ?? block.id, name: part?.name ?? block.name, areaHa }}
              organismId={row.watch.organismId}
              watchId={row.watch.id}
              weatherStands={entry.draftSince !== null}
              asksWhy={asksWhy}
            />
            {gate?.verdict === 'refused' ? (
              <>
                <Caution>
                  {t(`gate.${gate.because}`, { name: means.name })} {t('record.deviates')}
                </Caution>
                <TextField label={t('record.deviationReason')} width="60ch" {...bind.text('deviationReason')} />
              </>
            ) : null}
            {product ? <ProductCautions product={product} /> : null}
          </>
        ) : null}
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} words={t('record.save')} />
      </Stack>
    </Sheet>
  )
}
