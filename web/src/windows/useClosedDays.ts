import type { WatchForecast } from '@bocado/contract'
import { useMemo } from 'react'
import type { Means } from '../band/means.js'
import { closesDay, ruledMeans, rulesOn } from '../band/rules.js'
import { useFormat } from '../design/useFormat.js'
import { useHours } from './useHours.js'
import { useRulesAt } from './useRulesAt.js'
import { useMethods } from './useShelfFor.js'

/** Days of the season, from today on, on which a rule forbids something, or no hour in view lets it be done in half of the members. */
export function useClosedDays(forecast: WatchForecast, means: Means): number[] {
  const f = useFormat()
  const hours = useHours(forecast, means)
  const rules = useRulesAt(forecast.watch.blockId)
  const { data: methods } = useMethods()
  const { season } = forecast.watch
  const { todayIndex, knownDays } = forecast.heat
  return useMemo(() => {
    const bound = ruledMeans(means, methods ?? [])
    return Array.from({ length: Math.max(0, knownDays - todayIndex) }, (_, i) => todayIndex + i).filter((day) => {
      const date = f.seasonDay(season, day)
      if (rulesOn(rules, bound, date).some((rule) => closesDay(rule, date))) return true
      const members = hours ? hours.days[f.seasonIndex(hours.from, date)] : undefined
      return hours !== undefined && hours.members > 0 && members !== undefined && members * 2 < hours.members
    })
  }, [f, hours, rules, methods, means, season, todayIndex, knownDays])
}
