import type { Arrival, Block, Flag, Organism, Plot, Trap, WatchForecast } from '@bocado/contract'
import { civilDate, countDue, currentWindow, dayNumber, trapDue, urgencyOf, usualMinutes, whatFits, type CountReason } from '@bocado/core'

/** Something to go and look at, where and by when. */
export interface Errand {
  id: string
  kind: 'count' | 'trap' | 'flags' | 'plots' | 'arrival'
  blockId: string
  /** Civil day. */
  due: string
  /** How long it usually takes; null where nobody measured it three times. */
  minutes: number | null
  row?: WatchForecast
  because?: CountReason
  /** When it was looked at last. */
  last?: string | null
  trap?: Trap
  flags?: readonly Flag[]
  plots?: readonly Plot[]
  arrival?: Arrival
}

/** What a watch asks to be counted; nothing where its counts come too late to decide on. */
function countOf(row: WatchForecast, rows: readonly WatchForecast[], organism: Organism | undefined, today: string): Errand[] {
  if (!organism || organism.sampling.serves !== 'decision') return []
  const last = row.rounds.filter(({ checkAreaId }) => checkAreaId === null).at(-1)
  const begin = dayNumber(row.watch.season)
  const opens = currentWindow(row)?.opens.p10 ?? null
  const due = countDue({
    today: dayNumber(today),
    urgency: urgencyOf(row),
    opens: opens === null ? null : begin + Math.floor(opens),
    breedsOn: row.breedsOn,
    isItsMonth: row.usual.some(({ months }) => months.includes(Number(today.slice(5, 7)))),
    last: last ? { day: dayNumber(last.countedOn), verdict: last.verdict } : null,
    lookAgainOn: row.decision ? dayNumber(row.decision.lookAgainOn) : null,
  })
  if (!due) return []
  const times = rows
    .filter(({ watch }) => watch.organismId === row.watch.organismId)
    .flatMap(({ rounds }) => rounds.flatMap(({ minutes }) => minutes ?? []))
  return [
    {
      id: `count ${row.watch.id}`,
      kind: 'count',
      blockId: row.watch.blockId,
      due: civilDate(due.day),
      minutes: usualMinutes(times),
      row,
      because: due.because,
      last: last?.countedOn ?? null,
    },
  ]
}

const trapOf = (trap: Trap): Errand[] =>
  trap.takenDownOn !== null || trap.hasCounter
    ? []
    : [
        {
          id: `trap ${trap.id}`,
          kind: 'trap',
          blockId: trap.blockId,
          due: civilDate(
            trapDue(
              dayNumber(trap.hungOn),
              trap.checks.map(({ day }) => dayNumber(day)),
            ),
          ),
          minutes: null,
          trap,
          last: trap.checks.at(-1)?.day ?? null,
        },
      ]

interface Returning {
  placeId: string
  dueOn: string | null
}

/** What is come back to in one block by one day is one errand: whoever goes there goes to all of them. */
function returnsOf<T extends Returning>(
  kind: 'flags' | 'plots',
  all: readonly T[],
  looksOf: (one: T) => readonly { minutes: number | null }[],
  blockOf: (placeId: string) => string,
): (Errand & { all: T[] })[] {
  const groups = new Map<string, T[]>()
  for (const one of all) {
    if (one.dueOn === null) continue
    const block = blockOf(one.placeId)
    groups.set(block, [...(groups.get(block) ?? []), one])
  }
  return [...groups].map(([blockId, due]) => {
    const each = usualMinutes(due.flatMap((one) => looksOf(one).flatMap(({ minutes }) => minutes ?? [])))
    return {
      id: `${kind} ${blockId}`,
      kind,
      blockId,
      due: due.map(({ dueOn }) => dueOn ?? '').sort()[0] ?? '',
      minutes: each === null ? null : each * due.length,
      all: due,
    }
  })
}

const flagsOf = (flags: readonly Flag[], blockOf: (placeId: string) => string): Errand[] =>
  returnsOf('flags', flags, ({ visits }) => visits, blockOf).map(({ all, ...errand }) => ({ ...errand, flags: all }))

const plotsOf = (plots: readonly Plot[], blockOf: (placeId: string) => string): Errand[] =>
  returnsOf('plots', plots, ({ looks }) => looks, blockOf).map(({ all, ...errand }) => ({ ...errand, plots: all }))

/** What came in and stands apart is looked at on its first day, and when its time apart is over. */
function arrivalOf(arrival: Arrival, blockOf: (placeId: string) => string): Errand[] {
  const { releasedOn, isolatedUntil, arrivedOn, rootLook, stemLook } = arrival
  if (releasedOn !== null) return []
  const isUnseen = rootLook === 'not-looked' || stemLook === 'not-looked'
  const due = isUnseen ? arrivedOn : isolatedUntil
  return due === null
    ? []
    : [{ id: `arrival ${arrival.id}`, kind: 'arrival', blockId: blockOf(arrival.placeId), due, minutes: null, arrival }]
}

/** Stages in which a plant left standing sheds seed this year. */
const SEEDING: ReadonlySet<string> = new Set(['flower', 'pod', 'bolt'])

/**
 * What of the errands fits into the minutes there are, by the ranks that the user gave blocks; null where nothing is ranked.
 *
 * @param otherwise minutes for what nobody measured
 */
export function fitting(
  all: readonly Errand[],
  blocks: readonly Pick<Block, 'id' | 'rank' | 'spreads'>[],
  minutes: number,
  otherwise: number,
): { taken: Errand[]; left: Errand[]; minutes: number } | null {
  const fits = whatFits(
    all.map(({ id, minutes: takes, due, blockId, flags }) => {
      const block = blocks.find((one) => one.id === blockId)
      return {
        id,
        minutes: takes,
        rank: block?.rank ?? null,
        spreads: block?.spreads ?? false,
        preventsSeed: flags?.some(({ last }) => SEEDING.has(last.stage ?? '')) ?? false,
        due: dayNumber(due),
      }
    }),
    minutes,
    otherwise,
  )
  const named = (ids: readonly string[]): Errand[] => ids.flatMap((id) => all.find((errand) => errand.id === id) ?? [])
  return fits && { taken: named(fits.taken), left: named(fits.left), minutes: fits.minutes }
}

/** Everything that asks to be looked at by a day, by what it rests on: windows, counts, decisions, traps, flags and plots. */
export function errands(
  p: {
    rows: readonly WatchForecast[]
    organisms: readonly Organism[]
    traps: readonly Trap[]
    flags: readonly Flag[]
    plots: readonly Plot[]
    arrivals: readonly Arrival[]
    /** The block around a place. */
    blockOf: (placeId: string) => string
    today: string
  },
  until: string,
): Errand[] {
  const isDue = ({ dueOn }: { dueOn: string | null }): boolean => dueOn !== null && dueOn <= until
  return [
    ...p.rows.flatMap((row) =>
      countOf(
        row,
        p.rows,
        p.organisms.find(({ id }) => id === row.watch.organismId),
        p.today,
      ),
    ),
    ...p.traps.flatMap(trapOf),
    ...flagsOf(p.flags.filter(isDue), p.blockOf),
    ...plotsOf(p.plots.filter(isDue), p.blockOf),
    ...p.arrivals.flatMap((arrival) => arrivalOf(arrival, p.blockOf)),
  ].filter(({ due: day }) => day <= until)
}

type Point = readonly [longitude: number, latitude: number]

/**
 * Blocks in the order of a walk: from the one nearest to where one starts always to the nearest that is left. What is not drawn comes last, as it
 * stands in the list.
 */
export function inWalkOrder(blockIds: readonly string[], middleOf: (blockId: string) => Point | null, start: Point | null): string[] {
  const left = blockIds.flatMap((id) => {
    const at = middleOf(id)
    return at ? [{ id, at }] : []
  })
  const order: string[] = []
  let here = start ?? left[0]?.at ?? null
  while (left.length > 0 && here) {
    const [lon, lat] = here
    const far = ({ at }: { at: Point }): number => Math.hypot((at[0] - lon) * Math.cos((lat * Math.PI) / 180), at[1] - lat)
    left.sort((a, b) => far(a) - far(b))
    const next = left.shift() as { id: string; at: Point }
    order.push(next.id)
    here = next.at
  }
  return [...order, ...blockIds.filter((id) => !order.includes(id))]
}
