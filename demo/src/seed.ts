import { randomUUID } from 'node:crypto'
import { drawPoisson, seededRandom, MS_PER_HOUR, MS_PER_DAY } from '@bocado/core'
import { addBloomRecord } from '@bocado/server/bloom/log'
import { addPlace } from '@bocado/server/places/service'
import { addCheckArea, createBlock } from '@bocado/server/blocks/service'
import { addWetEvent } from '@bocado/server/blocks/wetEvents'
import { draw } from '@bocado/server/ground/service'
import { addFlag, addSearch, addVisit } from '@bocado/server/flags/service'
import { addCompanion } from '@bocado/server/companions/service'
import { addLook, addPlot } from '@bocado/server/plots/service'
import { addReplacement, addWanted, changeReplacement } from '@bocado/server/replacement/service'
import { addTrap, pasteChecks } from '@bocado/server/traps/service'
import { addArrival } from '@bocado/server/arrivals/service'
import { addPlanting, addStage } from '@bocado/server/crops/service'
import { addHarvest } from '@bocado/server/harvests/service'
import { addRule } from '@bocado/server/rules/service'
import { clock } from '@bocado/server/clock'
import { Database } from '@bocado/server/database/database'
import { sqlInstant, updateRow, type Row, type Write } from '@bocado/server/database/index'
import { migrate } from '@bocado/server/database/migrate'
import { reading, writing, type Deps, type Serving } from '@bocado/server/http/serving'
import { insertIssue } from '@bocado/server/forecasts/store'
import { addCheck } from '@bocado/server/library/identity'
import { addLot, addMachine } from '@bocado/server/equipment/service'
import { addPermission } from '@bocado/server/permissions/service'
import { addToRoute } from '@bocado/server/library/route'
import { addLink, sendFind } from '@bocado/server/finds/service'
import { createRound } from '@bocado/server/scouting/service'
import { addPerson, createSite, everySite } from '@bocado/server/sites/service'
import { planTreatment, recordTreatment, recordUnplanned } from '@bocado/server/treatments/service'
import { addProduct } from '@bocado/server/treatments/shelf'
import { signRecord } from '@bocado/server/treatments/signing'
import { countTrial, drawTrialFor, noteTreated } from '@bocado/server/trials/service'
import { addVarietyLook } from '@bocado/server/varieties/service'
import { acceptClock } from '@bocado/server/watches/calibration'
import { addCatches, addSighting } from '@bocado/server/watches/eventRecords'
import { issueForecasts } from '@bocado/server/worker/issueForecasts'
import { createWatch } from '@bocado/server/watches/service'
import { Memo } from '@bocado/server/memo'
import { StationHistory } from '@bocado/server/weather/history'
import { addStation } from '@bocado/server/weather/stations'
import { mergeRows } from '@bocado/server/weather/readingStore'
import { tendStations } from '@bocado/server/worker/tendStations'
import { storeFile } from '@bocado/server/weatherFiles/service'
import { endpoints, type WeatherMapping } from '@bocado/contract'
import { drawEdged, drawRound } from './counts.js'
import { inventBlooms, type InventedBloom } from './pastBlooms.js'
import { inventPastRecords, inventThistleDates } from './pastRecords.js'
import { inventPastSeasons } from './pastSeasons.js'
import { inventVarietyLooks } from './pastVarieties.js'
import { TRAPS } from './traps.js'
import { BOARD, flagPosition, FOUND, inventFlags, SEARCHES } from './flags.js'
import { COMPANIONS, INSTEAD, plotPosition, PLOTS, WANTED } from './plots.js'
import { makeIssue, newestIssueAt } from './forecast.js'
import { LANDMARKS, OUTLINES } from './ground.js'
import {
  BLOCKS,
  CHECKS,
  HARVESTS,
  RULES,
  PLANTINGS,
  PARTS,
  COPPER,
  RELEASE,
  DEMO_NOW,
  IDENTITY,
  KEPT_FORECAST_DAYS,
  BESIDE,
  LANE,
  LEAD,
  PAST_RECORDS,
  THISTLE_SEASONS,
  ISSUED_DAYS_AGO,
  PEOPLE,
  PRODUCTS,
  LOTS,
  MACHINES,
  PERMISSIONS,
  TRIAL,
  RIVER_BLOOMS,
  SEASON,
  SITE,
  STATIONS,
  ARRIVALS,
  EDGED,
  RANKS,
  STORY,
  VARIETY_YEARS,
  WATCHES,
  WATERINGS,
} from './site.js'
import { CURRENT_YEAR, inventWeather, type InventedHour, type InventedStation } from './weather.js'

const MAPPING: WeatherMapping = {
  separator: ',',
  decimal: '.',
  headerLines: 1,
  interval: 'hourly',
  dateColumn: 0,
  timeColumn: null,
  dateOrder: 'ymd',
  clock: 'utc',
  offsetMinutes: null,
  stamp: 'begins',
  columns: [
    { variable: 'temperature', column: 1, unit: 'C' },
    { variable: 'humidity', column: 2, unit: '%' },
    { variable: 'rain', column: 3, unit: 'mm' },
    { variable: 'wind', column: 4, unit: 'm/s' },
    { variable: 'direction', column: 5, unit: 'deg' },
  ],
}

async function seedWeather(w: Write, stationId: string, station: (typeof STATIONS)[number]): Promise<void> {
  const hours = inventWeather(station, Date.parse(DEMO_NOW))
  const day = (hour: InventedHour | undefined): string => new Date(hour?.at ?? 0).toISOString().slice(0, 10)
  const readings = {
    rows: mergeRows(hours, ({ at }) => at, [
      ({ temperature }) => temperature,
      ({ humidity }) => humidity,
      ({ rain }) => rain,
      ({ wind }) => wind,
      () => null,
      () => null,
      ({ direction }) => direction,
    ]),
    rejections: [],
    lines: hours.length,
    repeated: 0,
    readingsPerHour: 1,
    first: day(hours[0]),
    last: day(hours.at(-1)),
  }
  await storeFile(
    w,
    { importId: randomUUID(), stationId, fileName: `${station.name.toLowerCase()}-2015-2026.csv`, mapping: MAPPING, readings, hash: '' },
    () => undefined,
  )
}

/** Of a round that was taken down without places and natural enemies. */
const NOT_KEPT = { places: null, heights: null, scale: 'classes', enemies: {} } as const

/** The forecasts of the last weeks, as they were issued: they can be held against what came. */
async function seedForecasts(w: Write, stationId: string, station: (typeof STATIONS)[number]): Promise<void> {
  const truth = inventWeather(station, Date.UTC(CURRENT_YEAR + 1, 0, 1))
  const newest = newestIssueAt(Date.parse(DEMO_NOW))
  for (let day = KEPT_FORECAST_DAYS; day >= 1; day--)
    await insertIssue(w.tx, { siteId: w.siteId, stationId }, randomUUID(), makeIssue(truth, newest - day * MS_PER_DAY))
}

/** What the first station read in the hour of a moment. */
function readAtBench(moment: string): { tempC: number | null; humidityPct: number | null; windMs: number | null; windFrom: number | null } {
  const hour = Math.floor(Date.parse(moment) / MS_PER_HOUR) * MS_PER_HOUR
  const read = inventWeather(STATIONS[0] as InventedStation, Date.parse(DEMO_NOW)).find(({ at }) => at === hour)
  return {
    tempC: read?.temperature ?? null,
    humidityPct: read?.humidity ?? null,
    windMs: read?.wind ?? null,
    windFrom: read?.direction ?? null,
  }
}

/** What was watched, counted, done and picked in the seasons before. */
async function seedPastSeasons(
  deps: Deps,
  by: { lead: Write; scout: Write; applicator: Write },
  known: { blocks: ReadonlyMap<string, string>; checks: ReadonlyMap<string, string>; products: readonly { id: string; name: string }[] },
): Promise<void> {
  const [bench, river] = STATIONS
  if (!bench || !river) throw new Error('the stations of the story are not there')
  const { watches, harvests } = inventPastSeasons({ bench, river })
  for (const { season, organism, block, biofix, rounds, deeds } of watches) {
    const { id } = await createWatch(by.scout, deps, {
      organismId: organism,
      blockId: known.blocks.get(block) as string,
      season,
      biofix,
      biofixNote: '',
      sourceKnown: 'unknown',
      threshold: null,
    })
    for (const { countedOn, check, units } of rounds)
      await createRound(by.scout, deps, {
        watchId: id,
        checkAreaId: check ? (known.checks.get(block) as string) : null,
        countedOn,
        unit: null,
        units,
        minutes: 26,
        note: '',
        made: null,
        taken: null,
        ...NOT_KEPT,
      })
    for (const { product: name, ...deed } of deeds) {
      const product = known.products.find((one) => one.name === name)
      if (!product) throw new Error(`${name} stands on no shelf`)
      await recordUnplanned(
        by.applicator,
        deps,
        endpoints.treatments.recordUnplanned.input.parse({ ...deed, watchId: id, productId: product.id, weather: {} }),
      )
    }
  }
  for (const { block, ...picked } of harvests)
    await addHarvest(by.lead, deps, endpoints.harvests.add.input.parse({ ...picked, placeId: known.blocks.get(block) }))
}

/** Everything in one transaction: a seeding that is killed leaves an empty database to start again from. */
async function seed(deps: Deps): Promise<void> {
  const tx = deps.db
  await tx.query('REPLACE INTO demo_clock (only_row, now_at) VALUES (1, ?)', [sqlInstant(DEMO_NOW)])
  const leadId = randomUUID()
  await tx.query('INSERT INTO person (id, name) VALUES (?, ?)', [leadId, LEAD.name])
  const site = await createSite(deps, leadId, endpoints.sites.create.input.parse(SITE))
  const lead: Write = { tx, siteId: site.id, personId: leadId, now: new Date(DEMO_NOW) }
  const people = new Map<string, Write>()
  for (const person of PEOPLE)
    people.set(person.role, { ...lead, personId: (await addPerson(lead, { help: null, personId: null, ...person })).id })
  const scout = people.get('scout') as Write
  const applicator = people.get('applicator') as Write

  const stations = new Map<string, string>()
  for (const station of STATIONS) {
    const { id } = await addStation(lead, deps, endpoints.weather.addStation.input.parse(station.about))
    stations.set(station.name, id)
    await seedWeather(lead, id, station)
    await seedForecasts(lead, id, station)
  }
  const blocks = new Map<string, string>()
  for (const { station, ...block } of BLOCKS) {
    const input = endpoints.blocks.create.input.parse({ ...block, stationId: stations.get(station) ?? null })
    const { id } = await createBlock(lead, input)
    blocks.set(block.name, id)
    const outline = { kind: 'outline', placeId: id, geometry: OUTLINES[block.name] }
    await draw(lead, endpoints.ground.draw.input.parse(outline))
  }
  const parts = new Map<string, string>()
  for (const { block, ...part } of PARTS) {
    const { id } = await addPlace(lead, endpoints.places.create.input.parse({ ...part, parentId: blocks.get(block) }))
    parts.set(part.name, id)
  }
  for (const { block, stages, ...planted } of PLANTINGS) {
    const { id } = await addPlanting(lead, deps, endpoints.crops.add.input.parse({ ...planted, placeId: blocks.get(block) }))
    for (const [stage, seenOn] of stages)
      await addStage(scout, deps, endpoints.crops.addStage.input.parse({ plantingId: id, stage, seenOn }))
  }
  for (const rule of RULES) await addRule(lead, deps, endpoints.rules.add.input.parse(rule))
  for (const { part, ...picked } of HARVESTS)
    await addHarvest(scout, deps, endpoints.harvests.add.input.parse({ ...picked, placeId: parts.get(part) }))
  for (const { block, ...event } of WATERINGS)
    await addWetEvent(
      lead,
      deps,
      blocks.get(block) as string,
      endpoints.blocks.addWetEvent.input.parse({ kind: 'overhead-watering', ...event }),
    )
  for (const landmark of LANDMARKS) await draw(lead, endpoints.ground.draw.input.parse(landmark))
  for (const plantId of LANE) await addToRoute(lead, plantId, 'along the lane', blocks.get(BESIDE[plantId] ?? '') ?? null)
  for (const { block, checks, ...hung } of TRAPS) {
    const { id } = await addTrap(scout, deps, endpoints.traps.add.input.parse({ ...hung, blockId: blocks.get(block) }))
    if (checks.length > 0) await pasteChecks(scout, deps, id, { checks: checks.map(([day, caught]) => ({ day, caught })) })
  }
  for (const flag of inventFlags()) {
    const [first, ...later] = flag.visits
    const pin = { organismId: flag.organism, placeId: blocks.get(flag.block), colour: flag.colour, position: flagPosition(flag) }
    const { id } = await addFlag(scout, deps, endpoints.flags.add.input.parse({ ...pin, ...first }))
    for (const visit of later) await addVisit(scout, deps, endpoints.flags.visit.input.parse({ flagId: id, ...visit }))
  }
  const board = await addLink(
    lead,
    deps,
    endpoints.finds.addLink.input.parse({ name: BOARD.name, placeId: blocks.get(BOARD.block) }),
    undefined,
  )
  await sendFind({ ...deps, db: lead.tx }, endpoints.finds.send.input.parse({ ...FOUND, code: board.code, id: randomUUID() }))
  for (const { block, ...searched } of SEARCHES)
    await addSearch(scout, deps, endpoints.flags.addSearch.input.parse({ ...searched, placeId: blocks.get(block) }))
  const wanted = new Map<string, string>()
  for (const plant of WANTED) {
    const { id } = await addWanted(lead, endpoints.replacement.addWanted.input.parse(plant))
    wanted.set(plant.name, id)
  }
  for (const { block, plants, doneOn, ...planned } of INSTEAD) {
    const lines = plants.map(([name, share]) => ({ wantedPlantId: wanted.get(name), share }))
    const input = { ...planned, placeId: blocks.get(block), lines }
    const { id } = await addReplacement(lead, endpoints.replacement.add.input.parse(input))
    if (doneOn !== null)
      await changeReplacement(lead, deps, id, endpoints.replacement.update.input.parse({ ...input, doneOn, rowVersion: 1 }))
  }
  for (const { block, ...companion } of COMPANIONS)
    await addCompanion(lead, deps, endpoints.companions.add.input.parse({ ...companion, placeId: blocks.get(block) }))
  for (const plot of PLOTS) {
    const { block, weed, looks, worked, fromWhat, bearingDeg, paces } = plot
    const seen = [
      { of: 'weed', id: weed },
      { of: 'wanted', id: wanted.get(plot.wanted) },
    ]
    const marked = { placeId: blocks.get(block), weeds: [weed], wanted: [wanted.get(plot.wanted)], worked, fromWhat, bearingDeg, paces }
    const { id } = await addPlot(lead, endpoints.plots.add.input.parse({ ...marked, position: plotPosition(plot) }))
    for (const [lookedOn, ofWeed, ofWanted, jpeg] of looks) {
      const covers = [ofWeed, ofWanted].map((cover, i) => ({ ...seen[i], cover }))
      const photo = jpeg === undefined ? null : { jpeg, takenOn: lookedOn }
      await addLook(scout, deps, endpoints.plots.look.input.parse({ plotId: id, lookedOn, covers, minutes: 5, photo }))
    }
  }
  const products = []
  for (const product of PRODUCTS) products.push(await addProduct(lead, endpoints.treatments.addProduct.input.parse(product)))
  const machines = []
  for (const machine of MACHINES) machines.push(await addMachine(lead, deps, endpoints.equipment.addMachine.input.parse(machine)))
  const lots = new Map<string, string>()
  for (const { product, ...lot } of LOTS) {
    const productId = products.find(({ name }) => name === product)?.id
    lots.set(product, (await addLot(lead, deps, endpoints.equipment.addLot.input.parse({ ...lot, productId }))).id)
  }
  for (const permission of PERMISSIONS) await addPermission(lead, endpoints.permissions.add.input.parse(permission))

  const watched = new Map<string, string>()
  for (const { organism, block, biofix = null, note = '', sourceKnown = 'unknown' } of WATCHES) {
    const { id } = await createWatch(scout, deps, {
      organismId: organism,
      blockId: blocks.get(block) as string,
      season: SEASON,
      biofix,
      biofixNote: note,
      sourceKnown,
      threshold: null,
    })
    watched.set(`${organism} ${block}`, id)
  }
  const story = watched.get('codling-moth Old Apples') as string

  // The notebook of the lane: eight seasons, and this one so far. By the river, two blooms of this spring.
  const { past, current } = inventBlooms(STATIONS[0] as InventedStation)
  const record = (bloom: InventedBloom, block: string | null) =>
    addBloomRecord(
      scout,
      deps,
      endpoints.bloom.add.input.parse({ ...bloom, blockId: block ? blocks.get(block) : null, place: block ? '' : 'along the lane' }),
    )
  for (const bloom of [...past, ...current]) await record(bloom, null)
  for (const bloom of current.filter(({ plantId, event }) => RIVER_BLOOMS.includes(plantId) && event === 'first-open'))
    await record(bloom, 'Onion Flat')
  await addCheck(
    scout,
    deps,
    endpoints.library.check.input.parse({
      organismId: IDENTITY.organism,
      blockId: blocks.get(IDENTITY.block),
      answers: IDENTITY.answers,
      note: IDENTITY.note,
    }),
  )
  for (const { hungOn, checks, hatch } of inventPastRecords(STATIONS[0] as InventedStation, PAST_RECORDS)) {
    await addCatches(scout, deps, story, { event: 'flight', hungOn, checks, note: '' })
    await addSighting(scout, deps, story, { event: 'hatch', kind: 'first', ...hatch, note: 'first entries of the year', made: null })
  }
  const thistle = watched.get('creeping-thistle Lower Meadow') as string
  for (const seen of inventThistleDates(STATIONS[1] as InventedStation, THISTLE_SEASONS))
    await addSighting(scout, deps, thistle, { event: 'flower', kind: 'first', ...seen, note: '', made: null })
  await acceptClock(lead, deps, thistle, 'flower')

  for (const { organism, ...look } of inventVarietyLooks(VARIETY_YEARS))
    await addVarietyLook(
      scout,
      deps,
      endpoints.varieties.add.input.parse({ ...look, organismId: organism, blockId: blocks.get('Old Apples') }),
    )

  const check = await addCheckArea(lead, blocks.get('Old Apples') as string, {
    name: STORY.checkName,
    note: 'two rows of six trees, never sprayed this season',
  })
  const checks = new Map([['Old Apples', check.id]])
  for (const [block, name, note] of CHECKS) {
    const { id } = await addCheckArea(lead, blocks.get(block) as string, { name, note })
    checks.set(block, id)
  }
  await seedPastSeasons(deps, { lead, scout, applicator }, { blocks, checks, products })
  const random = seededRandom(2026)
  for (const { countedOn, block, check: untreated } of STORY.rounds) {
    for (const [density, checkAreaId] of [
      [block, null],
      [untreated, check.id],
    ] as const) {
      await createRound(scout, deps, {
        watchId: story,
        checkAreaId,
        countedOn,
        unit: null,
        units: drawRound(random, density, 24, 20),
        minutes: 26,
        note: '',
        made: null,
        taken: null,
        ...NOT_KEPT,
      })
    }
  }
  for (const arrival of ARRIVALS)
    await addArrival(scout, deps, endpoints.arrivals.add.input.parse({ ...arrival, placeId: blocks.get(arrival.block), block: undefined }))
  for (const [block, ranked] of Object.entries(RANKS)) {
    const [[row]] = await lead.tx.query<Row[]>('SELECT row_version FROM place WHERE id = ?', [blocks.get(block)])
    await updateRow(lead, 'place', blocks.get(block) as string, row?.['row_version'] as number, {
      walk_rank: ranked.rank,
      spreads: ranked.spreads,
    })
  }
  const thrips = watched.get(`${EDGED.organism} ${EDGED.block}`) as string
  for (const { countedOn, edge, inside, enemies } of EDGED.rounds)
    await createRound(scout, deps, {
      watchId: thrips,
      checkAreaId: null,
      countedOn,
      unit: null,
      ...drawEdged(random, { edge, inside }, EDGED.places, EDGED.plantsPerPlace, 'thrips'),
      heights: null,
      scale: 'classes',
      enemies,
      minutes: 22,
      note: '',
      made: null,
      taken: null,
    })
  const virus = products[0]!
  const done = await planTreatment(
    lead,
    deps,
    endpoints.treatments.plan.input.parse({ watchId: story, productId: virus.id, plannedOn: '2026-06-05', note: '' }),
  )
  await recordTreatment(
    applicator,
    deps,
    done.id,
    endpoints.treatments.record.input.parse({
      startedAt: STORY.treatedOn,
      endedAt: STORY.endedAt,
      machineId: machines[0]?.id,
      lotId: lots.get(virus.name),
      waterL: 2340,
      way: 'spray',
      cropStage: 'fruit of 20 mm',
      targetStage: 'hatched, outside the fruit',
      rate: 0.1,
      areaHa: 3.9,
      weather: readAtBench(STORY.treatedOn),
      note: 'all but the north corner; second half of the night wind still',
      rowVersion: 1,
    }),
  )
  await planTreatment(
    lead,
    deps,
    endpoints.treatments.plan.input.parse({ watchId: story, productId: virus.id, plannedOn: STORY.plannedOn, note: '' }),
  )
  const soap = products.find(({ name }) => TRIAL.input.what.startsWith(name))
  const byLot = seededRandom(518)
  const trialAt = (moment: string): Deps => ({ ...deps, clock: { now: () => Promise.resolve(new Date(moment)) } })
  const drawn = await drawTrialFor(
    scout,
    trialAt(TRIAL.drawnAt),
    endpoints.trials.draw.input.parse({ ...TRIAL.input, placeId: blocks.get(TRIAL.block), productId: soap?.id ?? null }),
    byLot,
  )
  const pots = (mean: number) =>
    Object.fromEntries(drawn.pairs.flatMap(({ treated, check }) => [treated, check]).map((pot) => [pot, drawPoisson(byLot, mean)]))
  const countedOnce = await countTrial(
    scout,
    trialAt(TRIAL.drawnAt),
    drawn.id,
    endpoints.trials.count.input.parse({
      phase: 'before',
      countedOn: TRIAL.treatedOn,
      counts: pots(TRIAL.before),
      rowVersion: drawn.rowVersion,
    }),
  )
  const treatedThen = await noteTreated(scout, trialAt(TRIAL.drawnAt), drawn.id, {
    treatedOn: TRIAL.treatedOn,
    rowVersion: countedOnce.rowVersion,
  })
  await countTrial(
    scout,
    trialAt(TRIAL.countedAgainAt),
    drawn.id,
    endpoints.trials.count.input.parse({
      phase: 'after',
      countedOn: TRIAL.countedAgainAt.slice(0, 10),
      counts: pots(TRIAL.after),
      rowVersion: treatedThen.rowVersion,
    }),
  )
  const nematodes = products.find(({ name }) => name === RELEASE.product)
  const gnats = watched.get(`${RELEASE.organism} ${RELEASE.block}`)
  if (!nematodes || !gnats) throw new Error('what is to be put out has no watch or stands on no shelf')
  await planTreatment(
    lead,
    deps,
    endpoints.treatments.plan.input.parse({ watchId: gnats, productId: nematodes.id, plannedOn: RELEASE.plannedOn, note: '' }),
  )
  const copper = products.find(({ name }) => name === COPPER.product)
  const vines = watched.get(`${COPPER.organism} ${COPPER.block}`)
  if (!copper || !vines) throw new Error('the copper of the story has no watch or stands on no shelf')
  const protectant = await planTreatment(
    lead,
    deps,
    endpoints.treatments.plan.input.parse({ watchId: vines, productId: copper.id, plannedOn: COPPER.treatedAt.slice(0, 10), note: '' }),
  )
  const protection = await recordTreatment(
    applicator,
    deps,
    protectant.id,
    endpoints.treatments.record.input.parse({
      startedAt: COPPER.treatedAt,
      machineId: machines[0]?.id,
      lotId: lots.get(copper.name),
      waterL: 3300,
      way: 'spray',
      rate: 1.5,
      areaHa: 5.5,
      weather: readAtBench(COPPER.treatedAt),
      note: 'before the rain that was forecast',
      rowVersion: 1,
    }),
  )
  await signRecord(applicator, deps, protection.id, protection.rowVersion)
}

/** The forecasts of the last days, issued as they would have been: seen with the clock of each of them. */
async function issuePastForecasts(serving: Serving): Promise<void> {
  const [site] = await reading(serving, ({ db, clock: time }) => everySite(db, time))
  if (!site) return
  await tendStations(serving, site.id)
  for (const ago of ISSUED_DAYS_AGO) {
    const then = new Date(Date.parse(DEMO_NOW) - ago * MS_PER_DAY)
    await issueForecasts({ ...serving, clock: { now: () => Promise.resolve(then) } }, site.id)
  }
}

async function main(): Promise<void> {
  const url = process.env['BOCADO_DATABASE_URL']
  if (!url) throw new Error('BOCADO_DATABASE_URL is not set; npm run demo sets it')
  await migrate(url, new URL('../../server/migrations/', import.meta.url))
  const database = new Database(url)
  const serving: Serving = {
    database,
    clock,
    history: new StationHistory(160 * 2 ** 20),
    memo: new Memo(64 * 2 ** 20),
    readWeatherFile: () => Promise.reject(new Error('the seed reads no files')),
    stored: () => undefined,
  }
  try {
    const known = await reading(serving, async ({ db }) => {
      const [[row]] = await db.query<Row[]>('SELECT COUNT(*) AS n FROM site WHERE name = ?', [SITE.name])
      return Number(row?.['n'])
    })
    if (known > 0) return
    await writing(serving, seed, { long: true })
    await issuePastForecasts(serving)
  } finally {
    await database.end()
  }
}

await main()
