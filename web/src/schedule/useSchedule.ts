import { endpoints, type Block, type Method, type Organism, type Product } from '@bocado/contract'
import { useMemo } from 'react'
import { useProducts, useRead } from '../api/hooks.js'
import { useBlockOf } from '../api/useBlockOf.js'
import { useSite } from '../api/workplace.js'
import { stepsDue } from '../band/programme.js'
import { tasksOf, type Surroundings, type Task } from '../band/schedule.js'
import { errands } from '../band/walk.js'
import { useFormat } from '../design/useFormat.js'
import { useSigns } from '../programme/useSigns.js'
import { useWalked } from '../scouting/useWalked.js'
import { useUsesBefore } from '../windows/RotationThere.js'
import { useMethods } from '../windows/useShelfFor.js'

/** Days that are seen at once. */
export const SHOWN_DAYS = 14
/**
 * What is done before and after what is seen may stand in its way: groups of action are rotated over the season. Some work is planned for the
 * next one already.
 */
const SEASON_DAYS = 2 * 366

export interface ScheduleHere {
  days: string[]
  /** Everything that is seen. */
  shown: Task[]
  /** With what is done around it. */
  all: Task[]
  surroundings: Surroundings
  products: readonly Product[]
  methods: readonly Method[]
  organisms: readonly Organism[]
  blocks: readonly Block[]
  blockName: (id: string) => string
}

/** Two weeks of the schedule, with everything that they are held against; null as long as some of it is not there. */
export function useSchedule(from: string): ScheduleHere | null {
  const f = useFormat()
  const site = useSite()
  const walked = useWalked()
  const params = { siteId: site.id }
  const season = { season: site.season.start }
  const { data: schedule } = useRead(endpoints.schedule.read, { params, input: season })
  const { data: programmes } = useRead(endpoints.programmes.list, { params, input: {} })
  const { data: plantings } = useRead(endpoints.crops.list, { params, input: season })
  const { data: rules } = useRead(endpoints.rules.list, { params, input: {} })
  const { data: products } = useProducts(site.id)
  const before = useUsesBefore()
  const signs = useSigns()
  const blockOf = useBlockOf()
  const { data: methods } = useMethods()
  return useMemo(() => {
    if (!walked || !signs || !blockOf || !schedule || !programmes || !plantings || !rules || !products || !methods) return null
    const { band, blocks, organisms } = walked
    const last = f.nudge(from, SHOWN_DAYS - 1)
    const days = Array.from({ length: SHOWN_DAYS }, (_, i) => f.nudge(from, i))
    const all = tasksOf({
      rows: band.watches,
      errands: errands({ ...walked, rows: band.watches, blockOf, today: site.today }, last),
      steps: stepsDue(programmes, band.watches, site.today, last, signs),
      schedule,
      blockOf,
      today: site.today,
      from: site.season.start,
      until: f.nudge(site.season.start, SEASON_DAYS),
    })
    return {
      days,
      shown: all.filter(({ day }) => day >= from && day <= last),
      all,
      surroundings: { products, methods, rules, flowers: schedule.flowers, plantings, people: site.people, before, blockOf },
      products,
      methods,
      organisms,
      blocks,
      blockName: (id) => blocks.find((block) => block.id === id)?.name ?? site.name,
    }
  }, [walked, signs, blockOf, schedule, programmes, plantings, rules, products, methods, before, site, f, from])
}
