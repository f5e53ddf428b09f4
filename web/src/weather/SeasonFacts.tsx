import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { Season } from './SeasonPicture.js'
import { useStationClock } from './useStationClock.js'

/** What the season's days add up to: frost, chill, soil, sun, and how the days ahead were corrected. */
export function SeasonFacts(p: { season: Season; stationId: string; today: string; covered: boolean }) {
  const { season, today, covered } = p
  const t = useText()
  const clock = useStationClock(p.stationId)
  const f = useFormat()
  const { frost, soil, sun, usualChill, days, forecast } = season
  const now = days.findLast(({ day, min }) => day < today && min !== null)
  const chill = days.findLast((d) => d.chill !== null)?.chill
  const facts = [
    sun?.sunrise != null && sun.sunset !== null
      ? t('fact.sun', { rise: clock(today, sun.sunrise), set: clock(today, sun.sunset), hours: f.number(sun.dayLength, 1) })
      : '',
    t('fact.frost', {
      last: !frost.springKnown ? 'unknown' : frost.lastSpring === null ? 'none' : 'some',
      date: frost.lastSpring === null ? '' : f.date(frost.lastSpring),
    }),
    frost.firstAutumn === null ? '' : t('fact.autumnFrost', { date: f.date(frost.firstAutumn) }),
    frost.risk === null ? '' : t('fact.frostRisk', { share: f.percent(frost.risk), seasons: frost.seasons }),
    chill === null || chill === undefined
      ? ''
      : t('fact.chill', { portions: f.number(chill), usual: usualChill === null ? 'none' : 'some', median: f.number(usualChill ?? 0) }),
    now?.rootZone == null
      ? ''
      : t('fact.water', {
          root: f.percent(now.rootZone),
          texture: t(`texture.${soil.texture}`),
          assumed: soil.assumed ? 'yes' : 'no',
          unknown: soil.unknownRainDays,
        }),
    now?.soil == null ? '' : t(`fact.soil.${soil.source}`, { temperature: f.temperature(now.soil) }),
    covered ? t('fact.covered') : '',
    forecast && forecast.correctedFrom > 0 ? t('fact.corrected', { issues: forecast.correctedFrom }) : '',
  ]
  return <Small>{facts.filter((fact) => fact !== '').join(' ')}</Small>
}
