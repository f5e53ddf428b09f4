import { endpoints, type YearsOf } from '@bocado/contract'
import { wrap } from 'comlink'
import { useEffect, useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useBlockOf } from '../api/useBlockOf.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import type { PatchInLine } from '../band/triage.js'
import { countsOf, FOUND_PERCENT, standOf } from '../outcomes/weedQuestion.js'
import { RUNS, type WeedQuestion } from '../workers/weeds.js'
import type { WeedsWorker } from '../workers/weeds.worker.js'

/** What stands next season of what is left alone: nine in ten lie between the bounds, where weeds do not fare unlike each other. */
export interface LeftLater {
  plants: { low: number; middle: number; high: number }
  /** Minutes that they would take then. */
  minutes: number
  /** Patches of which years are known; the others are not in it. */
  patches: number
}

/** Patches of one weed in one block that are left, and what its years there say. */
export interface LeftGroup {
  plants: number
  minutes: number
  patches: number
  question: WeedQuestion
}

/** What is left, by weed and block, as far as its years are known there. */
export function leftGroups(
  left: readonly PatchInLine[],
  lines: readonly YearsOf[],
  current: string,
  blockOf: (placeId: string) => string,
): LeftGroup[] {
  const groups = new Map<string, LeftGroup>()
  for (const { flag, plants, minutes } of left) {
    const line = lines.find(({ organismId, blockId }) => organismId === flag.organismId && blockId === blockOf(flag.placeId))
    const counts = line ? countsOf(line, current) : []
    if (!line?.weed || counts.length === 0) continue
    const key = `${line.organismId} ${line.blockId}`
    const group = groups.get(key) ?? {
      ...{ plants: 0, minutes: 0, patches: 0 },
      question: {
        stand: standOf(line.weed, line.years, counts, 0),
        ...{ passesSoFar: 1, found: FOUND_PERCENT / 100, leftLying: 0, own: null },
      },
    }
    groups.set(key, { ...group, plants: group.plants + plants, minutes: group.minutes + minutes, patches: group.patches + 1 })
  }
  return [...groups.values()]
}

/** The sum over groups, each by what its stand changes from this year to the next where nothing is done. */
export function laterOf(groups: readonly (LeftGroup & { rate: LeftLater['plants'] })[]): LeftLater {
  const sum = (of: (group: (typeof groups)[number]) => number): number => groups.reduce((total, group) => total + of(group), 0)
  return {
    plants: {
      low: sum(({ plants, rate }) => plants * rate.low),
      middle: sum(({ plants, rate }) => plants * rate.middle),
      high: sum(({ plants, rate }) => plants * rate.high),
    },
    minutes: sum(({ minutes, rate }) => minutes * rate.middle),
    patches: sum(({ patches }) => patches),
  }
}

/** What leaving patches costs later; null as long as it is reckoned, and where nothing is known of the years of what is left. */
export function useLeftLater(left: readonly PatchInLine[]): LeftLater | null {
  const site = useSite()
  const { now } = useSeasonChoice()
  const blockOf = useBlockOf()
  const { data } = useRead(endpoints.outcomes.years, { params: { siteId: site.id }, input: {} }, left.length > 0)
  const groups = data && blockOf ? leftGroups(left, data.lines, now, blockOf) : []
  const key = JSON.stringify(groups)
  const [found, setFound] = useState<{ key: string; later: LeftLater } | null>(null)
  useEffect(() => {
    const asked = JSON.parse(key) as LeftGroup[]
    if (asked.length === 0) return
    const thread = new Worker(new URL('../workers/weeds.worker.ts', import.meta.url), { type: 'module' })
    let isOver = false
    const follow = async (): Promise<void> => {
      const { weedYears } = wrap<WeedsWorker>(thread)
      const told = []
      for (const group of asked) {
        const none = (await weedYears(group.question, RUNS.first)).find(({ way }) => way === 'none')
        if (isOver || !none) return
        const today = Math.max(1, group.question.stand.counts.at(-1)?.plants ?? 1)
        const { low, high } = none.ahead.next.rate
        told.push({ ...group, rate: { low, high, middle: (none.ahead.plants[0]?.p50 ?? 0) / today } })
      }
      setFound({ key, later: laterOf(told) })
    }
    void follow()
    return () => {
      isOver = true
      thread.terminate()
    }
  }, [key])
  return found?.key === key ? found.later : null
}
