/** What beside hours of weather says whether a disease infects. Whatever is left out is not known and changes nothing. */
export interface InfectionFacts {
  /** Hours of the day, in standard time, at which the sun rises and sets; null on a day on which it does not. */
  sun?: ((day: number) => { sunrise: number | null; sunset: number | null }) | undefined
  /** Last year's disease was heavy: enough spores fly by night, too. */
  heavySource?: boolean | undefined
  /** Day number of the first lesions of this season; undefined while none were found. */
  lesionsFrom?: number | undefined
  /** Day number on which what wintered is spent. */
  primaryUntil?: number | undefined
  /** Hours, on the axis of the weather's, at which hail fell. */
  hail?: readonly number[] | undefined
  /** Day numbers on which protection was put on, in their order. */
  protectedOn?: readonly number[] | undefined
  /** A source of infection is known near: protection is due sooner. */
  sourceNear?: boolean | undefined
}

/** Where an infection comes from: what wintered, this season's own lesions, or wounds by hail. */
export type InfectionOrigin = 'primary' | 'secondary' | 'hail'

/** Whether the sun is up at an hour of the axis; true where it is not known. */
export function isDaylight(hour: number, sun: InfectionFacts['sun']): boolean {
  const day = Math.floor(hour / 24)
  const times = sun?.(day)
  if (!times || times.sunrise === null || times.sunset === null) return true
  const ofDay = hour - day * 24
  return ofDay >= Math.floor(times.sunrise) && ofDay < times.sunset
}

/** The first hour from one on at which the sun is up. */
export function nextDaylight(hour: number, sun: InfectionFacts['sun']): number {
  for (let h = hour; h < hour + 24; h++) if (isDaylight(h, sun)) return h
  return hour
}
