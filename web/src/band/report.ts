import type { Treatment, WatchForecast } from '@bocado/contract'
import { activeSums, inStock, usedOf, workMinutes, type ActiveSum } from '@bocado/core'

export type { ActiveSum }

type Done = NonNullable<Treatment['done']>

/** By what the treatments of a season are put together. */
export const REPORT_BY = ['place', 'product', 'group', 'person', 'target'] as const
export type ReportBy = (typeof REPORT_BY)[number]

/** A treatment that was done, with what it was done against and in which block. */
export interface DoneDeed {
  treatment: Treatment
  done: Done
  organismName: string
  blockId: string
  blockName: string
}

/** What was done in a season, of the rows of the band. */
export function doneDeeds(rows: readonly WatchForecast[], nameOf: (blockId: string) => string): DoneDeed[] {
  const all = rows.flatMap(({ watch, organismName, treatments }) =>
    treatments.flatMap((treatment) =>
      treatment.done ? [{ treatment, done: treatment.done, organismName, blockId: watch.blockId, blockName: nameOf(watch.blockId) }] : [],
    ),
  )
  return all.sort((a, b) => a.done.startedAt.localeCompare(b.done.startedAt))
}

/** How much of a product was used, in that in which its rate is measured; null where nobody said. */
export const amountUsed = ({ amountUsed: typed, rate, rateUnit, areaHa }: Done): { amount: number; unit: string } | null =>
  rateUnit === null ? null : usedOf({ typed, rate, areaHa }, rateUnit)

/** One line of a season: how often, on how much ground, how much of what, how long, and what of it departed from the book. */
export interface ReportLine {
  name: string
  times: number
  areaHa: number
  /** Amounts by product and unit; what is not known of is counted. */
  amounts: { name: string; amount: number; unit: string }[]
  amountsUnknown: number
  minutes: number
  bags: number
  departed: number
  unsigned: number
}

const nameBy: Record<ReportBy, (deed: DoneDeed) => string> = {
  place: ({ blockName }) => blockName,
  product: ({ treatment }) => treatment.name,
  group: ({ done }) => done.label?.actionGroup ?? '',
  person: ({ done }) => done.doneByName,
  target: ({ organismName }) => organismName,
}

function lineOf(name: string, deeds: readonly DoneDeed[]): ReportLine {
  const amounts = new Map<string, { name: string; amount: number; unit: string }>()
  let amountsUnknown = 0
  for (const { treatment, done } of deeds) {
    if (!done.label) continue
    const used = amountUsed(done)
    if (!used) amountsUnknown++
    else {
      const key = `${treatment.name} ${used.unit}`
      amounts.set(key, { name: treatment.name, unit: used.unit, amount: (amounts.get(key)?.amount ?? 0) + used.amount })
    }
  }
  const sum = (of: (deed: DoneDeed) => number): number => deeds.reduce((total, deed) => total + of(deed), 0)
  return {
    name,
    times: deeds.length,
    areaHa: sum(({ done }) => done.areaHa ?? 0),
    amounts: [...amounts.values()],
    amountsUnknown,
    minutes: sum(({ done }) => workMinutes(done) ?? 0),
    bags: sum(({ done }) => done.bags ?? 0),
    departed: deeds.filter(({ treatment, done }) => treatment.deviation !== null || done.departures.length > 0).length,
    unsigned: deeds.filter(({ done }) => done.label?.licensedOnly === true && done.signed === null).length,
  }
}

/** The treatments of a season, put together; those of which what puts them together is not known come last, under an empty name. */
export function reportBy(by: ReportBy, deeds: readonly DoneDeed[]): ReportLine[] {
  const groups = new Map<string, DoneDeed[]>()
  for (const deed of deeds) {
    const name = nameBy[by](deed)
    groups.set(name, [...(groups.get(name) ?? []), deed])
  }
  return [...groups]
    .map(([name, group]) => lineOf(name, group))
    .sort((a, b) => Number(a.name === '') - Number(b.name === '') || a.name.localeCompare(b.name))
}

/**
 * What was put on each block of each active, against the most that may be; those of which neither a content nor a cap is known say nothing.
 * One deed against two watches of the same hour is one.
 */
export function activesOn(deeds: readonly DoneDeed[], areas: ReadonlyMap<string, number | null>): ActiveSum[] {
  const once = new Map(deeds.map((deed) => [`${deed.blockId} ${deed.treatment.productId ?? ''} ${deed.done.startedAt}`, deed]))
  const sums = activeSums(
    [...once.values()].flatMap(({ blockId, done }) => {
      const { label } = done
      if (!label) return []
      const used = amountUsed(done)
      const stock = used && inStock(used.amount, used.unit)
      return [
        {
          blockId,
          areaHa: done.areaHa,
          amount: stock && stock.unit !== 'pieces' ? stock.amount : null,
          active: label.active,
          activeGramsPer: label.activeGramsPer,
          mostActiveKgHa: label.mostActiveKgHa,
        },
      ]
    }),
    areas,
  )
  return sums.filter(({ kg, mostKgHa }) => kg > 0 || mostKgHa !== null)
}

/** What was carried away or left, by where it went: bags, or how often. */
export function wasteOf(deeds: readonly DoneDeed[]): { way: string; times: number; bags: number }[] {
  const ways = new Map<string, { way: string; times: number; bags: number }>()
  for (const { done } of deeds) {
    if (done.waste === null) continue
    const before = ways.get(done.waste) ?? { way: done.waste, times: 0, bags: 0 }
    ways.set(done.waste, { way: done.waste, times: before.times + 1, bags: before.bags + (done.bags ?? 0) })
  }
  return [...ways.values()].sort((a, b) => b.times - a.times)
}
