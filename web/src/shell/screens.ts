import { BookOpen, CalendarRange, CloudSun, Crosshair, Flower2, Map, PanelsTopLeft, Scale, SprayCan, Sunrise } from 'lucide-react'
import type { MessageId } from '../messages/useText.js'

/** The screens that exist, in the order of the work. */
export const SCREENS = [
  { path: 'today', word: 'nav.today', icon: Sunrise },
  { path: 'site', word: 'nav.site', icon: Map },
  { path: 'weather', word: 'nav.weather', icon: CloudSun },
  { path: 'bloom', word: 'nav.bloom', icon: Flower2 },
  { path: 'scouting', word: 'nav.scouting', icon: Crosshair },
  { path: 'windows', word: 'nav.windows', icon: PanelsTopLeft },
  { path: 'schedule', word: 'nav.schedule', icon: CalendarRange },
  { path: 'treatments', word: 'nav.treatments', icon: SprayCan },
  { path: 'outcomes', word: 'nav.outcomes', icon: Scale },
  { path: 'library', word: 'nav.library', icon: BookOpen },
] as const satisfies readonly { path: string; word: MessageId; icon: unknown }[]

/** Those with a place on a phone's bar. */
export const ON_THE_PHONE: readonly string[] = ['today', 'scouting', 'treatments']

/** "2026", or "2026/27" where a season spans two years; by its first day. */
export const seasonName = (start: string): string => {
  const from = start.slice(0, 4)
  return start.endsWith('-01-01') ? from : `${from}/${String(Number(from) + 1).slice(2)}`
}
