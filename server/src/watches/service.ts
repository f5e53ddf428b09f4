import { createHash } from 'node:crypto'
import type { Band, ParsedInputOf, Site, Watch, watches } from '@bocado/contract'
import { civilDate, dayNumber, LEAD_DAYS, seasonHeat, seasonLater, seasonStart, type HeatRule } from '@bocado/core'
import { findOrganism, modelOf, type Organism } from '@bocado/library'
import { insertRow, liveRow, updateRow, type Queryable, type Write } from '../database/index.js'
import { HttpProblem, fieldProblem } from '../http/problems.js'
import type { Deps } from '../http/route.js'
import { listBlocks } from '../blocks/store.js'
import { listRounds } from '../scouting/service.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { listTreatments } from '../treatments/store.js'
import { weatherOfBlocks, type BlockWeather } from '../weather/blockWeather.js'
import { forecastWatch } from './forecast.js'
import { findWatch, listWatches, presentedWatch, type StoredWatch } from './store.js'

export async function getWatch(db: Queryable, siteId: string, watchId: string): Promise<StoredWatch> {
  const watch = await findWatch(db, siteId, watchId)
  if (!watch) throw new HttpProblem(404, 'There is no such watch at this site.')
  return watch
}

/** The library entry of a watch; one that the library no longer has is a fault. */
export function organismOf(watch: Pick<Watch, 'organismId'>): Organism {
  const organism = findOrganism(watch.organismId)
  if (!organism) throw new Error(`the library has no ${watch.organismId}`)
  return organism
}

function requireBiofix(site: Site, season: string, biofix: string): void {
  const start = dayNumber(season)
  const end = civilDate(seasonLater(start, 1) - 1)
  if (biofix < season || biofix > end) throw fieldProblem('biofix', `must lie in the season, ${season} to ${end}`)
  if (biofix > site.today)
    throw fieldProblem('biofix', `lies in the future; enter it when it has happened, at the latest today, ${site.today}`)
}

export async function createWatch(w: Write, deps: Deps, input: ParsedInputOf<typeof watches.create>): Promise<Watch> {
  const organism = findOrganism(input.organismId)
  if (!organism) throw fieldProblem('organismId', 'choose an organism of the library')
  await liveRow(w.tx, w.siteId, 'block', input.blockId)
  const site = await getSite(w.tx, deps.clock, w.siteId)
  if (civilDate(seasonStart(dayNumber(input.season), hemisphereOf(site))) !== input.season)
    throw fieldProblem('season', `must be the first day of a season, such as ${site.season.start}`)
  requireBiofix(site, input.season, input.biofix)
  const model = JSON.stringify(modelOf(organism))
  const id = await insertRow(w, 'watch', {
    organism_id: organism.id,
    block_id: input.blockId,
    season: input.season,
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    threshold_per_100: input.threshold?.per100 ?? null,
    threshold_reason: input.threshold?.reason ?? null,
    library_version: organism.version,
    model,
    model_hash: createHash('sha256').update(model).digest('hex'),
  })
  return presentedWatch(await getWatch(w.tx, w.siteId, id))
}

export async function changeWatch(w: Write, deps: Deps, watchId: string, input: ParsedInputOf<typeof watches.update>): Promise<Watch> {
  const site = await getSite(w.tx, deps.clock, w.siteId)
  requireBiofix(site, (await getWatch(w.tx, w.siteId, watchId)).season, input.biofix)
  await updateRow(w, 'watch', watchId, input.rowVersion, {
    biofix: input.biofix,
    biofix_note: input.biofixNote,
    threshold_per_100: input.threshold?.per100 ?? null,
    threshold_reason: input.threshold?.reason ?? null,
  })
  return presentedWatch(await getWatch(w.tx, w.siteId, watchId))
}

const AXIS_RULE: HeatRule = { method: 'single-sine', lower: 5 }
const AXIS_FLOOR = 0.1

/** Where each day begins on the axis that is even in heat, 0 to 1, and the season's end; null without a full year of weather. */
function heatAxis({ weather }: BlockWeather): number[] | null {
  const { firstDay, length, todayIndex } = weather
  let start = 0
  while (start < todayIndex && weather.observed.length > 0 && !weather.observed[start + LEAD_DAYS]) start++
  const heat = seasonHeat(weather, AXIS_RULE, firstDay + start)
  const total = heat.median[length - 1] ?? 0
  if (heat.knownDays < length || total <= 0) return null
  return Array.from({ length: length + 1 }, (_, i) => {
    const share = i === 0 ? 0 : (heat.median[i - 1] as number) / total
    return Math.round(((AXIS_FLOOR * i) / length + (1 - AXIS_FLOOR) * share) * 1e6) / 1e6
  })
}

/** Every watch of a season with its forecast, what was planned, done and counted. */
export async function getBand(deps: Deps, siteId: string, season: string): Promise<Band> {
  const { database } = deps
  const site = await getSite(database, deps.clock, siteId)
  const start = dayNumber(season)
  const days = seasonLater(start, 1) - start
  const [stored, blocks, rounds, treatments] = await Promise.all([
    listWatches(database, siteId, season),
    listBlocks(database, siteId),
    listRounds(database, siteId, season),
    listTreatments(database, siteId, season),
  ])
  const weatherOf = await weatherOfBlocks(deps, site, season)
  const hemisphere = hemisphereOf(site)
  const forecasts: Band['watches'] = []
  for (const watch of stored) {
    const block = blocks.find(({ id }) => id === watch.blockId)
    if (!block) continue
    const weather = await weatherOf(block)
    const key = `forecast ${weather.key} ${watch.id}@${watch.rowVersion} ${createHash('sha256').update(JSON.stringify(watch.pinned)).digest('hex')} ${hemisphere}`
    forecasts.push({
      ...deps.memo.get(key, () => forecastWatch({ watch, organism: organismOf(watch), block: weather }, hemisphere)),
      treatments: treatments.filter(({ watchId }) => watchId === watch.id),
      rounds: rounds.filter(({ watchId }) => watchId === watch.id),
    })
  }
  const main = await weatherOf(null)
  const todayIndex = Math.min(Math.max(dayNumber(site.today) - start, 0), days)
  return {
    season: { start: season, days, todayIndex },
    heatAxis: deps.memo.get(`axis ${main.key}`, () => heatAxis(main)),
    watches: forecasts,
  }
}
