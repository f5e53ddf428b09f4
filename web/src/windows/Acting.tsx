import type { Organism, WatchForecast } from '@bocado/contract'
import { useCallback, useEffect, useRef } from 'react'
import { Stack } from '../design/text.js'
import { Waiting } from '../shell/Waiting.js'
import { PlanPanel } from './PlanPanel.js'
import type { Planning } from './usePlanning.js'
import { useShelfFor } from './useShelfFor.js'
import { WatchDetail } from './WatchDetail.js'

/** What is done about a watch, and below it what is known of it; both at once, so that nothing moves. */
export function Acting({ forecast, organism, planning }: { forecast: WatchForecast; organism: Organism; planning: Planning }) {
  const shelf = useShelfFor(forecast.watch)
  const latest = useRef(planning)
  useEffect(() => {
    latest.current = planning
  })
  const takeUp = useCallback((key: string): void => latest.current.setMeans(key), [])
  if (!shelf.known) return <Waiting />
  return (
    <Stack $gap={20}>
      <PlanPanel forecast={forecast} organism={organism} planning={planning} shelf={shelf} />
      <WatchDetail forecast={forecast} organism={organism} onPlan={takeUp} />
    </Stack>
  )
}
