import { countsOf, wishesOf, type PlannableWatch, type PlannableWay, type School, type Unmet, type Wish } from './wishes.js'

/** A treatment that is proposed for a day. */
export interface Proposed {
  watch: string
  blockId: string
  generation: string
  because: Wish['because']
  conditional: boolean
  day: number
  way: PlannableWay
  /** Mean share that it reaches of the generation; 0 where no model says. */
  reach: number
}

/** What is left undone, and why. */
export interface Undone {
  watch: string
  generation: string
  because: Unmet['because'] | 'ruled-out' | 'no-hours'
  /** What it would have reached. */
  reach: number
}

/** Wishes by the ground that they are for: only these stand in each other's way. */
type Ground = Map<string, Slot[]>

export interface SeasonPlan {
  school: School
  treatments: Proposed[]
  counts: { watch: string; day: number }[]
  undone: Undone[]
  /** Sum over the treatments of what each is worth: the weight of its watch by what it reaches. */
  worth: number
}

export interface PlanOf {
  watches: readonly PlannableWatch[]
  school: School
  today: number
  /** Days of the season. */
  length: number
  /**
   * Whether a hard rule forbids a treatment on its day beside what is proposed in the same block; the others are held against it, too.
   */
  isForbidden: (one: Proposed, beside: readonly Proposed[]) => boolean
  /** Minutes of work a week; null: as many as it takes. */
  minutesPerWeek: number | null
  /** Minutes that a count takes; what is arranged otherwise already, by week of the season. */
  countMinutes: number
  taken?: ReadonlyMap<number, number>
}

/** What has no model is worth as much as something of which it reaches half. */
const UNMODELLED_REACH = 0.5
/** Rounds of exchange: each makes the plan better, and few find anything after the first. */
const EXCHANGES = 4

const weekOf = (day: number): number => Math.floor(day / 7)
export const worthOf = ({ reach, way }: Pick<Proposed, 'reach' | 'way'>, weight: number): number =>
  weight * (way.reach.length === 0 || reach === 0 ? UNMODELLED_REACH : reach)

/** What was chosen for a wish; null where nothing could be. */
interface Slot {
  wish: Wish
  one: Proposed | null
  why: 'ruled-out' | 'no-hours'
}

/**
 * A whole season from today on under one school: for each watch what the school asks for, on days that no hard rule forbids, the gentlest way
 * that reaches enough, within the hours that there are. What is worth most is placed first; then single treatments are moved, and exchanged for
 * what was left undone, as long as that makes the plan worth more.
 *
 * @param step told of how far it is, 0 to 1
 */
export function planSeason(p: PlanOf, step: (done: number) => void = () => undefined): SeasonPlan {
  const asked = p.watches.map((watch) => wishesOf(watch, p.school, p.today))
  const counts = p.watches.flatMap((watch) => countsOf(watch, p.school, p.today, p.length).map((day) => ({ watch: watch.id, day })))
  const wishes = asked.flatMap((one) => one.wishes)
  const orders = ordersOf(wishes)
  const tried = orders.map((order, i) => placedIn(order, counts, p, (done) => step((i + done) / orders.length)))
  const slots = tried.reduce((a, b) => (worthOfAll(b) > worthOfAll(a) + 1e-9 ? b : a), tried[0] ?? [])
  step(1)
  const placed = slots.flatMap(({ one }) => one ?? [])
  return {
    school: p.school,
    treatments: placed.sort((a, b) => a.day - b.day || (a.watch < b.watch ? -1 : 1)),
    counts,
    undone: [
      ...asked.flatMap(({ unmet }) => unmet.map((one): Undone => ({ ...one, reach: 0 }))),
      ...slots.flatMap(({ wish: { watch, generation, choices }, one, why }): Undone[] =>
        one ? [] : [{ watch, generation, because: why, reach: choices[0]?.reach ?? 0 }],
      ),
    ],
    worth: worthOfAll(slots),
  }
}

/** So few wishes are placed in every order that there is. */
const FEW_WISHES = 4

/** The orders in which wishes are placed: what is worth most first, what has the fewest days first; of few wishes every one. */
function ordersOf(wishes: readonly Wish[]): Wish[][] {
  const best = ({ choices: [first], weight }: Wish): number => (first ? worthOf(first, weight) : 0)
  const byWorth = wishes.toSorted((a, b) => best(b) - best(a))
  if (wishes.length <= FEW_WISHES) return permutations(byWorth)
  return [byWorth, wishes.toSorted((a, b) => a.choices.length - b.choices.length || best(b) - best(a))]
}

const permutations = <T>(of: readonly T[]): T[][] =>
  of.length <= 1 ? [[...of]] : of.flatMap((one, i) => permutations([...of.slice(0, i), ...of.slice(i + 1)]).map((rest) => [one, ...rest]))

const worthOfAll = (slots: readonly Slot[]): number => slots.reduce((sum, { wish, one }) => sum + (one ? worthOf(one, wish.weight) : 0), 0)

/** Wishes placed in an order, and then exchanged as long as that makes them worth more. */
function placedIn(order: readonly Wish[], counts: readonly { day: number }[], p: PlanOf, step: (done: number) => void): Slot[] {
  const slots: Slot[] = order.map((wish) => ({ wish, one: null, why: 'ruled-out' }))
  const load = new Load(p, counts)
  const ground: Ground = new Map()
  for (const slot of slots) ground.set(slot.wish.blockId, [...(ground.get(slot.wish.blockId) ?? []), slot])
  slots.forEach((slot, i) => {
    place(slot, ground, load, p)
    step((0.5 * (i + 1)) / slots.length)
  })
  for (let round = 0; round < EXCHANGES; round++) {
    const isBetter = exchange(slots, ground, load, p)
    step(0.5 + (0.5 * (round + 1)) / EXCHANGES)
    if (!isBetter) break
  }
  return slots
}

/** Minutes of work in each week of the season. */
class Load {
  private readonly weeks: Map<number, number>
  private readonly most: number

  constructor({ taken, countMinutes, minutesPerWeek }: PlanOf, counts: readonly { day: number }[]) {
    this.weeks = new Map(taken)
    this.most = minutesPerWeek ?? Infinity
    for (const { day } of counts) this.add(day, countMinutes)
  }

  add(day: number, minutes: number): void {
    this.weeks.set(weekOf(day), (this.weeks.get(weekOf(day)) ?? 0) + minutes)
  }

  fits(day: number, minutes: number): boolean {
    return minutes === 0 || (this.weeks.get(weekOf(day)) ?? 0) + minutes <= this.most
  }
}

/** What stands on the ground of a wish but itself. It is the same for all of its choices. */
function besideOf(slot: Slot, ground: Ground): Proposed[] {
  const beside: Proposed[] = []
  for (const other of ground.get(slot.wish.blockId) ?? []) if (other !== slot && other.one) beside.push(other.one)
  return beside
}

/** Puts a wish on one of its choices, where hours, labels and rules let it. */
function tryOn(slot: Slot, choice: Wish['choices'][number], beside: readonly Proposed[], load: Load, p: PlanOf): Slot['why'] | 'placed' {
  const { day, way, reach } = choice
  const { watch, blockId, generation, because, conditional } = slot.wish
  // In the order of what each costs to ask.
  if (!load.fits(day, way.minutes ?? 0)) return 'no-hours'
  if (exceeds(slot.wish, choice, beside)) return 'ruled-out'
  const one: Proposed = { watch, blockId, generation, because, conditional, day, way, reach }
  if (p.isForbidden(one, beside)) return 'ruled-out'
  putBack(slot, one, load)
  return 'placed'
}

function place(slot: Slot, ground: Ground, load: Load, p: PlanOf): void {
  const beside = besideOf(slot, ground)
  let why: Slot['why'] = 'ruled-out'
  for (const choice of slot.wish.choices) {
    const how = tryOn(slot, choice, beside, load, p)
    if (how === 'placed') return
    if (how === 'no-hours') why = how
  }
  slot.why = why
}

/** Whether a label allows no more of it in the season, or not so soon; the same ground, day and material is one treatment. */
function exceeds({ watch, generation }: Wish, { way, day }: Wish['choices'][number], beside: readonly Proposed[]): boolean {
  const { key, mostPerSeason, leastIntervalDays } = way
  const days: number[] = []
  for (const other of beside) {
    if (other.day === day) {
      if (other.watch === watch && other.generation === generation) return true
    } else if (other.way.key === key) {
      if (leastIntervalDays !== null && Math.abs(other.day - day) < leastIntervalDays) return true
      if (!days.includes(other.day)) days.push(other.day)
    }
  }
  return mostPerSeason !== null && days.length >= mostPerSeason
}

function lift(slot: Slot, load: Load): Proposed | null {
  const { one } = slot
  if (one) load.add(one.day, -(one.way.minutes ?? 0))
  slot.one = null
  return one
}

function putBack(slot: Slot, one: Proposed | null, load: Load): void {
  slot.one = one
  if (one) load.add(one.day, one.way.minutes ?? 0)
}

/** So many days of a wish are tried in exchange for another: those that reach the most. */
const TRIED = 24

/** Places what was left undone where something else makes room for it, on another day or for good. @returns whether anything got better */
function exchange(slots: readonly Slot[], ground: Ground, load: Load, p: PlanOf): boolean {
  const worth = ({ one, wish }: Slot): number => (one ? worthOf(one, wish.weight) : 0)
  let isBetter = false
  for (const slot of slots.filter(({ one, wish }) => !one && wish.choices.length > 0)) {
    const { why } = slot
    const weeks = new Set(slot.wish.choices.map(({ day }) => weekOf(day)))
    // What lies on other ground and in other weeks stands in nobody’s way.
    const inTheWay = ({ one, wish }: Slot): boolean =>
      one !== null && (wish.blockId === slot.wish.blockId || (p.minutesPerWeek !== null && weeks.has(weekOf(one.day))))
    const other = slots.find((candidate) => candidate !== slot && inTheWay(candidate) && makesRoom(candidate))
    if (other) isBetter = true
    else slot.why = why

    function makesRoom(candidate: Slot): boolean {
      const before = worth(candidate)
      const then = candidate.why
      const lifted = lift(candidate, load)
      let best: { sum: number; own: Proposed; theirs: Proposed | null } | null = null
      const beside = besideOf(slot, ground)
      for (const choice of slot.wish.choices.slice(0, TRIED)) {
        if (tryOn(slot, choice, beside, load, p) !== 'placed') continue
        place(candidate, ground, load, p)
        const sum = worth(slot) + worth(candidate)
        const theirs = lift(candidate, load)
        const own = lift(slot, load)
        if (own && sum > (best?.sum ?? before + 1e-9)) best = { sum, own, theirs }
      }
      putBack(candidate, best ? best.theirs : lifted, load)
      if (best) putBack(slot, best.own, load)
      else candidate.why = then
      return best !== null
    }
  }
  return isBetter
}
