import { endpoints, type Product, type Treatment, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useBand, useBlocks, useHarvests, useOrganisms, usePlaces, useProducts } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { whichAssumed } from '../band/means.js'
import { Explained } from '../design/Explained.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Columns, Empty, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { hectaresFromSquareMetres } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useAsked } from '../shell/useAsked.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { HarvestPart } from './HarvestPart.js'
import { MixPart } from './MixPart.js'
import { Signature } from './Signature.js'
import '../messages/en/field.js'
import '../messages/en/mix.js'
import '../messages/en/plan.js'
import '../messages/en/work.js'

const forms = later(() => import('./forms.js'))
const TakenOnWalks = partLater(async () => (await import('./TakenOnWalks.js')).TakenOnWalks)
const ProductForm = partLater(async () => (await forms()).ProductForm)
const RecordForm = partLater(async () => (await forms()).RecordForm)
const RecordUnplanned = partLater(async () => (await forms()).RecordUnplanned)

/** What is planned, what was done, and the shelf it comes from. */
export function TreatmentsScreen() {
  const t = useText()
  usePageTitle(t('nav.treatments'))
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: products } = useProducts(site.id)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: picked } = useHarvests(site.id, site.season.start)
  if (!band || !products || !blocks || !organisms || !picked) return <Waiting />
  const all = band.watches.flatMap((row) => row.treatments.map((treatment) => ({ row, treatment })))
  const planned = all
    .filter(({ treatment }) => treatment.status === 'planned')
    .sort((a, b) => a.treatment.plannedOn.localeCompare(b.treatment.plannedOn))
  const done = all
    .filter(({ treatment }) => treatment.status === 'done')
    .sort((a, b) => (b.treatment.done?.startedAt ?? '').localeCompare(a.treatment.done?.startedAt ?? ''))
  const recording = search.get('record')
  const record = (id: string | null): void => setSearch(id ? { record: id } : {}, { replace: true })
  const unplanned = search.get('did')
  return (
    <Page>
      <Columns $left="7fr" $right="4fr">
        <Stack $gap={22}>
          <Stack>
            <Title>{t('treatments.planned', { count: planned.length })}</Title>
            {planned.length === 0 ? (
              <Empty>
                <p>{t('treatments.emptyPlanned')}</p>
                <Link to={`/sites/${site.id}/windows`}>{t('treatments.toWindows')}</Link>
              </Empty>
            ) : (
              <Rows>
                {planned.map(({ row, treatment }) => (
                  <li key={treatment.id}>
                    <TreatmentLine
                      row={row}
                      treatment={treatment}
                      products={products}
                      recording={recording === treatment.id}
                      onRecord={record}
                    />
                  </li>
                ))}
              </Rows>
            )}
          </Stack>
          <Stack>
            <Line style={{ justifyContent: 'space-between' }}>
              <Heading>{t('treatments.done')}</Heading>
              {unplanned === null && band.watches.length > 0 ? (
                <TextButton onPress={() => setSearch({ did: '' }, { replace: true })}>{t('record.unplanned')}</TextButton>
              ) : null}
            </Line>
            {unplanned === null ? null : (
              <RecordUnplanned
                key={`${unplanned} ${search.get('with') ?? ''}`}
                rows={band.watches}
                products={products}
                watchId={unplanned || null}
                means={search.get('with')}
                onDone={() => record(null)}
              />
            )}
            {done.length === 0 ? <Small>{t('treatments.emptyDone')}</Small> : null}
            <Rows>
              {done.map(({ row, treatment }) => (
                <li key={treatment.id}>
                  <TreatmentLine
                    row={row}
                    treatment={treatment}
                    products={products}
                    recording={recording === treatment.id}
                    onRecord={record}
                  />
                </li>
              ))}
            </Rows>
          </Stack>
          <HarvestPart data={picked} blocks={blocks} organisms={organisms} />
        </Stack>
        <Stack $gap={28}>
          <Shelf products={products} />
          <TakenOnWalks band={band} placeOf={(id) => blocks.find((block) => block.id === id)?.name ?? ''} />
        </Stack>
      </Columns>
    </Page>
  )
}

/** Ways in which a label lets something be put out with water. */
const MIXED: readonly string[] = ['spray', 'spot-spray', 'drench']

interface LineProps {
  row: WatchForecast
  treatment: Treatment
  products: readonly Product[]
  recording: boolean
  onRecord: (id: string | null) => void
}

function TreatmentLine({ row, treatment, products, recording, onRecord }: LineProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { done } = treatment
  const [mixing, setMixing] = useState(false)
  const onShelf = products.find(({ id }) => id === treatment.productId)
  // Only what is put out with water is mixed.
  const toMix = !done && onShelf?.ways.some((way) => MIXED.includes(way)) ? onShelf : undefined
  // What was done keeps the label of its day; by hand there is none.
  const product = done ? done.label : (products.find(({ id }) => id === treatment.productId) ?? null)
  const block = blocks.find(({ id }) => id === row.watch.blockId)
  if (!block) return null
  const part = places.find(({ id }) => id === treatment.placeId)
  const areaHa = part ? (part.areaM2 === null ? null : hectaresFromSquareMetres(part.areaM2)) : block.areaHa
  const placeName = part ? t('place.within', { name: part.name, parent: block.name }) : block.name
  const weather = done
    ? [
        done.weather.tempC === null ? null : f.temperature(done.weather.tempC),
        done.weather.humidityPct === null ? null : `${f.number(done.weather.humidityPct)} %`,
        done.weather.windMs === null ? null : t('treatments.wind', { wind: f.wind(done.weather.windMs) }),
      ].filter((part) => part !== null)
    : []
  return (
    <Stack $gap={6}>
      <p>
        {done ? (
          <>
            <b>
              {done.rate === null
                ? t('treatments.byHand', {
                    name: treatment.name,
                    place: placeName,
                    area: done.areaHa === null ? 'none' : f.area(done.areaHa),
                  })
                : t('treatments.sentence', {
                    name: treatment.name,
                    rate: `${f.number(done.rate, 3)} ${done.rateUnit ?? ''}`,
                    area: f.area(done.areaHa ?? 0),
                    place: placeName,
                  })}
            </b>{' '}
            {f.moment(done.startedAt)}
            {done.taken === null
              ? ''
              : `, ${t('treatments.taken', { amount: f.number(done.taken.amount, 1), unit: t(`taken.${done.taken.unit}`) })}`}
            {done.keptClearM === null ? '' : `, ${t('treatments.keptClear', { away: f.height(done.keptClearM) })}`}
            {weather.length > 0 ? `, ${weather.join(', ')}` : product ? `, ${t('treatments.noWeather')}` : ''}
            {done.minutes === null ? '' : `, ${t('treatments.took', { minutes: done.minutes })}`}
          </>
        ) : (
          <b>{t('treatments.plan', { name: treatment.name, place: placeName, date: f.dateInDays(treatment.plannedOn) })}</b>
        )}
        <br />
        {treatment.deviation ? (
          <>
            <b>{t('treatments.deviation')}</b> {t(`gate.${treatment.deviation.because}`, { name: treatment.name })}{' '}
            {treatment.deviation.reason}
            <br />
          </>
        ) : null}
        <Quiet>
          {done && done.doneByName !== treatment.personName
            ? t('treatments.doneBy', { organism: row.organismName, doer: done.doneByName, person: treatment.personName })
            : t('treatments.against', { organism: row.organismName, person: treatment.personName })}
        </Quiet>{' '}
        {treatment.note}
      </p>
      {done && product && done.reEntryUntil !== null ? (
        <Small>
          {Date.parse(done.reEntryUntil) > Date.parse(`${site.today}T00:00:00Z`)
            ? t('treatments.reEntryRunning', { until: f.moment(done.reEntryUntil) })
            : t('treatments.reEntryOver', { until: f.moment(done.reEntryUntil) })}{' '}
          {t('treatments.harvestFrom', { date: f.date(f.nudge(done.day, product.preHarvestDays)) })}
        </Small>
      ) : null}
      {done?.label ? <Signature treatment={treatment} /> : null}
      {recording ? (
        <RecordForm
          treatment={treatment}
          product={product}
          against={{ organismId: row.watch.organismId, name: row.organismName }}
          areaHa={areaHa}
          onDone={() => onRecord(null)}
        />
      ) : (
        <Line>
          <TextButton onPress={() => onRecord(treatment.id)}>{done ? t('treatments.correct') : t('treatments.record')}</TextButton>
          {done ? (
            <Link to={`/sites/${site.id}/outcomes`}>{t('treatments.toOutcome')}</Link>
          ) : (
            <Link to={`/sites/${site.id}/windows?watch=${row.watch.id}`}>{t('treatments.inWindow')}</Link>
          )}
          {toMix ? (
            <TextButton aria-expanded={mixing} onPress={() => setMixing(!mixing)}>
              {t('mix.title')}
            </TextButton>
          ) : null}
          <RemoveButton
            remove={endpoints.treatments.remove}
            restore={endpoints.treatments.restore}
            params={{ siteId: site.id, treatmentId: treatment.id }}
            rowVersion={treatment.rowVersion}
            said={t('plan.removed', { name: treatment.name })}
          />
        </Line>
      )}
      {mixing && toMix && !recording ? (
        <MixPart product={toMix} organismId={row.watch.organismId} placeId={treatment.placeId} areaHa={areaHa} />
      ) : null}
    </Stack>
  )
}

function Shelf({ products }: { products: readonly Product[] }) {
  const t = useText()
  const f = useFormat()
  const [open, setOpen] = useState<string | null>(null)
  useAsked('product', () => setOpen('new'))
  return (
    <Stack>
      <Heading>{t('shelf.title')}</Heading>
      <Caution>{t('caution.label')}</Caution>
      <Rows>
        {products.map((product) => (
          <li key={product.id} data-at={`product ${product.id}`} tabIndex={-1}>
            {open === product.id ? (
              <ProductForm product={product} onDone={() => setOpen(null)} />
            ) : (
              <>
                <b>{product.name}</b>{' '}
                <TextButton aria-label={t('shelf.editNamed', { name: product.name })} onPress={() => setOpen(product.id)}>
                  {t('edit')}
                </TextButton>
                <Small>
                  <Explained>
                    {t('shelf.label', {
                      rate: f.number(product.labelRate, 3),
                      unit: product.rateUnit,
                      reEntry: f.number(product.reEntryHours, 1),
                      preHarvest: product.preHarvestDays,
                      bees: t(`bees.${product.bees}`),
                      protection: product.protection,
                    })}
                  </Explained>{' '}
                  {product.licensedOnly ? `${t('signature.only')} ` : ''}
                  {product.assumed.length > 0
                    ? t('shelf.assumed', {
                        which: whichAssumed(product.assumed),
                        effect: f.percent(product.effect),
                        days: product.residualDays,
                      })
                    : null}
                </Small>
              </>
            )}
          </li>
        ))}
      </Rows>
      {open === 'new' ? (
        <ProductForm onDone={() => setOpen(null)} />
      ) : (
        <TextButton onPress={() => setOpen('new')}>{t('shelf.add')}</TextButton>
      )}
    </Stack>
  )
}
