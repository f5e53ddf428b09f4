import { proxy, wrap } from 'comlink'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { School, SeasonPlan, SeasonSources } from '../band/season.js'
import type { SeasonWorker } from '../workers/season.worker.js'

export interface SeasonPlans {
  plans: SeasonPlan[]
  /** How far it is, 0 to 1; null while nothing is worked out. */
  done: number | null
  /** Begins anew, with what is known now. */
  begin: (sources: SeasonSources, first: School) => void
  stop: () => void
}

/** Plans of a season under every school, worked out beside the page; stopped with it, or by a press. */
export function useSeasonPlans(): SeasonPlans {
  const thread = useRef<Worker | null>(null)
  const [plans, setPlans] = useState<SeasonPlan[]>([])
  const [done, setDone] = useState<number | null>(null)
  const stop = useCallback((): void => {
    thread.current?.terminate()
    thread.current = null
    setDone(null)
  }, [])
  const begin = useCallback(
    (sources: SeasonSources, first: School): void => {
      thread.current?.terminate()
      const own = new Worker(new URL('../workers/season.worker.ts', import.meta.url), { type: 'module' })
      thread.current = own
      setDone(0)
      const isCurrent = (): boolean => thread.current === own
      let found: SeasonPlan[] = []
      void wrap<SeasonWorker>(own)
        .planAll(
          sources,
          first,
          proxy((plan: SeasonPlan) => {
            if (!isCurrent()) return
            found = [...found, plan]
            setPlans(found)
          }),
          proxy((share: number) => {
            if (isCurrent()) setDone(share)
          }),
        )
        .then(() => {
          if (isCurrent()) stop()
        })
    },
    [stop],
  )
  useEffect(() => () => thread.current?.terminate(), [])
  return { plans, done, begin, stop }
}
