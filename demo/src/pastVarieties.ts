import type { InputOf, varieties } from '@bocado/contract'
import { drawNormal, seededRandom } from '@bocado/core'

/** Varieties of Old Apples, all invented, and how they truly bear each trouble: times as often hit as an average variety. */
const TRULY: readonly { organism: string; share: number; variety: string; times: number; said: string | null; degree: number | null }[] = [
  { organism: 'apple-scab', share: 0.22, variety: 'Lane Russet', times: 0.15, said: 'scab-resistant varieties', degree: 1 },
  { organism: 'apple-scab', share: 0.22, variety: 'Old Keeper', times: 1, said: null, degree: 5 },
  { organism: 'apple-scab', share: 0.22, variety: 'Bench Early', times: 2, said: 'old soft summer apples', degree: 20 },
  { organism: 'codling-moth', share: 0.06, variety: 'Bench Early', times: 0.7, said: 'early summer apples', degree: null },
  { organism: 'codling-moth', share: 0.06, variety: 'Old Keeper', times: 1.2, said: null, degree: null },
]
const LOOKED = 100

export interface InventedLook extends Omit<InputOf<typeof varieties.add>, 'organismId' | 'blockId'> {
  organism: string
}

/** What was counted on varieties side by side at harvest: years and plots differ, and a hundred fruit or leaves are only a hundred. */
export function inventVarietyLooks(years: readonly number[]): InventedLook[] {
  const random = seededRandom(407)
  return years.flatMap((year) => {
    const rough = new Map(['apple-scab', 'codling-moth'].map((organism) => [organism, Math.exp(drawNormal(random, 0, 0.35))]))
    return TRULY.map(({ organism, share, variety, times, said, degree }, i) => {
      const truth = Math.min(0.95, share * times * (rough.get(organism) as number) * Math.exp(drawNormal(random, 0, 0.2)))
      const hit = Array.from({ length: LOOKED }, () => random()).filter((u) => u < truth).length
      const lookedOn = `${year}-08-${String(18 + (i % 3)).padStart(2, '0')}`
      return {
        organism,
        variety,
        libraryVariety: said,
        part: degree === null ? ('fruit' as const) : ('leaf' as const),
        lookedOn,
        looked: LOOKED,
        hit,
        degree: hit > 0 ? degree : null,
      }
    })
  })
}
