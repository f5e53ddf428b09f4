import type { ResponseOf, Round, Treatment, YearsOf, outcomes } from '@bocado/contract'
import { daysOver, meanWithInterval, workMinutes, yearlyTrend, TREND_YEARS } from '@bocado/core'
import { weedForm, type Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { listFlags, listVisits } from '../flags/store.js'
import { listHarvests } from '../harvests/store.js'
import type { Deps } from '../http/route.js'
import { organismsOf } from '../library/catalogue.js'
import { blockOf, tree } from '../places/store.js'
import { listRounds } from '../scouting/service.js'
import { getSite, seasonOf } from '../sites/service.js'
import { listTreatments } from '../treatments/store.js'
import { listWatches, organismOf, type StoredWatch } from '../watches/store.js'
import { countedAlike, INTERVAL_SEED } from './service.js'

type Line = Omit<YearsOf, 'years' | 'trend'> & { years: Map<string, YearsOf['years'][number]> }
type Picked = ResponseOf<typeof outcomes.years>['picked'][number]

const EMPTY = {
  highest: null,
  check: null,
  threshold: null,
  daysOver: null,
  patches: null,
  plants: null,
  areaM2: null,
  treatments: 0,
  minutes: 0,
  bags: 0,
}

/** What was counted of a watch in its season: the most, in the block and in check areas, and for how long it stood over. */
function counted(
  watch: StoredWatch,
  all: readonly Round[],
): Pick<YearsOf['years'][number], 'highest' | 'check' | 'threshold' | 'daysOver'> {
  const organism = organismOf(watch)
  const rounds = countedAlike(
    all.filter(({ watchId }) => watchId === watch.id),
    organism,
  )
  const per100 = ({ effective }: (typeof rounds)[number]): number =>
    (100 * effective.reduce((sum, n) => sum + n, 0)) / effective.length / organism.sampling.itemsPerUnit
  const most = (of: typeof rounds) => of.toSorted((a, b) => per100(b) - per100(a))[0]
  const block = rounds.filter(({ checkAreaId }) => checkAreaId === null)
  const [top, check] = [most(block), most(rounds.filter(({ checkAreaId }) => checkAreaId !== null))]
  const threshold = top?.threshold?.per100 ?? null
  const { mean = 0, low = 0, high = 0 } = top ? meanWithInterval(top.effective, INTERVAL_SEED) : {}
  const by = 100 / organism.sampling.itemsPerUnit
  return {
    highest: top ? { per100: mean * by, low: low * by, high: high * by, countedOn: top.countedOn, counts: block.length } : null,
    check: check ? per100(check) : null,
    threshold,
    daysOver:
      threshold === null
        ? null
        : Math.round(
            daysOver(
              block.map((round) => ({ day: round.day, value: per100(round) })),
              threshold,
            ),
          ),
  }
}

const spent = (done: readonly Treatment[]): Pick<YearsOf['years'][number], 'treatments' | 'minutes' | 'bags'> => ({
  treatments: done.length,
  minutes: done.reduce((sum, { done: one }) => sum + ((one && workMinutes(one)) ?? 0), 0),
  bags: done.reduce((sum, { done: one }) => sum + (one?.bags ?? 0), 0),
})

/** How it goes: by patches where those are kept, else by the highest counts. */
function trendOf(years: YearsOf['years'], current: string): YearsOf['trend'] {
  // A season that is still going has not had its highest count, nor were all of its patches looked at.
  const over = years.filter(({ season }) => season < current)
  const year = (season: string): number => Number(season.slice(0, 4))
  // Plants tell more than ground, and ground more than how many patches there are.
  for (const of of ['plants', 'areaM2', 'patches'] as const) {
    const known = over.flatMap((one) => (one[of] === null ? [] : [{ year: year(one.season), value: one[of] }]))
    const trend =
      known.length < Math.max(TREND_YEARS, over.filter(({ patches }) => patches !== null).length) ? undefined : yearlyTrend(known)
    if (trend) return { ...trend, of: of === 'areaM2' ? 'area' : of }
  }
  const byCounts = yearlyTrend(over.flatMap(({ season, highest }) => (highest ? [{ year: year(season), value: highest.per100 }] : [])))
  return byCounts ? { ...byCounts, of: 'counts' } : null
}

/** What was counted, found, done and picked at a site, season by season. */
export async function getYears(deps: Deps, siteId: string): Promise<ResponseOf<typeof outcomes.years>> {
  const { db } = deps
  const site = await getSite(db, deps.clock, siteId)
  const [blocks, places, flags, visits, organisms] = await Promise.all([
    listBlocks(db, siteId),
    tree(db, siteId),
    listFlags(db, siteId),
    listVisits(db, siteId, site.today),
    organismsOf(db, siteId),
  ])
  const nameOf = new Map(blocks.map(({ id, name }) => [id, name]))
  const known = new Map(organisms.map((organism) => [organism.id, organism]))
  const lines = new Map<string, Line>()
  const yearOf = (organismId: string, blockId: string, season: string, change: Partial<YearsOf['years'][number]>): void => {
    const organism = known.get(organismId)
    const blockName = nameOf.get(blockId)
    if (!organism || blockName === undefined) return
    const key = `${organismId} ${blockId}`
    const line: Line = lines.get(key) ?? {
      organismId,
      organismName: organism.name,
      blockId,
      blockName,
      items: organism.sampling.items,
      weed: weedOf(organism, flags, visits),
      years: new Map(),
    }
    lines.set(key, line)
    line.years.set(season, { ...EMPTY, season, ...line.years.get(season), ...change })
  }

  const picked: Picked[] = []
  const seasons = [...new Set([...site.seasons, ...visits.map(({ seenOn }) => seasonOf(site, seenOn))])].sort()
  for (const season of seasons) {
    const [watches, rounds, treatments, harvests] = await Promise.all([
      listWatches(db, siteId, season),
      listRounds(db, siteId, season),
      listTreatments(db, siteId, season),
      listHarvests(db, siteId, season),
    ])
    for (const watch of watches)
      yearOf(watch.organismId, watch.blockId, season, {
        ...counted(watch, rounds),
        ...spent(treatments.filter(({ watchId, done }) => watchId === watch.id && done)),
      })
    for (const harvest of harvests) {
      const blockId = blockOf(places, harvest.placeId)?.id ?? harvest.placeId
      let sum = picked.find((one) => one.blockId === blockId && one.season === season)
      if (!sum) picked.push((sum = { blockId, season, kg: 0, pieces: 0, spoilt: 0, lookedAt: 0 }))
      sum.kg += harvest.kg ?? 0
      sum.pieces += harvest.pieces ?? 0
      sum.spoilt += harvest.spoilt ?? 0
      sum.lookedAt += harvest.spoilt === null ? 0 : (harvest.pieces ?? 0)
    }
  }
  for (const { organismId, blockId, season, ...stood } of stoodBySeason(
    flags,
    visits,
    (placeId) => blockOf(places, placeId)?.id ?? placeId,
  ))
    yearOf(organismId, blockId, season, stood)
  return {
    lines: [...lines.values()]
      .map((line) => {
        const years = [...line.years.values()].sort((a, b) => a.season.localeCompare(b.season))
        return { ...line, years, trend: trendOf(years, site.season.start) }
      })
      .filter(({ years }) => years.some(({ highest, patches, treatments }) => highest || patches !== null || treatments > 0))
      .sort((a, b) => b.years.length - a.years.length || a.organismName.localeCompare(b.organismName)),
    picked,
  }
}

/** What the years ahead of a weed are reckoned from; null for what is none, or of which nothing is known of its seed or root. */
function weedOf(
  organism: Organism,
  flags: Awaited<ReturnType<typeof listFlags>>,
  visits: Awaited<ReturnType<typeof listVisits>>,
): YearsOf['weed'] {
  const form = weedForm(organism.id)
  if (!form || !organism.bank) return null
  const own = new Set(flags.filter(({ organismId }) => organismId === organism.id).map(({ id }) => id))
  const measured = visits
    .flatMap(({ flagId, methodId, minutes, plants }) =>
      own.has(flagId) && methodId !== null && minutes !== null && plants !== null && plants > 0 ? [minutes / plants] : [],
    )
    .sort((a, b) => a - b)
  const inBags = visits.flatMap(({ flagId, taken, plants }) =>
    own.has(flagId) && taken?.unit === 'bags' && plants ? [{ plants, bags: taken.amount }] : [],
  )
  const [bags, bagged] = [inBags.reduce((sum, one) => sum + one.bags, 0), inBags.reduce((sum, one) => sum + one.plants, 0)]
  return {
    form,
    bankYears: { shortest: organism.bank.shortest.value, longest: organism.bank.longest.value },
    plantsPerBag: bags > 0 && bagged > 0 ? bagged / bags : null,
    minutesPerPlant: measured[Math.floor((measured.length - 1) / 2)] ?? null,
  }
}

interface Stood extends Pick<YearsOf['years'][number], 'patches' | 'plants' | 'areaM2'> {
  organismId: string
  blockId: string
  season: string
}

/** The sum over patches; null where nobody said it of one of them. */
const sumOf = (most: readonly (number | null)[]): number | null =>
  most.includes(null) ? null : most.reduce<number>((sum, one) => sum + (one ?? 0), 0)

/** What stood in each season in which somebody looked, by organism and block: each patch where it stood at its most. */
function stoodBySeason(
  flags: Awaited<ReturnType<typeof listFlags>>,
  visits: Awaited<ReturnType<typeof listVisits>>,
  blockIdOf: (placeId: string) => string,
): Stood[] {
  type Looked = Omit<Stood, 'patches' | 'plants' | 'areaM2'> & { most: Map<string, { plants: number | null; areaM2: number | null }> }
  const found = new Map<string, Looked>()
  const larger = (a: number | null | undefined, b: number | null): number | null => (a == null ? b : b === null ? a : Math.max(a, b))
  for (const { flagId, season, sight, plants, areaM2 } of visits) {
    const flag = flags.find(({ id }) => id === flagId)
    if (!flag || flag.organismId === null) continue
    const [organismId, blockId] = [flag.organismId, blockIdOf(flag.placeId)]
    const key = `${organismId} ${blockId} ${season}`
    const one: Looked = found.get(key) ?? { organismId, blockId, season, most: new Map() }
    found.set(key, one)
    if (sight !== 'standing' && sight !== 'regrowing') continue
    const before = one.most.get(flagId)
    one.most.set(flagId, { plants: larger(before?.plants, plants), areaM2: larger(before?.areaM2, areaM2) })
  }
  return [...found.values()].map(({ most, ...one }) => ({
    ...one,
    patches: most.size,
    plants: sumOf([...most.values()].map(({ plants }) => plants)),
    areaM2: sumOf([...most.values()].map(({ areaM2 }) => areaM2)),
  }))
}
