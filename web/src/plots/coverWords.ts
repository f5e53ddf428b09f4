import type { CoverLine } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'

/** Below ten by its tenths: there a tenth tells something. */
const FINE_BELOW = 10

/** How a plant stood in its last season, and how it goes, no surer than its plots. */
export function coverSays({ name, worked, seasons, trend }: CoverLine, t: Say, f: Format): string {
  const last = seasons.at(-1)
  if (!last) return ''
  const percent = (value: number): string => `${f.number(value, value < FINE_BELOW ? 1 : 0)} %`
  const of = worked ? name : t('plots.ofLeft', { name })
  if (last.plots === 1)
    return t('plots.saysOne', {
      name: of,
      some: last.high > 0 ? 'yes' : 'no',
      season: seasonName(last.season),
      low: percent(last.low),
      high: percent(last.high),
    })
  const now = t('plots.says', {
    name: of,
    mean: percent(last.mean),
    season: seasonName(last.season),
    low: percent(last.low),
    high: percent(last.high),
  })
  if (!trend) return `${now} ${t('plots.few')}`
  const { perYear, low, high } = trend
  if (low <= 0 && high >= 0) return `${now} ${t('plots.tellsNot', { from: f.signed(low, 0), to: f.signed(high, 0) })}`
  const [from, to] = [Math.abs(low), Math.abs(high)].sort((a, b) => a - b) as [number, number]
  const way = perYear < 0 ? 'falls' : 'grows'
  return `${now} ${t('plots.tells', { way, points: Math.max(1, Math.round(Math.abs(perYear))), from: f.number(from, 1), to: f.number(to, 1) })}`
}
