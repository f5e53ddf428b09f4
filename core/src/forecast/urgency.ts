import type { WindowState } from '../windows/vulnerableWindow.js'
import type { ForecastGrade } from './grade.js'
import { LIKELY_FROM, type InfectionState } from './infectionForecast.js'

/** A window as far as it matters what it asks for; days of the season, null beyond it. */
export interface StatedWindow {
  state: WindowState
  opens: { p50: number | null }
  closes: { p50: number | null }
  bestDay: { p50: number | null }
}

/** What is said of an organism, as far as it matters what it asks for. */
export interface Stated<W extends StatedWindow = StatedWindow> {
  grade: ForecastGrade
  windows: readonly W[]
  infection: { state: InfectionState; from: number | null; days: readonly { day: number; probability: number }[] } | null
  heat: { todayIndex: number }
  /** It breeds on after the broods that are modelled. */
  breedsOn?: boolean
}

/** What an organism asks for, most pressing first. */
export const URGENCIES = ['closing', 'open', 'coming', 'quiet', 'poorly-reachable', 'past', 'unknown'] as const
export type Urgency = (typeof URGENCIES)[number]

/** The window that matters now: the one open, else the next to come, else the last one past. */
export function currentWindow<W extends StatedWindow>({ windows }: Pick<Stated<W>, 'windows'>): W | undefined {
  return (
    windows.find(({ state }) => state === 'open' || state === 'closing') ??
    windows.find(({ state }) => state === 'coming') ??
    windows.findLast(({ state }) => state === 'past') ??
    windows[0]
  )
}

const OF_INFECTION = {
  cure: 'closing',
  protect: 'open',
  protected: 'quiet',
  coming: 'coming',
  quiet: 'quiet',
  over: 'past',
  unknown: 'unknown',
} as const satisfies Record<InfectionState, Urgency>

/** What an organism asks for. What rests on a placeholder, or on no weather, raises no alarm. */
export function urgencyOf(stated: Stated): Urgency {
  if (stated.grade !== 'dates') return 'unknown'
  if (stated.infection) return OF_INFECTION[stated.infection.state]
  const state = currentWindow(stated)?.state
  if (state === undefined) return 'unknown'
  if (state !== 'past' && state !== 'not-this-season') return state
  // What breeds on is never past: counts tell from now on.
  return stated.breedsOn ? 'quiet' : 'past'
}

/** Stands for a day that nobody knows: after all others. */
const LATE = 999

/** The day of the season on which that changes; late where nothing is known. */
function nextChange(stated: Stated): number {
  const { infection } = stated
  if (infection) return infection.days.find(({ day }) => day >= stated.heat.todayIndex)?.day ?? infection.from ?? LATE
  const window = currentWindow(stated)
  return (window?.state === 'coming' ? window.opens.p50 : window?.closes.p50) ?? LATE
}

/** Most pressing first: by what is asked for, then by when that ends. */
export const byUrgency = (a: Stated, b: Stated): number =>
  URGENCIES.indexOf(urgencyOf(a)) - URGENCIES.indexOf(urgencyOf(b)) || nextChange(a) - nextChange(b)

/**
 * The day of the season that is offered first for a treatment: the day before the next likely infection, or the one on which it reaches
 * most of the current window; today where that has passed.
 */
export function firstDayOffered(stated: Pick<Stated, 'infection' | 'windows'>, todayIndex: number): number {
  if (stated.infection) {
    const next = stated.infection.days.find(({ day, probability }) => day >= todayIndex && probability >= LIKELY_FROM)
    return Math.max(todayIndex, (next?.day ?? todayIndex) - 1)
  }
  return Math.max(todayIndex, Math.floor(currentWindow(stated)?.bestDay.p50 ?? 0))
}
