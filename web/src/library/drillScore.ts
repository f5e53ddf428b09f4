/** One picture of a recognition drill: whether it was the organism, and what was said. */
export interface DrillTrial {
  isIt: boolean
  saidIt: boolean
}

export interface DrillScore {
  shown: number
  /** The organism was there and was not recognised. */
  misses: number
  /** Something else was taken for it. */
  falseAlarms: number
  missRate: number
  falseAlarmRate: number
}

/** Misses and false alarms of a drill, apart from each other: one lets the organism go, the other harms something else. */
export function drillScore(trials: readonly DrillTrial[]): DrillScore {
  const there = trials.filter(({ isIt }) => isIt)
  const others = trials.filter(({ isIt }) => !isIt)
  const misses = there.filter(({ saidIt }) => !saidIt).length
  const falseAlarms = others.filter(({ saidIt }) => saidIt).length
  return {
    shown: trials.length,
    misses,
    falseAlarms,
    missRate: there.length > 0 ? misses / there.length : 0,
    falseAlarmRate: others.length > 0 ? falseAlarms / others.length : 0,
  }
}
