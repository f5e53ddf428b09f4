import { endpoints, type Block, type Organism, type Round, type Taken, type WatchForecast } from '@bocado/contract'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { RequestProblem } from '../api/client.js'
import { useEntry } from '../api/useEntry.js'
import { useRecorded } from '../api/useRecorded.js'
import { planOf } from '../band/countingPlan.js'
import { thresholdOf } from '../band/threshold.js'
import { useSite } from '../api/workplace.js'
import { useText } from '../messages/useText.js'
import { effectiveOf } from './effective.js'
import { dropCount, goesOnAt, heldCount, holdCount, isTallied, type Along, type HeldCount } from './heldCount.js'
import { heightsOf, nextHeight, placeAt, placesWithin, unitsAPlace, withNext } from './places.js'
import { minutesOf, tapped, type Spent } from './spent.js'
import type { Unit } from './unitLines.js'
import '../messages/en/count.js'

/** What is counted where. */
export interface Counted {
  row: WatchForecast
  organism: Organism
}

export interface CountProps extends Counted {
  block: Block
  /** The stored one that is corrected. */
  round: Round | undefined
  /** What else may be counted on the same sample units. */
  others: readonly Counted[]
}

/** One more or less of a class; of what is counted along where it names a watch. */
interface Tap {
  classId: string
  by: number
  watchId?: string
}

const NONE_ALONG: Readonly<Record<string, Along>> = {}
const NOTHING_SPENT: Spent = { ms: 0, lastAt: null }

/** As a count begins: as it was held, as it was stored, or anew at its first sample unit. */
function begun({ row, organism: { sampling }, round }: CountProps, today: string): HeldCount {
  const held = heldCount(round?.id ?? row.watch.id)
  if (held) return held
  if (round) {
    const { checkAreaId, countedOn, unit, units, places, heights, scale, enemies, note, minutes, taken } = round
    return {
      checkAreaId,
      countedOn,
      unit,
      units,
      places,
      heights,
      scale,
      enemies,
      note,
      minutes,
      taken: taken?.amount ?? null,
      takenUnit: taken?.unit ?? 'pieces',
    }
  }
  return {
    checkAreaId: null,
    countedOn: today,
    unit: { one: sampling.unit, many: sampling.units, items: sampling.itemsPerUnit },
    units: [{}],
    places: [{ from: 0, edge: null }],
    heights: sampling.byHeight ? [null] : null,
    scale: sampling.scale,
    enemies: {},
    note: '',
    minutes: null,
    taken: null,
    takenUnit: 'pieces',
  }
}

/** How a round that was begun or stored by another kind of class is counted on: by its own. */
function sampledBy(
  { sampling }: Organism,
  values: { [K in 'unit' | 'scale']: HeldCount[K] | undefined },
  stored: Pick<Round, 'classes' | 'measure'> | undefined,
  ids: readonly string[],
): Organism['sampling'] {
  const by = values.unit
  const unit = by ? { unit: by.one, units: by.many, itemsPerUnit: by.items } : {}
  const { scale = 'classes' } = values
  if (scale === sampling.scale) return { ...sampling, ...unit }
  // One that was begun and not stored yet knows those that were tallied.
  const tallied = ids.map((id) => ({ id, name: id.replace('degree-', '') + (scale === 'degrees' ? ' %' : ''), weight: weightOf(id) }))
  const measure = stored?.measure ?? (scale === 'presence' ? 'presence' : 'density')
  return { ...sampling, ...unit, scale, classes: stored?.classes ?? tallied, measure, rule: null }
}

const weightOf = (classId: string): number => Number(/^degree-(.+)$/.exec(classId)?.[1] ?? 100) / 100

/** A round as it is counted: what was tallied, at which sample unit and place one is, what it says so far, and what can be done next. */
export function useCounting(p: CountProps) {
  const { row, organism, block, round, others } = p
  const t = useText()
  const site = useSite()
  const navigate = useNavigate()
  const heldAs = round?.id ?? row.watch.id
  const [initial] = useState(() => begun(p, site.today))
  const create = useEntry(endpoints.scouting.create, initial)
  const update = useEntry(endpoints.scouting.update, initial, round)
  const entry = round ? update : create
  const alongside = useRecorded(endpoints.scouting.create)
  const { values, set } = entry
  const [at, setAt] = useState(goesOnAt(initial))
  /** The finished unit that somebody said should be added to. */
  const [mended, setMended] = useState<number | null>(null)
  const [asked, setAsked] = useState<Tap | null>(null)
  const [asksLast, setAsksLast] = useState(false)
  const { units, spent = NOTHING_SPENT, along = NONE_ALONG, places = null, heights = null, enemies = {} } = values
  const { unit, scale } = values
  const kinds = [...new Set(units.flatMap(Object.keys))].join(' ')
  const sampling = useMemo(
    () => sampledBy(organism, { unit, scale }, round, kinds.split(' ').filter(Boolean)),
    [organism, unit, scale, round, kinds],
  )

  useEffect(() => {
    holdCount(heldAs, values)
  }, [heldAs, values])

  const last = units.length - 1
  const tally = (tap: Tap, sure = false): void => {
    const { classId, by, watchId } = tap
    const other = watchId === undefined ? undefined : along[watchId]
    const now = (other ? other.units[at - other.from] : units[at])?.[classId] ?? 0
    if (now + by < 0) return
    // What stands before the last unit is finished: a tap there is more often a lost place than a correction.
    if ((at < last || round !== undefined) && mended !== at && !sure) return setAsked(tap)
    const added = (all: readonly Unit[], index: number): Unit[] =>
      all.map((unit, i) => (i === index ? { ...unit, [classId]: now + by } : unit))
    return set({
      spent: tapped(spent, Date.now()),
      ...(watchId !== undefined && other
        ? { along: { ...along, [watchId]: { ...other, units: added(other.units, at - other.from) } } }
        : { units: added(units, at) }),
    })
  }
  const setAlong = (watchId: string, change: Along | null): void => {
    const { [watchId]: _, ...rest } = along
    set({ along: change ? { ...rest, [watchId]: change } : rest })
  }
  const goTo = (unit: number): void => {
    setAt(unit)
    setAsked(null)
    setMended(null)
    setAsksLast(false)
  }
  // A round that is corrected is held against the threshold of its day, as it is where it is stored.
  const threshold = useMemo(() => (round ? round.threshold : thresholdOf(row.watch, organism)), [round, row, organism])
  // What the untreated check area holds says how it goes without; one acts on what the block holds.
  const { checkAreaId } = values
  const plan = useMemo(() => (checkAreaId === null ? planOf(threshold, sampling) : null), [checkAreaId, threshold, sampling])
  const placesNext = places && withNext(places, units.length, unitsAPlace(plan))
  const next = (): void => {
    if (at === last)
      set({
        spent: tapped(spent, Date.now()),
        units: [...units, {}],
        places: placesNext,
        heights: heights && [...heights, nextHeight(heights)],
        along: Object.fromEntries(Object.entries(along).map(([id, one]) => [id, one.isOver ? one : { ...one, units: [...one.units, {}] }])),
      })
    goTo(at + 1)
    // A unit that was opened here is not finished, though the round was stored before.
    if (at === last) setMended(at + 1)
  }
  const effective = effectiveOf(units, sampling)
  /** The last unit was opened and nothing tallied at it: whether it was looked at only a person knows. */
  const isOpened =
    units.length > 1 &&
    units.length !== round?.units.length &&
    !isTallied(units[last] ?? {}) &&
    !Object.values(along).some((one) => isTallied(one.units[last - one.from] ?? {}))
  const minutes = values.minutes ?? minutesOf(spent)

  const save = async (counted?: Unit[]): Promise<void> => {
    const body = ({ spent: _, along: __, taken = null, takenUnit = 'pieces', ...v }: HeldCount) => {
      // What stood before, when this is taken back, keeps its own.
      const looked = v.units === units ? (counted ?? units) : v.units
      return {
        ...v,
        minutes,
        taken: taken === null ? null : { amount: taken, unit: takenUnit as Taken['unit'] },
        units: looked,
        places: placesWithin(v.places ?? null, looked.length),
        heights: heightsOf(v.heights, looked.length),
        countedOn: v.countedOn ?? undefined,
      }
    }
    const says = t('count.says', { name: row.organismName, block: block.name, count: (counted ?? units).length, units: sampling.units })
    const saved = round
      ? await update.submit({ siteId: site.id, roundId: round.id }, (v, rowVersion) => ({ ...body(v), rowVersion }))
      : await create.put({ siteId: site.id }, says, '', (v) => ({ ...body(v), watchId: row.watch.id }))
    if (!saved) return
    const walked = others.flatMap(({ row: other, organism: { sampling: by } }) => {
      const seen = along[other.watch.id]
      // The last sample unit that nobody looked at is none for what was counted along either.
      const looked = seen?.units.slice(0, counted ? counted.length - seen.from : undefined) ?? []
      const unit = { one: by.unit, many: by.units, items: by.itemsPerUnit }
      const { countedOn } = values
      const count = {
        checkAreaId,
        countedOn,
        unit,
        units: looked,
        places: placesSince(seen, looked.length),
        heights: by.byHeight ? heightsOf(heights?.slice(seen?.from ?? 0), looked.length) : null,
        scale: by.scale,
        note: '',
      }
      return looked.length > 0 ? [{ other, count }] : []
    })
    // Each is held by itself before it is sent: what a closed page or a refusal stops is gone on with on its own screen.
    const held = walked.filter(({ other }) => !heldCount(other.watch.id))
    for (const { other, count } of held) holdCount(other.watch.id, count)
    dropCount(heldAs)
    for (const one of walked) {
      const { other, count } = one
      const { many } = count.unit
      const input = { ...count, watchId: other.watch.id, countedOn: count.countedOn ?? '' }
      const said = t('count.says', { name: other.organismName, block: block.name, count: count.units.length, units: many })
      try {
        await alongside.save({ params: { siteId: site.id }, input }, said)
        if (held.includes(one)) dropCount(other.watch.id)
      } catch (error) {
        if (!(error instanceof RequestProblem)) throw error
      }
    }
    await navigate(`/sites/${site.id}/scouting`)
  }
  /** The places of what was counted along, from its own first sample unit on. */
  const placesSince = (seen: Along | undefined, looked: number) => {
    const from = seen?.from ?? 0
    const first = placeAt(places, from)?.place
    if (!places || !first) return null
    const later = places.filter((place) => place.from > from && place.from < from + looked)
    return [{ ...first, from: 0 }, ...later.map((place) => ({ ...place, from: place.from - from }))]
  }

  return {
    ...{ entry, values, set, sampling, threshold, plan, effective, minutes },
    ...{ units, places, heights, enemies, along, at, last, asked, isOpened },
    asks: asksLast && isOpened,
    /** Where the next sample unit is, where that is another place. */
    nextPlace: placesNext && places && placesNext.length > places.length && at === last ? placesNext.length : null,
    ...{ tally, setAlong, goTo, next, save },
    mend: (tap: Tap): void => {
      tally(tap, true)
      setMended(at)
      setAsked(null)
    },
    askLast: () => setAsksLast(true),
  }
}

export type Counting = ReturnType<typeof useCounting>
