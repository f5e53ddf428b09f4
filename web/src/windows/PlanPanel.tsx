import { endpoints, type InfectionForecast, type Organism, type Treatment, type WatchForecast } from '@bocado/contract'
import { MS_PER_DAY } from '@bocado/core/time'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { usePlaces, useWrite } from '../api/hooks.js'
import { useRecorded } from '../api/useRecorded.js'
import { RequestProblem } from '../api/client.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { idsOf, keyOf, whichAssumed, type Means } from '../band/means.js'
import { cohortsFor, coverageOn, waitingADay, type CostOfWaiting, type TreatmentReach } from '../band/treatmentCoverage.js'
import { isAtSowing } from '../band/late.js'
import { urgencyOf } from '../band/urgency.js'
import { Button, TextButton } from '../design/buttons.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useNear } from '../ground/near.js'
import { useText } from '../messages/useText.js'
import { TellApartLater } from '../library/toldApartLater.js'
import { useToldApart } from '../library/useToldApart.js'
import { PlaceSelect } from '../treatments/PlaceSelect.js'
import { ProductCautions } from '../treatments/ProductCautions.js'
import { useKeys } from '../shell/keys.js'
import { partLater } from '../shell/partLater.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { BeesThere } from './BeesThere.js'
import { CoverageChart } from './CoverageChart.js'
import { HarvestThere } from './HarvestThere.js'
import { useClosedDays } from './useClosedDays.js'
import { LeaveCheck } from './LeaveCheck.js'
import { RotationThere } from './RotationThere.js'
import { RulesThere } from './RulesThere.js'
import type { Planning } from './usePlanning.js'
import { StillReaching, useReachOn } from './StillReaching.js'
import { membersOn, useHours } from './useHours.js'
import { chosenOf, useOffered, type Offered, type ShelfHere } from './useShelfFor.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'

const TooLate = partLater(async () => (await import('./TooLate.js')).TooLate)
const SeveralDays = partLater(async () => (await import('./SeveralDays.js')).SeveralDays)

/** A treatment planned into the window: its coverage follows the date as it is typed, nudged or dragged on the band. */
export function PlanPanel(p: { forecast: WatchForecast; organism: Organism; planning: Planning; shelf: ShelfHere }) {
  const { forecast, organism, planning, shelf } = p
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const { date, moving, setDate } = planning
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({})
  const [general, setGeneral] = useState<string | null>(null)
  const plan = useRecorded(endpoints.treatments.plan)
  const move = useWrite(endpoints.treatments.move)
  const told = useToldApart(forecast.watch.id)
  const { block } = shelf
  const near = useNear(block?.id ?? null)
  const all = useOffered(shelf)
  // What is chosen when something is sown stands apart, unless somebody took it up.
  const offered = useMemo(
    () => all.filter(({ means: { key, methodId } }) => !isAtSowing({ methodId }) || key === planning.means),
    [all, planning.means],
  )
  const atSowing = useMemo(() => all.filter(({ means }) => isAtSowing(means)).map(({ means: { name } }) => name), [all])
  const chosen = chosenOf(offered, forecast, planning)
  const { data: places = [] } = usePlaces(site.id)
  const [placeId, setPlaceId] = useState<string | null | undefined>(undefined)
  const chosenPlace = placeId === undefined ? (moving?.placeId ?? null) : placeId
  const nudge = (days: number): void => setDate(f.nudge(date ?? site.today, days))
  useKeys({ '[': () => nudge(-1), ']': () => nudge(1) })

  const save = async (): Promise<void> => {
    setErrors({})
    setGeneral(null)
    const input = { ...idsOf(chosen?.means), placeId: chosenPlace, plannedOn: date ?? '', note: moving?.note ?? '' }
    try {
      if (moving)
        await move.save({ params: { siteId: site.id, treatmentId: moving.id }, input: { ...input, rowVersion: moving.rowVersion } })
      else {
        const says = t('plan.says', { name: chosen?.means.name ?? '', organism: forecast.organismName, date: f.date(date ?? site.today) })
        const form = { draft: `plan ${forecast.watch.id}`, values: {}, address: `windows?watch=${forecast.watch.id}` }
        await plan.save({ params: { siteId: site.id }, input: { ...input, watchId: forecast.watch.id } }, says, form)
      }
      planning.clear()
      setPlaceId(undefined)
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      const { fields, detail } = error.problem
      setErrors(Object.fromEntries((fields ?? []).map(({ path, message }) => [path, message])))
      // What has to be looked at first belongs to no field of this form.
      setGeneral(fields ? (fields.find(({ path }) => path === 'identity')?.message ?? null) : detail)
    }
  }
  const planned = (
    <PlannedList
      forecast={forecast}
      offered={all}
      onMove={(treatment) => {
        setPlaceId(undefined)
        planning.take(treatment)
      }}
    />
  )

  if (isPast)
    return (
      <Stack>
        <Heading>{t('plan.wasDone')}</Heading>
        {forecast.treatments.length === 0 ? <Small>{t('plan.nothingDone')}</Small> : planned}
        <Link to={`/sites/${site.id}/treatments?did=${forecast.watch.id}`}>{t('plan.recordLater')}</Link>
      </Stack>
    )
  if (!chosen) {
    return (
      <Stack>
        <Heading>{t('plan.title')}</Heading>
        <p>{t('plan.nothingFits')}</p>
        <Link to={`/sites/${site.id}/treatments`}>{t('plan.toShelf')}</Link>
        <NotForIt refused={shelf.refused} watchId={forecast.watch.id} />
        {planned}
      </Stack>
    )
  }
  const { means, gate } = chosen
  const { product } = means
  const subject = { watchId: forecast.watch.id, organismId: forecast.watch.organismId, name: forecast.organismName }
  if (told && told.state !== 'clear' && !moving)
    return (
      <Stack>
        <TellApartLater told={told} subject={subject} />
        {planned}
      </Stack>
    )
  return (
    <Stack>
      <StillReaching
        forecast={forecast}
        organism={organism}
        offers={offered}
        chosen={means.key}
        onChoose={planning.setMeans}
        date={date}
        block={block}
        atSowing={atSowing}
        error={errors['productId'] ?? errors['methodId']}
      />
      {urgencyOf(forecast) === 'past' && !isPast ? (
        <TooLate forecast={forecast} organism={organism} block={block} onPlan={planning.setMeans} />
      ) : null}
      {moving ? <Heading as="h3">{t('plan.moving')}</Heading> : null}
      <FormLine onSave={save} isBarred={plan.isBarred || move.isBarred}>
        {block ? <PlaceSelect block={block} places={places} value={chosenPlace} onChange={setPlaceId} error={errors['placeId']} /> : null}
        <Button $plain aria-label={t('plan.earlier')} onPress={() => nudge(-1)}>
          <ChevronLeft size={16} aria-hidden />
        </Button>
        <DateField label={t('plan.date')} value={date} onChange={setDate} error={errors['plannedOn']} />
        <Button $plain aria-label={t('plan.later')} onPress={() => nudge(1)}>
          <ChevronRight size={16} aria-hidden />
        </Button>
        <Button onPress={() => void save()} isDisabled={plan.isBarred || move.isBarred}>
          {moving ? t('plan.move') : t('plan.save')}
        </Button>
      </FormLine>
      <FormError text={general} />
      {gate.verdict === 'doubtful' ? (
        <Caution>
          {t(`gate.${gate.because}`, { name: means.name })} <Link to={`/sites/${site.id}/treatments`}>{t('plan.toShelfNow')}</Link>
        </Caution>
      ) : date ? (
        <Reached forecast={forecast} offers={offered} means={means} stages={gate.stages} date={date} onDate={setDate} />
      ) : null}
      {date ? <RulesThere forecast={forecast} means={means} date={date} /> : null}
      {date && product ? <RotationThere forecast={forecast} product={product} date={date} moving={moving} /> : null}
      {date && product ? <BeesThere forecast={forecast} product={product} date={date} /> : null}
      {date && product && product.preHarvestDays > 0 ? <HarvestThere forecast={forecast} product={product} date={date} /> : null}
      {product && block && near.length > 0 ? <Caution>{t('drawn.keep', { block: block.name, near: near.join(', ') })}</Caution> : null}
      {product ? (
        <ProductCautions product={product} date={date} />
      ) : (
        <Small>
          {t('plan.byHand')} <Link to={`/sites/${site.id}/library/methods/${means.methodId ?? ''}`}>{t('plan.howItIsDone')}</Link>
        </Small>
      )}
      {offered.some((one) => one.means.product) ? null : (
        <Small>
          {t('plan.nothingOnShelf')} <Link to={`/sites/${site.id}/treatments`}>{t('plan.toShelf')}</Link>
        </Small>
      )}
      <NotForIt refused={shelf.refused} watchId={forecast.watch.id} />
      {block && organism.sampling.scale !== 'presence' ? <LeaveCheck forecast={forecast} organism={organism} block={block} /> : null}
      {planned}
    </Stack>
  )
}

/** What stands on the shelf and is not for this, each with the reason; it can be recorded where it was used all the same. */
function NotForIt({ refused, watchId }: { refused: ShelfHere['refused']; watchId: string }) {
  const t = useText()
  const site = useSite()
  const [open, setOpen] = useState(false)
  if (refused.length === 0) return null
  return (
    <Stack $gap={4} data-part="not-for-it">
      <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
        {t('plan.notForIt', { count: refused.length })}
      </TextButton>
      {open ? (
        <ul style={{ margin: 0 }}>
          {refused.map(({ means, gate }) => (
            <li key={means.key}>
              <Small as="span">
                {t(`gate.${gate.because}`, { name: means.name })}{' '}
                <Link to={`/sites/${site.id}/treatments?did=${watchId}&with=${encodeURIComponent(means.key)}`}>{t('plan.wasUsed')}</Link>
              </Small>
            </li>
          ))}
        </ul>
      ) : null}
    </Stack>
  )
}

function Reached(p: {
  forecast: WatchForecast
  /** Everything that may be taken. */
  offers: readonly (Offered<'fits'> | Offered<'doubtful'>)[]
  means: Means
  /** Those that it reaches here. */
  stages: readonly string[]
  date: string
  onDate: (date: string) => void
}) {
  const { forecast, means, stages, date, onDate } = p
  const t = useText()
  const f = useFormat()
  const start = forecast.watch.season
  const { effect, residualDays, assumed } = means.does
  const [several, setSeveral] = useState(false)
  const without = useClosedDays(forecast, means)
  const cohorts = useMemo(() => cohortsFor(forecast, { stages, effect, residualDays }), [forecast, stages, effect, residualDays])
  const days = useMemo(() => {
    const action = { stages, effect, residualDays }
    const from = Math.max(0, forecast.heat.biofixIndex - 2, Math.floor((forecast.events[0]?.dates.begins.p10 ?? 0) - 7))
    const to = Math.min(forecast.heat.knownDays, from + 125)
    return Array.from({ length: Math.max(0, to - from) }, (_, i) => ({
      day: from + i,
      coverage: coverageOn(cohorts, action, from + i),
    }))
  }, [forecast, cohorts, stages, effect, residualDays])

  if (forecast.grade !== 'dates') return <Small>{t(forecast.grade === 'months' ? 'plan.months' : 'plan.noWeather')}</Small>
  if (forecast.infection) return <Covered forecast={forecast} infection={forecast.infection} means={means} date={date} />
  if (forecast.windows.length === 0) return <Small>{t('window.noFuture')}</Small>
  const index = f.seasonIndex(start, date)
  const reached = coverageOn(cohorts, { stages, effect, residualDays }, index)
  if (!reached || cohorts.generations.length === 0) return <p>{t('plan.noStage', { product: means.name })}</p>
  const best = days
    .filter(({ coverage }) => coverage?.generation === reached.generation)
    .sort((a, b) => (b.coverage?.bounds.p50 ?? 0) - (a.coverage?.bounds.p50 ?? 0))[0]
  const generation = forecast.generations.find(({ id }) => id === reached.generation)?.name ?? ''
  return (
    <>
      <p aria-live="polite" data-testid="coverage">
        <b>
          {t('plan.reaches', {
            date: f.dateInDays(date),
            share: f.number(100 * reached.bounds.p50),
            low: f.number(100 * reached.bounds.p10),
            high: f.number(100 * reached.bounds.p90),
            generation,
          })}
        </b>{' '}
        {best?.coverage ? t('plan.best', { date: f.date(f.seasonDay(start, best.day)), share: f.percent(best.coverage.bounds.p50) }) : ''}{' '}
        {best && best.day !== index && best.day >= forecast.heat.todayIndex ? (
          <TextButton onPress={() => onDate(f.seasonDay(start, best.day))}>{t('plan.takeBest')}</TextButton>
        ) : null}
      </p>
      <Waits
        cost={index < forecast.heat.todayIndex ? undefined : waitingADay(cohorts, { stages, effect, residualDays }, reached, index)}
        counted={forecast.rounds.some(
          ({ countedOn, checkAreaId }) => checkAreaId === null && countedOn >= f.nudge(date, -COUNT_HOLDS_DAYS),
        )}
      />
      <IfNot forecast={forecast} means={means} date={date} offers={p.offers} days={days} generation={reached.generation} />
      <CoverageChart
        days={days}
        chosen={index}
        today={forecast.heat.todayIndex}
        start={start}
        onChoose={(day) => onDate(f.seasonDay(start, day))}
      />
      <Stack $gap={8} data-part="days">
        <TextButton aria-expanded={several} onPress={() => setSeveral(!several)}>
          {t('jointly.open')}
        </TextButton>
        {several ? (
          <SeveralDays
            cohorts={cohorts}
            action={{ stages, effect, residualDays }}
            generation={reached.generation}
            name={generation}
            from={Math.max(forecast.heat.todayIndex, days[0]?.day ?? 0)}
            to={days.at(-1)?.day ?? 0}
            without={without}
            start={start}
            label={means.product}
            onDate={onDate}
          />
        ) : null}
      </Stack>
      <Small>
        {t('plan.how', { effect: f.percent(effect), days: residualDays, seasons: forecast.heat.pastSeasons })}{' '}
        {assumed.length > 0 ? t('plan.assumed', { by: means.product ? 'product' : 'hand', which: whichAssumed(assumed) }) : null}
      </Small>
    </>
  )
}

/** What is done where the day cannot be used: how likely that is, the best other day that probably can, and another way on the same day. */
function IfNot(p: {
  forecast: WatchForecast
  offers: readonly (Offered<'fits'> | Offered<'doubtful'>)[]
  means: Means
  date: string
  days: readonly { day: number; coverage: TreatmentReach | undefined }[]
  generation: string
}) {
  const { forecast, offers, means, days, generation } = p
  // A pin that is dragged is drawn first.
  const date = useDeferredValue(p.date)
  const t = useText()
  const f = useFormat()
  const hours = useHours(forecast, means)
  const start = forecast.watch.season
  // What harms bees may find no hour at all: it is no way out.
  const others = useMemo(
    () => offers.filter((one) => one.means.key !== means.key && (one.means.product?.bees ?? 'none-stated') === 'none-stated'),
    [offers, means.key],
  )
  const ways = useReachOn(forecast, others, f.seasonIndex(start, date))
  const usable = hours && membersOn(hours, date)
  if (!hours || usable === undefined) return null
  const share = ({ coverage }: (typeof days)[number]): number => coverage?.bounds.p50 ?? 0
  const other = days
    .filter(({ day, coverage }) => {
      const on = f.seasonDay(start, day)
      const members = membersOn(hours, on)
      return on !== date && coverage?.generation === generation && members !== undefined && members * 2 >= hours.members
    })
    .sort((a, b) => share(b) - share(a))[0]
  const way = [...ways].sort((a, b) => (b.reached?.bounds.p50 ?? 0) - (a.reached?.bounds.p50 ?? 0))[0]
  return (
    <Small data-testid="if-not">
      {t('plan.usable', { date: f.date(date), usable, members: hours.members })}{' '}
      {other ? t('plan.ifNotDay', { date: f.date(f.seasonDay(start, other.day)), share: f.percent(share(other)) }) : t('plan.ifNotNone')}{' '}
      {way?.reached ? t('plan.ifNotWay', { name: way.offer.means.name, share: f.percent(way.reached.bounds.p50) }) : null}
    </Small>
  )
}

/** A count says for about so long how things stand. */
const COUNT_HOLDS_DAYS = 7
/** What a day more hardly changes. */
const HARDLY = 0.005
/** So little is lost by a day that a count first is worth it. */
const CHEAP = 0.1

/** What a day of waiting costs, and whether a count may come first. */
function Waits({ cost, counted }: { cost: CostOfWaiting | undefined; counted: boolean }) {
  const t = useText()
  const f = useFormat()
  if (!cost) return null
  const { p10, p50, p90 } = cost.lost
  const said = Math.max(-p10, p90) < HARDLY ? 'same' : p10 >= 0 ? 'less' : p90 <= 0 ? 'more' : 'either'
  const [low, high] = said === 'more' ? [-p90, -p10] : [p10, p90]
  return (
    <Small data-testid="waiting">
      {t(`plan.waiting.${said}`, {
        share: f.percent(Math.abs(p50)),
        low: f.number(100 * low),
        high: f.percent(high),
        more: f.percent(-p10),
        less: f.percent(p90),
      })}{' '}
      {p90 < CHEAP && !counted ? t('plan.waiting.count') : null}
    </Small>
  )
}

/** How much of the infection that may come a protectant would stand before, from its day on and as long as its deposit lasts. */
function Covered(p: { forecast: WatchForecast; infection: InfectionForecast; means: Means; date: string }) {
  const { forecast, infection, means, date } = p
  const t = useText()
  const f = useFormat()
  const index = f.seasonIndex(forecast.watch.season, date)
  const ahead = infection.days.filter(({ day }) => day >= forecast.heat.todayIndex)
  const expected = (days: typeof ahead): number => days.reduce((sum, { probability }) => sum + probability, 0)
  if (expected(ahead) === 0)
    return <p>{infection.state === 'protect' ? t('plan.dueNow') : t('plan.nothingAhead', { product: means.name })}</p>
  const covered = ahead.filter(({ day }) => day >= index && day <= index + means.does.residualDays)
  return (
    <p aria-live="polite">
      <b>
        {t('plan.covers', {
          product: means.name,
          date: f.date(date),
          share: f.percent(expected(covered) / expected(ahead)),
          days: forecast.heat.forecast?.days ?? 0,
        })}
      </b>
    </p>
  )
}

/** What something did, or may do: the stages that it reaches here, and how much of them it kills for how long. */
interface Done {
  forecast: WatchForecast
  treatment: Treatment
  stages: readonly string[] | undefined
}

/** What a deed met, by the weather that came; nothing is said of a use that neither the library nor the label names. */
function Met({ forecast, treatment, stages }: Done) {
  const t = useText()
  const f = useFormat()
  const { done, deviation } = treatment
  const isKnown = done !== null && deviation === null && forecast.grade === 'dates' && !forecast.infection
  const met = useMemo(() => {
    if (!isKnown || stages === undefined) return undefined
    const action = { stages, effect: done.does.effect, residualDays: done.does.residualDays }
    const day = Math.round((Date.parse(done.day) - Date.parse(forecast.watch.season)) / MS_PER_DAY)
    return coverageOn(cohortsFor(forecast, action), action, day)
  }, [forecast, isKnown, done, stages])
  if (!met) return null
  const { p10, p50, p90 } = met.bounds
  return (
    <Small as="span" data-testid="met">
      {p90 < HARDLY
        ? t('plan.metNothing')
        : t('plan.met', {
            share: f.number(100 * p50),
            low: f.number(100 * p10),
            high: f.number(100 * p90),
            generation: forecast.generations.find(({ id }) => id === met.generation)?.name ?? '',
          })}
    </Small>
  )
}

interface Planned {
  forecast: WatchForecast
  offered: readonly (Offered<'fits'> | Offered<'doubtful'>)[]
  onMove: (treatment: Treatment) => void
}

/** What is planned and done against the watch in its season. */
function PlannedList({ forecast, offered, onMove }: Planned) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  if (forecast.treatments.length === 0) return null
  const stagesOf = (treatment: Treatment): readonly string[] | undefined => {
    const gate = offered.find(({ means }) => means.key === keyOf(treatment))?.gate
    return gate?.verdict === 'fits' ? gate.stages : undefined
  }
  return (
    <Rows>
      {forecast.treatments.map((treatment) => {
        const { name } = treatment
        return (
          <li key={treatment.id}>
            {treatment.done
              ? t('plan.done', { name, when: f.moment(treatment.done.startedAt), person: treatment.personName })
              : t('plan.planned', { name, date: f.dateInDays(treatment.plannedOn) })}{' '}
            {treatment.done ? (
              <Met forecast={forecast} treatment={treatment} stages={stagesOf(treatment)} />
            ) : (
              <Line as="span" style={{ display: 'inline-flex' }}>
                <TextButton onPress={() => onMove(treatment)}>{t('plan.change')}</TextButton>
                <Link to={`/sites/${site.id}/treatments?record=${treatment.id}`}>{t('treatments.record')}</Link>
                <RemoveButton
                  remove={endpoints.treatments.remove}
                  restore={endpoints.treatments.restore}
                  params={{ siteId: site.id, treatmentId: treatment.id }}
                  rowVersion={treatment.rowVersion}
                  said={t('plan.removed', { name })}
                />
              </Line>
            )}
          </li>
        )
      })}
    </Rows>
  )
}
