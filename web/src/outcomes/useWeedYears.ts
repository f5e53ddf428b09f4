import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import { RUNS, type WayAhead, type WeedQuestion } from '../workers/weeds.js'
import type { WeedsWorker } from '../workers/weeds.worker.js'

/** What the years would bring: a first picture soon, a smoother one after it. A new question ends the one before. */
export function useWeedYears(question: WeedQuestion | null): { ways: WayAhead[] | null; isFirst: boolean } {
  const [found, setFound] = useState<{ ways: WayAhead[]; isFirst: boolean } | null>(null)
  const key = JSON.stringify(question)
  useEffect(() => {
    const asked = JSON.parse(key) as WeedQuestion | null
    if (!asked) return
    const thread = new Worker(new URL('../workers/weeds.worker.ts', import.meta.url), { type: 'module' })
    let isOver = false
    const follow = async (): Promise<void> => {
      const { weedYears } = wrap<WeedsWorker>(thread)
      for (const runs of [RUNS.first, RUNS.all]) {
        const ways = await weedYears(asked, runs)
        if (isOver) return
        setFound({ ways, isFirst: runs === RUNS.first })
      }
    }
    void follow()
    return () => {
      isOver = true
      thread.terminate()
    }
  }, [key])
  return { ways: found?.ways ?? null, isFirst: found?.isFirst ?? true }
}
