import { windWords } from './windWords.js'
import { endpoints, type Product, type Treatment, type WatchForecast } from '@bocado/contract'
import { Link } from 'react-router'
import { useBlocks, usePlaces } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Line, Quiet, Small, Stack } from '../design/text.js'
import { hectaresFromSquareMetres } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useRefusal } from '../messages/refusal.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Signature } from './Signature.js'
import '../messages/en/job.js'
import '../messages/en/record.js'
import '../messages/en/work.js'

const forms = later(() => import('./forms.js'))
const RecordForm = partLater(async () => (await forms()).RecordForm)

type Done = NonNullable<Treatment['done']>

/** What else a record holds: its lot, machine and water, stages, what became of the rest, and the count and window behind it. */
function MoreOfIt({ done }: { done: Done }) {
  const t = useText()
  const f = useFormat()
  const { why } = done
  const said = [
    done.lotNumber && t('record.ofLot', { lot: done.lotNumber }),
    done.machineName,
    done.waterL === null ? null : f.volume(done.waterL),
    done.cropStage || null,
    done.targetStage || null,
    done.bags === null ? null : t('record.bagsSaid', { count: done.bags }),
    done.waste && t(`disposal.${done.waste}`),
  ].filter(Boolean)
  const because =
    why &&
    [
      why.per100 === null || why.countedOn === null
        ? null
        : t('record.why', {
            per100: f.number(why.per100, 1),
            date: f.date(why.countedOn),
            threshold: why.threshold === null ? 'none' : f.number(why.threshold, 1),
          }),
      why.opens === null || why.closes === null ? null : t('record.window', { span: f.span(why.opens, why.closes) }),
    ].filter(Boolean)
  return (
    <>
      {said.length > 0 ? `, ${said.join(', ')}` : ''}
      {because && because.length > 0 ? <Quiet> {t('record.because', { list: because.join('; ') })}</Quiet> : null}
    </>
  )
}

/** What a deed departed from of label, law and rules, with what whoever did it says to that. */
function Departures({ done }: { done: Done }) {
  const t = useText()
  const says = useRefusal()
  if (done.departures.length === 0) return null
  return (
    <Caution>
      <b>{t('record.departs')}</b>{' '}
      {done.departures
        .map(({ because, ...said }) => {
          // What was to be done instead is of a plan.
          const words = says({ path: '', ...said }).replace(/: (?=(take|ask|change|choose) )[^:]*$/, '')
          return because === 'rule' ? t('job.day', { says: words }) : because === 'rate' ? t('record.rateWas', { says: words }) : words
        })
        .join('; ')}
      . {done.departureReason || t('record.sayWhy')}
    </Caution>
  )
}

interface LineProps {
  row: WatchForecast
  treatment: Treatment
  products: readonly Product[]
  recording: boolean
  onRecord: (id: string | null) => void
}

/** A treatment that is planned or was done: as a sentence, with what it departs from, and what can be done with it. */
export function TreatmentLine({ row, treatment, products, recording, onRecord }: LineProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { done } = treatment
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
        windWords(done.weather, t, f),
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
            {done.endedAt === null ? '' : ` ${t('record.until', { at: f.clock(done.endedAt) })}`}
            {done.taken === null
              ? ''
              : `, ${t('treatments.taken', { amount: f.number(done.taken.amount, 1), unit: t(`taken.${done.taken.unit}`) })}`}
            {done.keptClearM === null ? '' : `, ${t('treatments.keptClear', { away: f.height(done.keptClearM) })}`}
            {weather.length > 0 ? `, ${weather.join(', ')}` : product ? `, ${t('treatments.noWeather')}` : ''}
            {done.minutes === null ? '' : `, ${t('treatments.took', { minutes: done.minutes })}`}
            <MoreOfIt done={done} />
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
      {done ? <Departures done={done} /> : null}
      {done?.label ? <Signature treatment={treatment} /> : null}
      {recording ? (
        <RecordForm
          treatment={treatment}
          product={product}
          against={{ organismId: row.watch.organismId, name: row.organismName }}
          areaHa={areaHa}
          placeName={placeName}
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
          {done && !done.label ? null : (
            <Link to={`/sites/${site.id}/treatments/${treatment.id}/sheet`}>{done ? t('posting.title') : t('job.open')}</Link>
          )}
          <RemoveButton
            remove={endpoints.treatments.remove}
            restore={endpoints.treatments.restore}
            params={{ siteId: site.id, treatmentId: treatment.id }}
            rowVersion={treatment.rowVersion}
            said={t('plan.removed', { name: treatment.name })}
          />
        </Line>
      )}
    </Stack>
  )
}
