import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { heatSays } from './heatWords.js'
import '../messages/en/review.js'

/** °C above which the heat of a season is told beside other seasons. */
const BASE = 10
/** A sum is asked for with every comparison of methods; this page shows none. */
const A_SUM = 100

/** Why this year: its heat against past seasons, its rain and the hours in which leaves were wet. */
export function ReviewWeather({ stationId, blockId }: { stationId: string; blockId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id, stationId }
  const { start, end } = site.season
  const { data: heat } = useRead(endpoints.weather.heat, {
    params,
    input: { season: start, from: start, method: 'single-sine', cutoff: 'horizontal', lower: BASE, blockId, target: A_SUM },
  })
  const { data: season } = useRead(endpoints.weather.days, { params, input: { season: start, blockId } })
  const says = heat ? heatSays(heat, { base: BASE, from: start, isOver: end < site.today }, t, f) : null
  const days = season?.days.filter(({ day, rain }) => day < site.today && rain !== null) ?? []
  const unknown = days.reduce((all, { wetUnknown }) => all + wetUnknown, 0)
  return (
    // Its two lines are kept free, so that nothing moves when they come.
    <Stack $gap={6} style={{ minHeight: '3.6em' }}>
      {says === null ? null : <p>{says}</p>}
      {days.length > 0 ? (
        <p>
          {t('review.wet', {
            rain: f.rain(days.reduce((all, { rain }) => all + (rain ?? 0), 0)),
            wet: f.number(days.reduce((all, { wet }) => all + (wet ?? 0), 0)),
            unknown: unknown > 0 ? f.number(unknown) : 'none',
          })}
        </p>
      ) : null}
    </Stack>
  )
}
