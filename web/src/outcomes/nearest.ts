import type { EventSkill } from '@bocado/contract'

/** By what an event can be told, in the order in which it is shown. */
export const SKILLS = ['library', 'own', 'bloom', 'calendar'] as const

/** Of fewer seasons nothing is told apart. */
const LEAST_SEASONS = 3

/** What told an event nearest, of what was held against enough seasons; null where fewer than two can be compared. */
export function nearest(one: Pick<EventSkill, 'byLibrary' | 'byOwn' | 'byBloom' | 'byCalendar'>): (typeof SKILLS)[number] | null {
  const all = { library: one.byLibrary, own: one.byOwn, bloom: one.byBloom, calendar: one.byCalendar }
  const known = SKILLS.flatMap((by) => {
    const skill = all[by]
    return skill && skill.forecasts >= LEAST_SEASONS ? [{ by, error: skill.error }] : []
  })
  if (known.length < 2) return null
  return known.reduce((best, next) => (next.error < best.error ? next : best)).by
}
