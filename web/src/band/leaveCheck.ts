import type { Clumping, Organism, Round, Threshold } from '@bocado/contract'
import { ASSUMED_K, STATED_AREA_SD_LOG, tellableFall, unitsToTell } from '@bocado/core'

/** Blocks with a check each, from the one at hand to as many as most have: from three on it may be said that something worked. */
const PAIRS = [1, 3, 4, 6] as const
/** That most want to find, and what a good treatment does. */
const WANTED = [0.5, 0.8] as const
/** So little closer together than by chance tells no more. */
const BY_CHANCE = 100

/** What a comparison would start from. */
export interface CheckStart {
  /** Of what is counted, per sample unit, before. */
  mean: number
  /** Where that is from: the last count in the block, or its threshold; `typed` where neither is known. */
  from: { kind: 'count'; countedOn: string } | { kind: 'threshold' } | { kind: 'typed' }
}

/** By what a comparison in a block would start: as it was counted last, else as it stands where one acts. */
export function startOf(
  rounds: readonly Pick<Round, 'checkAreaId' | 'countedOn' | 'per100'>[],
  threshold: Threshold | null,
  { itemsPerUnit }: Pick<Organism['sampling'], 'itemsPerUnit'>,
): CheckStart {
  const last = rounds
    .filter(({ checkAreaId, per100 }) => checkAreaId === null && per100 > 0)
    .toSorted((a, b) => a.countedOn.localeCompare(b.countedOn))
    .at(-1)
  if (last) return { mean: (last.per100 / 100) * itemsPerUnit, from: { kind: 'count', countedOn: last.countedOn } }
  const per100 = threshold?.per100 ?? 0
  return per100 > 0 ? { mean: (per100 / 100) * itemsPerUnit, from: { kind: 'threshold' } } : { mean: 1, from: { kind: 'typed' } }
}

/** What one number of blocks, each with its check, would tell. */
export interface CheckTells {
  pairs: number
  /** Least fall that is told four times in five, as a proportion; undefined where not even its end would be. */
  least: number | undefined
  /** Sample units per area for each fall that is wanted; undefined where no number that anybody counts is enough. */
  needs: { fall: number; units: number | undefined }[]
}

/** What leaving checks would tell, by how many blocks have one. */
export function checkTells(mean: number, units: number, clumping: Pick<Clumping, 'k'> | null): CheckTells[] {
  const k = clumping ? (clumping.k ?? BY_CHANCE) : ASSUMED_K
  return PAIRS.map((pairs) => {
    const plan = { mean, k, pairs, areaSdLog: STATED_AREA_SD_LOG }
    return {
      pairs,
      least: tellableFall({ ...plan, units }),
      needs: WANTED.map((fall) => ({ fall, units: unitsToTell(fall, plan) })),
    }
  })
}
