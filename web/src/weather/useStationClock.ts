import { dayNumber, instantOfDay, isoInstant, MS_PER_HOUR } from '@bocado/core/time'
import { useStations } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useFormat } from '../design/useFormat.js'

/** Words for an hour of a station's day, which is kept in standard time, by the clock that people live by there. */
export function useStationClock(stationId: string): (day: string, hour: number) => string {
  const f = useFormat()
  const { data: stations = [] } = useStations(useSite().id)
  const offset = stations.find(({ id }) => id === stationId)?.utcOffsetMinutes ?? 0
  return (day, hour) => f.clock(isoInstant(instantOfDay(dayNumber(day), offset) + hour * MS_PER_HOUR))
}
