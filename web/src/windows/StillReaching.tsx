import { methodKinds, type Block, type Method, type Organism, type WatchForecast } from '@bocado/contract'
import { useDeferredValue, useMemo, useState } from 'react'
import { Radio, RadioGroup } from 'react-aria-components'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import type { Means } from '../band/means.js'
import { cohortsFor, coverageOn, type TreatmentReach } from '../band/treatmentCoverage.js'
import { currentWindow } from '../band/urgency.js'
import { TextButton } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Heading, Quiet, Small, Stack } from '../design/text.js'
import { colour, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { useMethods, type Offered } from './useShelfFor.js'
import type { WayThen } from './wayThen.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'

const SideBySide = partLater(async () => (await import('./SideBySide.js')).SideBySide)

const Ways = styled(RadioGroup)`
  display: grid;
  border-top: 1px solid ${colour.rule};
`
const Way = styled(Radio)`
  display: flex;
  gap: 12px;
  justify-content: space-between;
  align-items: center;
  padding: 7px 8px 7px 10px;
  border-bottom: 1px solid ${colour.rule};
  border-left: 5px solid transparent;
  cursor: pointer;
  min-height: 48px;
  &[data-selected] {
    background: ${colour.white};
    border-left-color: ${colour.petrol};
  }
  &[data-focus-visible] {
    outline: 3px solid ${colour.petrol};
    outline-offset: -3px;
  }
  .share {
    flex: none;
    text-align: right;
    font-size: ${size.large};
    font-weight: 650;
    font-variant-numeric: tabular-nums;
  }
  small {
    display: block;
    font-size: ${size.small};
    font-weight: 400;
    color: ${colour.inkSoft};
  }
`

/** So many ways stand in view; the rest is one press away. */
const FEW = 4
/** What reaches less than this on a day does not reach it. */
const NOTHING = 0.005

/**
 * Ways by what they reach, then from prevention to chemical; what nobody has said enough of comes last.
 *
 * @param chemicalsLast the site uses chemicals last: they stand behind everything else that reaches it
 */
export function byReach<T extends WayThen>(
  ways: readonly T[],
  kindOf: (means: Means) => (typeof methodKinds)[number] | undefined,
  chemicalsLast = false,
): T[] {
  const share = ({ reached }: T): number => Math.round(100 * (reached?.bounds.p50 ?? 0))
  const doubtful = ({ offer }: T): number => (offer.gate.verdict === 'doubtful' ? 1 : 0)
  const elsewhere = ({ reached, other }: T): number => (reached || !other ? 0 : -1)
  const kind = ({ offer }: T): number => methodKinds.indexOf(kindOf(offer.means) ?? 'chemical')
  const chemical = (way: T): number => (chemicalsLast && kindOf(way.offer.means) === 'chemical' ? 1 : 0)
  return [...ways].sort(
    (a, b) =>
      doubtful(a) - doubtful(b) || chemical(a) - chemical(b) || share(b) - share(a) || elsewhere(a) - elsewhere(b) || kind(a) - kind(b),
  )
}

const methodOf = (means: Means, methods: readonly Method[] | undefined): Method | undefined =>
  methods?.find(({ id }) => id === (means.methodId ?? means.product?.methods[0]))

/** What of a watch each way to act reaches on one day; cohorts are made once for each set of stages. */
export function useReachOn(
  forecast: WatchForecast,
  offers: readonly (Offered<'fits'> | Offered<'doubtful'>)[],
  day: number | null,
): WayThen[] {
  const isDated = forecast.grade === 'dates' && !forecast.infection && forecast.windows.length > 0
  const cohorts = useMemo(() => {
    const made = new Map<string, ReturnType<typeof cohortsFor>>()
    if (!isDated) return made
    for (const { gate, means } of offers) {
      if (gate.verdict !== 'fits') continue
      const key = gate.stages.join(' ')
      if (!made.has(key)) made.set(key, cohortsFor(forecast, { stages: gate.stages, ...means.does }))
    }
    return made
  }, [forecast, offers, isDated])
  const generation = currentWindow(forecast)?.generation
  return useMemo(
    () =>
      offers.map((offer) => {
        const { gate, means } = offer
        const of = gate.verdict === 'fits' ? cohorts.get(gate.stages.join(' ')) : undefined
        if (!of || day === null || gate.verdict !== 'fits') return { offer, reached: undefined }
        const action = { stages: gate.stages, ...means.does }
        const some = (reached: TreatmentReach | undefined) => (reached && reached.bounds.p90 >= NOTHING ? reached : undefined)
        const own = { ...of, generations: of.generations.filter((one) => one.generation === generation) }
        const reached = some(coverageOn(own, action, day))
        return { offer, reached, other: reached ? undefined : some(coverageOn(of, action, day)) }
      }),
    [offers, cohorts, day, generation],
  )
}

interface Props {
  forecast: WatchForecast
  organism: Organism | undefined
  /** Everything that may be taken, as it is thought of first. */
  offers: readonly (Offered<'fits'> | Offered<'doubtful'>)[]
  chosen: string
  onChoose: (key: string) => void
  /** The day that is thought about. */
  date: string | null
  error: string | undefined
  block: Block | undefined
  /** Names of what is chosen when something is sown: nothing of it reaches what is there now. */
  atSowing: readonly string[]
}

/** Which ways to act reach what is there on the day that is thought about, and how much of it. */
export function StillReaching(p: Props) {
  const { forecast, organism, offers, chosen, onChoose, error } = p
  const t = useText()
  const f = useFormat()
  const { data: methods } = useMethods()
  const [open, setOpen] = useState(false)
  // A pin that is dragged is drawn first.
  const date = useDeferredValue(p.date)
  const day = date === null ? null : f.seasonIndex(forecast.watch.season, date)
  const then = useReachOn(forecast, offers, day)
  const last = ['last', 'organic'].includes(useSite().policy.chemicals)
  const ways = useMemo(() => byReach(then, (means) => methodOf(means, methods)?.kind, last), [then, methods, last])
  const [beside, setBeside] = useState(false)
  const isDated = forecast.grade === 'dates' && !forecast.infection && forecast.windows.length > 0
  const few = ways.filter(({ offer }, i) => i < FEW || offer.means.key === chosen)
  const shown = open ? ways : few
  return (
    <Stack $gap={6}>
      <Heading as="h3">{t('reaching.title')}</Heading>
      {isDated && date ? <Small>{t('reaching.how', { date: f.date(date) })}</Small> : null}
      <Ways aria-label={t('reaching.title')} value={chosen} onChange={onChoose} data-testid="still-reaching">
        {shown.map(({ offer, reached, other }) => (
          <Way key={offer.means.key} value={offer.means.key}>
            <span>
              <b>{offer.means.name}</b> <WayFacts offer={offer} organism={organism} method={methodOf(offer.means, methods)} />
            </span>
            {isDated ? (
              <Share
                reached={reached}
                other={other && forecast.generations.find(({ id }) => id === other.generation)?.name}
                when={other && isAfter(forecast, other.generation) ? 'later' : 'before'}
                known={offer.gate.verdict === 'fits'}
              />
            ) : null}
          </Way>
        ))}
      </Ways>
      <FormError text={error ?? null} />
      {ways.length > few.length ? (
        <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
          {open ? t('reaching.fewer') : t('reaching.more', { count: ways.length - few.length })}
        </TextButton>
      ) : null}
      {ways.length > 1 ? (
        <TextButton aria-expanded={beside} onPress={() => setBeside(!beside)}>
          {t(beside ? 'reaching.besideShut' : 'reaching.beside')}
        </TextButton>
      ) : null}
      {beside ? (
        <SideBySide
          forecast={forecast}
          organism={organism}
          block={p.block}
          ways={ways}
          chosen={chosen}
          methodOf={({ offer }) => methodOf(offer.means, methods)}
        />
      ) : null}
      {(open || ways.length === few.length) && p.atSowing.length > 0 ? (
        <Small>{t('reaching.atSowing', { names: p.atSowing.join(', ') })}</Small>
      ) : null}
      {open || ways.length === few.length ? <NotOnShelf organism={organism} offers={offers} methods={methods} /> : null}
    </Stack>
  )
}

/** Whether a generation comes after the one in question. */
function isAfter(forecast: WatchForecast, generation: string): boolean {
  const order = forecast.generations.map(({ id }) => id)
  return order.indexOf(generation) > order.indexOf(currentWindow(forecast)?.generation ?? '')
}

interface ShareProps {
  reached: TreatmentReach | undefined
  /** Name of the other generation that it reaches, and whether that comes later. */
  other: string | undefined
  when: 'later' | 'before'
  known: boolean
}

function Share({ reached, other, when, known }: ShareProps) {
  const t = useText()
  const f = useFormat()
  if (!reached && other !== undefined)
    return (
      <span className="share">
        {t(`reaching.${when}`)}
        <small>{other}</small>
      </span>
    )
  if (!reached) return <span className="share">{known ? t('reaching.nothing') : t('reaching.unknown')}</span>
  const { p10, p50, p90 } = reached.bounds
  return (
    <span className="share">
      {f.percent(p50)}
      <small>{t('reaching.range', { low: f.number(100 * p10), high: f.number(100 * p90) })}</small>
    </span>
  )
}

/** Kinds of product that reach it and of which nothing stands on the shelf. */
export function missingKinds(
  organism: Pick<Organism, 'reach'>,
  offers: readonly { means: Pick<Means, 'product'> }[],
  methods: readonly Pick<Method, 'id' | 'name' | 'product'>[],
): string[] {
  const here = new Set(offers.flatMap(({ means }) => means.product?.methods ?? []))
  const reaching = new Set(organism.reach.map(({ method }) => method))
  return methods.filter(({ id, product }) => product && reaching.has(id) && !here.has(id)).map(({ name }) => name)
}

function NotOnShelf(p: { organism: Organism | undefined; offers: Props['offers']; methods: readonly Method[] | undefined }) {
  const t = useText()
  const { organism, offers, methods } = p
  const names = organism && methods ? missingKinds(organism, offers, methods) : []
  return names.length === 0 ? null : <Small>{t('reaching.notOnShelf', { names: names.join(', ') })}</Small>
}

/** What a way meets, how well it is known to work, and what it takes. */
function WayFacts(p: { offer: Offered<'fits'> | Offered<'doubtful'>; organism: Organism | undefined; method: Method | undefined }) {
  const t = useText()
  const f = useFormat()
  const { offer, organism, method } = p
  const { gate, means } = offer
  if (gate.verdict === 'doubtful') return <small>{t('reaching.doubtful')}</small>
  const stages = gate.stages.map((id) => organism?.stages.find((stage) => stage.id === id)?.name ?? id).join(', ')
  const words = [
    stages,
    method ? t(`methodKind.${method.kind}`) : '',
    method ? t(`evidence.${method.evidence}`) : '',
    !means.product && method ? t('reaching.hours', { hours: f.number(method.hours.perUnit, 1), unit: method.hours.unit }) : '',
    means.product && means.product.bees !== 'none-stated' ? t('reaching.bees') : '',
    means.product?.licensedOnly ? t('reaching.licensed') : '',
  ]
  return (
    <small>
      <Quiet>{words.filter(Boolean).join(' · ')}</Quiet>
    </small>
  )
}
