import type { Site } from '@bocado/contract'
import {
  attackOfModel,
  attackOfMonths,
  attackOfRecords,
  dayNumber,
  forecastGrade,
  monthOf,
  placeModel,
  usualMonths,
  type Attack,
  type PlacedModel,
} from '@bocado/core'
import { regions, type Organism } from '@bocado/library'
import type { Queryable } from '../database/index.js'
import type { Memo } from '../memo.js'
import type { GroundWeather } from '../weather/groundWeather.js'
import { keepBeside } from '../watches/forecast.js'
import { hashOf, type PinnedModel } from '../watches/models.js'
import { pastLooks } from './looks.js'

/** When something comes to a crop, and what that rests on. */
export interface KnownAttack {
  attack: Attack
  by: 'model' | 'records' | 'months'
  seasons: number
}

/** A model on the weather of a place; null where it gives no dates there: then only months are known. */
export function datedThere(model: PinnedModel, biofix: string | null, at: GroundWeather, memo: Memo): PlacedModel | null {
  const { confidence = 'approximate', expectedConfidence, generations } = model
  if (generations.every(({ events }) => events.length === 0)) return null
  const placed = placeModel(model, biofix === null ? null : dayNumber(biofix), at, undefined, keepBeside(at, memo))
  const { heat, start } = placed
  const grade = forecastGrade({ basis: at.basis, heat, start, confidence, expectedConfidence })
  return grade === 'dates' && heat.knownDays >= at.weather.length ? placed : null
}

/** Runs of days of the season that lie in the usual months of an organism, those of the place where its heat moves them. */
export function monthRuns(organism: Organism, at: GroundWeather, memo: Memo): { from: number; until: number }[] {
  const { firstDay, length } = at.weather
  const told = [...organism.generations, organism.infection, organism.emergence]
  return told.flatMap((one) => {
    const usual = one?.usual
    if (!usual) return []
    const normals = regions[usual.region]?.months
    const own = usual.months.map((m) => (at.hemisphere === 'south' ? ((m + 5) % 12) + 1 : m))
    const months = new Set(normals ? usualMonths(usual.months, normals, at, keepBeside(at, memo)).months : own)
    const runs: { from: number; until: number }[] = []
    for (let day = 0; day < length; day++) {
      if (!months.has(monthOf(firstDay + day) + 1)) continue
      const last = runs.at(-1)
      if (last?.until === day) last.until = day + 1
      else runs.push({ from: day, until: day + 1 })
    }
    return runs
  })
}

/** The attack of an organism at a place in a season: by its model, else by own records, else by its usual months; null without any. */
export async function attackAt(
  { db, memo }: { db: Queryable; memo: Memo },
  site: Site,
  organism: Organism,
  p: { model: PinnedModel; biofix: string | null; at: GroundWeather; stages: readonly string[] },
): Promise<KnownAttack | null> {
  // The same model on the same weather comes at the same days, whichever crop is asked about.
  const key = `attack ${p.at.key} ${hashOf(p.model)} ${p.biofix} ${p.stages.join()}`
  const modelled = memo.get(key, () => {
    const placed = datedThere(p.model, p.biofix, p.at, memo)
    return (placed && attackOfModel(p.model, placed, p.stages)) ?? null
  })
  if (modelled) return { attack: modelled, by: 'model', seasons: modelled.seasons }
  const { length } = p.at.weather
  const recorded = attackOfRecords(await pastLooks(db, site.id, organism.id, site.season.start), length)
  if (recorded) return { attack: recorded, by: 'records', seasons: recorded.seasons }
  const runs = monthRuns(organism, p.at, memo)
  return runs.length > 0 ? { attack: attackOfMonths(runs, length), by: 'months', seasons: 0 } : null
}
