import type { Block, Indicator, LibraryBrief, LibraryEntry, Method } from '@bocado/contract'
import { indicators, type Organism } from '@bocado/library'
import { listBlocks } from '../blocks/store.js'
import { listWetEvents } from '../blocks/wetEvents.js'
import type { Deps } from '../http/route.js'
import { getSite, hemisphereOf } from '../sites/service.js'
import { forecastWatch } from '../watches/forecast.js'
import { figuresOf, listOwnFigures, resolvedModel } from '../watches/models.js'
import { countingRules } from '../scouting/countingRules.js'
import { presentedOrganism } from '../watches/presented.js'
import { listWatches, type StoredWatch } from '../watches/store.js'
import { weatherOfBlocks } from '../weather/groundWeather.js'
import { listOwnMethods, listOwnOrganisms, methodsByIds, methodsOf, organismsOf, requireOrganism, type OwnRow } from './catalogue.js'
import { bloomsByStation } from '../bloom/evidence.js'
import { ownPlants } from '../bloom/plants.js'
import { learntBlooms } from '@bocado/core'
import { routePlants } from './route.js'

const WHAT = { insect: 'animal', mite: 'animal', mollusc: 'animal', disease: 'disease', weed: 'weed' } as const

const briefOf = (organism: Organism, own: OwnRow | null, watches: readonly StoredWatch[]): LibraryBrief => ({
  id: organism.id,
  what: WHAT[organism.kind],
  name: organism.name,
  beside: organism.scientificName,
  words: [
    organism.about.family,
    ...organism.crops,
    ...organism.about.hosts,
    ...organism.about.identity.lookAlikes.map(({ name }) => name),
  ].join(' '),
  silhouette: organism.stages.find(({ id }) => id === organism.about.damage.stage)?.silhouette ?? organism.stages[0]?.silhouette ?? null,
  monthsOnly: organism.monthsOnly,
  own,
  watches: watches.filter(({ organismId }) => organismId === organism.id).map(({ id, blockId }) => ({ id, blockId })),
})

/** Everything there is to find, in one line each. */
const rowOf = (row: OwnRow | undefined): OwnRow | null => (row ? { id: row.id, rowVersion: row.rowVersion, shared: row.shared } : null)

export async function listLibrary(deps: Deps, siteId: string): Promise<LibraryBrief[]> {
  const db = deps.db
  const site = await getSite(db, deps.clock, siteId)
  const [watches, own, ownMethods, organisms, allMethods] = await Promise.all([
    listWatches(db, siteId, site.season.start),
    listOwnOrganisms(db, siteId),
    listOwnMethods(db, siteId),
    organismsOf(db, siteId),
    methodsOf(db, siteId),
  ])
  const nothing = { silhouette: null, monthsOnly: false, watches: [] }
  return [
    ...organisms.map((organism) => briefOf(organism, rowOf(own.find((o) => o.organism.id === organism.id)), watches)),
    ...indicators.map(({ id, name, scientificName, tell }) => ({
      ...nothing,
      id,
      what: 'bloom' as const,
      name,
      beside: scientificName,
      words: tell,
      own: null,
    })),
    ...allMethods.map(({ id, name, kind, what, worksOn, materials }) => ({
      ...nothing,
      id,
      what: 'method' as const,
      name,
      beside: kind,
      words: [what, worksOn, ...materials].join(' '),
      own: rowOf(ownMethods.find(({ method }) => method.id === id)),
    })),
  ]
}

/** Nobody watches it: the forecast is made for the page alone. */
const NOBODY = '00000000-0000-4000-8000-000000000000'

/** An organism with all that is known of it, its numbers as they hold here, and its year by this site's weather. */
export async function libraryEntry(deps: Deps, siteId: string, organismId: string, blockId: string | undefined): Promise<LibraryEntry> {
  const db = deps.db
  const organism = await requireOrganism(db, siteId, organismId)
  const site = await getSite(db, deps.clock, siteId)
  const blocks = await listBlocks(db, siteId)
  const block: Block | null = blocks.find(({ id }) => id === blockId) ?? null
  const own = await listOwnFigures(db, siteId)
  const resolved = resolvedModel(organism, own, block?.id ?? NOBODY)
  const season = site.season.start
  const weather = await (await weatherOfBlocks(deps, site, season))(block)
  const watch: StoredWatch = {
    id: NOBODY,
    organismId,
    blockId: block?.id ?? NOBODY,
    season,
    biofix: null,
    biofixNote: '',
    sourceKnown: 'unknown',
    threshold: null,
    followsBloom: false,
    model: resolved.name,
    rowVersion: 1,
    pinned: resolved.pinned,
    modelHash: resolved.hash,
    ownEntry: null,
    ownKey: null,
  }
  const wetEvents = block ? (await listWetEvents(db, siteId, season)).filter((event) => event.blockId === block.id) : []
  const ground = block ?? { soilTexture: null, soilCover: 'bare' as const }
  const key = `library ${weather.key} ${block?.id}@${block?.rowVersion} ${wetEvents.map(({ id, rowVersion }) => `${id}@${rowVersion}`).join()} ${resolved.name} ${resolved.hash} ${weather.hemisphere}`
  const year = deps.memo.get(key, () => forecastWatch({ watch, organism, block: weather, ground, wetEvents, memo: deps.memo, clocks: [] }))
  const ownRow = (await listOwnOrganisms(db, siteId)).find((o) => o.organism.id === organismId)
  const methods: Method[] = await methodsByIds(
    db,
    siteId,
    organism.about.reach.map(({ method }) => method),
  )
  return {
    ...presentedOrganism(organism, (await countingRules(db, siteId)).get(organism.id)),
    monthsOnly: organism.monthsOnly,
    about: organism.about,
    generations: organism.generations.map(({ id, name, reachableStages, noReach, events }) => ({
      id,
      name,
      reachableStages,
      noReach: noReach ?? null,
      events: events.map((event) => ({ id: event.id, name: event.name, stage: event.stage })),
    })),
    figures: figuresOf(organism, resolved.pinned.own ?? []),
    methods,
    year,
    own: rowOf(ownRow),
  }
}

export async function listIndicators(deps: Deps, siteId: string): Promise<Indicator[]> {
  const [route, own] = await Promise.all([routePlants(deps.db, siteId), ownPlants(deps.db, siteId)])
  const learnt = own.length > 0 ? await learntOf(deps, siteId) : () => []
  const ofLibrary = indicators.map(({ id, name, scientificName, tell, hazards, events }) => {
    const on = route.find(({ plantId }) => plantId === id)
    return {
      id,
      name,
      scientificName,
      tell,
      hazards,
      events: events.map((event) => ({ id: event.id, name: event.name, heat: event.heat })),
      route: on ? { id: on.id, place: on.place, blockId: on.blockId, rowVersion: on.rowVersion } : null,
      own: null,
    }
  })
  const ofSite = own.map(({ plantId, id, name, tell, blockId, rowVersion }): Indicator => ({
    id: plantId,
    name,
    scientificName: '',
    tell,
    hazards: [],
    events: [],
    route: null,
    own: { id, blockId, rowVersion, learnt: learnt(plantId) },
  }))
  return [...ofLibrary, ...ofSite]
}

/** What the dates of a site's own plants have taught, at the station that the site follows. */
async function learntOf(deps: Deps, siteId: string): Promise<(plantId: string) => NonNullable<Indicator['own']>['learnt']> {
  const site = await getSite(deps.db, deps.clock, siteId)
  const evidence = await bloomsByStation(deps, site, await listBlocks(deps.db, siteId))
  return (plantId) =>
    evidence.flatMap(({ placed }) =>
      learntBlooms(placed, plantId).map(({ event, heat, seasons }) => ({ event, heat: Math.round(heat), seasons })),
    )
}

/** Ids of the organisms that somebody watches this season. */
export async function watchedOrganisms(deps: Deps, siteId: string): Promise<{ watched: Set<string>; hemisphere: 'north' | 'south' }> {
  const site = await getSite(deps.db, deps.clock, siteId)
  const watches = await listWatches(deps.db, siteId, site.season.start)
  return { watched: new Set(watches.map(({ organismId }) => organismId)), hemisphere: hemisphereOf(site) }
}
