import { endpoints, type WatchForecast, type WatchHours } from '@bocado/contract'
import { MS_PER_DAY } from '@bocado/core/time'
import { useRead } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { idsOf, type Means } from '../band/means.js'

/** The hours ahead in which something can be used against a watch; undefined while they come, and in a past season. */
export function useHours(forecast: WatchForecast | undefined, means: Means | undefined): WatchHours | undefined {
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const { productId, methodId } = idsOf(means)
  return useRead(
    endpoints.treatments.hours,
    {
      params: { siteId: site.id, watchId: forecast?.watch.id ?? '' },
      input: productId === null ? { methodId: methodId ?? '' } : { productId },
    },
    forecast !== undefined && means !== undefined && !isPast,
  ).data
}

/** Hours in a row that can be used in at least half of the members, counted from the first hour of the board. */
export interface HourRun {
  /** First hour, and the one after the last. */
  from: number
  until: number
  /** The fewest members of any of them. */
  usable: number
}

/** The runs that are left, in their order. */
export function runsOf({ hours, members, over }: Pick<WatchHours, 'hours' | 'members' | 'over'>): HourRun[] {
  const runs: HourRun[] = []
  hours.forEach(({ usable }, h) => {
    if (h < over || usable * 2 < members || members === 0) return
    const last = runs.at(-1)
    if (last?.until === h) {
      last.until = h + 1
      last.usable = Math.min(last.usable, usable)
    } else runs.push({ from: h, until: h + 1, usable })
  })
  return runs
}

/** Members in which a day has an hour that is left; undefined where the board does not reach. */
export function membersOn({ from, days, members }: Pick<WatchHours, 'from' | 'days' | 'members'>, day: string): number | undefined {
  const index = Math.round((Date.parse(day) - Date.parse(from)) / MS_PER_DAY)
  return members === 0 ? undefined : days[index]
}
