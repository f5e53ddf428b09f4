import { endpoints, type Treatment } from '@bocado/contract'
import { useMemo } from 'react'
import { useProducts, useRead } from '../api/hooks.js'
import { useBlockOf } from '../api/useBlockOf.js'
import { useSite } from '../api/workplace.js'
import { bloomKey, MORNING_DAYS, todayLines, type TodayLine } from '../band/today.js'
import { stepsDue } from '../band/programme.js'
import { errands } from '../band/walk.js'
import { useFormat } from '../design/useFormat.js'
import { useWalked, type Walked } from '../scouting/useWalked.js'
import { useLiving } from '../living/useLiving.js'
import { useSigns } from '../programme/useSigns.js'
import { useNow } from '../shell/useNow.js'
import { useMethods } from '../windows/useShelfFor.js'
import type { NameOf } from './todayWords.js'

export interface Morning {
  walked: Walked
  lines: TodayLine[]
  /** Treatments that were done and whose re-entry is still running. */
  closed: Treatment[]
  blockName: (id: string) => string
  /** The name of what a step of a programme is done with. */
  nameOf: NameOf
}

/** Everything that a morning is made from; null as long as some of it is not there. */
export function useMorning(): Morning | null {
  const f = useFormat()
  const site = useSite()
  const walked = useWalked()
  const now = useNow()
  const { data: records } = useRead(endpoints.bloom.records, { params: { siteId: site.id }, input: {} })
  const { data: programmes } = useRead(endpoints.programmes.list, { params: { siteId: site.id }, input: {} })
  const { data: products } = useProducts(site.id)
  const living = useLiving()
  const signs = useSigns()
  const blockOf = useBlockOf()
  const { data: methods } = useMethods()
  return useMemo(() => {
    if (!walked || !signs || !blockOf || !records || !programmes || !products || !methods || !living) return null
    const { band, blocks } = walked
    const from = { ...walked, rows: band.watches, blockOf, today: site.today }
    const seen = new Set(
      records
        .filter(({ season, notYet }) => season === site.season.start && !notYet)
        .map(({ plantId, event }) => bloomKey({ plant: plantId, event })),
    )
    const lines = todayLines({
      rows: band.watches,
      errands: errands(from, f.nudge(site.today, MORNING_DAYS)),
      steps: stepsDue(programmes, band.watches, site.today, f.nudge(site.today, MORNING_DAYS), signs),
      living: living.planned,
      judgeAfter: (ids) => Math.max(0, ...methods.filter(({ id }) => ids.includes(id)).map(({ judgeAfterDays }) => judgeAfterDays)),
      blooms: band.blooms,
      seen,
      season: site.season.start,
      today: site.today,
    })
    const closed = band.watches
      .flatMap(({ treatments }) => treatments)
      .filter(({ done }) => done?.reEntryUntil != null && Date.parse(done.reEntryUntil) > now)
    const nameOf: NameOf = ({ productId, methodId }) =>
      products.find(({ id }) => id === productId)?.name ?? methods.find(({ id }) => id === methodId)?.name ?? ''
    return { walked, lines, closed, nameOf, blockName: (id) => blocks.find((block) => block.id === id)?.name ?? site.name }
  }, [walked, signs, blockOf, records, programmes, products, methods, living, site, f, now])
}
