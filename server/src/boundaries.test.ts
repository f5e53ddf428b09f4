import { readFileSync } from 'node:fs'
import { endpoints, may, needOf, roles, type Endpoint, type Right, type Role } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import type { Row } from './database/index.js'
import { startApplication, type Application } from './testing/application.js'
import { done, startSite, type TestSite, GRANULE } from './testing/farm.js'

/* What holds for every operation alike: nothing but a proper request by somebody of the site changes anything, and nothing breaks. */

const { watches, treatments, scouting, bloom, library, varieties, blocks, places, ground, harvests } = endpoints
const SEASON = '2026-01-01'
const NOBODY = '00000000-0000-4000-8000-00000000dead'

let app: Application
let place: TestSite
let other: TestSite
/** Rows of the first site, by the name that paths give them. */
let ids: Record<string, string>

beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z', worker: false })
  place = await startSite(app)
  other = await startSite(app, 'Lower Terrace')
  const [at, as] = [{ siteId: place.site.id }, { person: place.person }]
  const watch = done(
    await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON, biofix: null }, as),
  )
  const product = done(await app.call(treatments.addProduct, at, GRANULE, as))
  const treatment = done(await app.call(treatments.plan, at, { watchId: watch.id, productId: product.id, plannedOn: '2026-06-14' }, as))
  const round = done(await app.call(scouting.create, at, { watchId: watch.id, countedOn: '2026-06-10', units: [{ 'fresh-entry': 1 }] }, as))
  const record = done(await app.call(bloom.add, at, { plantId: 'common-lilac', event: 'first-open', seenFrom: '2026-04-20' }, as))
  const look = {
    organismId: 'codling-moth',
    blockId: place.blockId,
    variety: 'Lane Russet',
    part: 'fruit',
    lookedOn: '2025-08-20',
  } as const
  const lookId = done(await app.call(varieties.add, at, { ...look, looked: 10, hit: 1 }, as)).id
  const check = done(await app.call(library.check, at, { organismId: 'wild-parsnip', answers: { stem: 'here' } }, as))
  const wet = { kind: 'overhead-watering', startedAt: '2026-06-10T06:00:00Z', endedAt: '2026-06-10T08:00:00Z' } as const
  const wetEvent = done(await app.call(blocks.addWetEvent, { ...at, blockId: place.blockId }, wet, as))
  const part = done(await app.call(places.create, at, { parentId: place.blockId, level: 'row', name: 'Row 1' }, as))
  const water = { kind: 'water' as const, geometry: { type: 'Point' as const, coordinates: [-119.3, 46.2] as [number, number] } }
  const shape = done(await app.call(ground.draw, at, water, as))
  const pick = { placeId: place.blockId, pickedOn: '2026-06-11', kg: 2 }
  const harvestId = done(await app.call(harvests.add, at, pick, as)).id
  const plantingId = done(
    await app.call(endpoints.crops.add, at, { placeId: place.blockId, crop: 'apple', standsFrom: '1988-04-01' }, as),
  ).id
  const rule = { weights: { 'fresh-entry': 1 }, reason: 'sold at the gate', rowVersion: null }
  const ruleId = done(await app.call(scouting.setRule, { ...at, organismId: 'codling-moth' }, rule, as)).id
  const closedHours = { name: 'school hours', kind: 'closed-hours', act: 'spraying', whose: 'own', fromHour: 8, untilHour: 16 } as const
  const siteRuleId = done(await app.call(endpoints.rules.add, at, closedHours, as)).id
  const once = { methodId: 'fallen-fruit', when: { kind: 'at-once' }, visits: [1, 1, 1] } as const
  const programme = { name: 'Sweep', steps: [once] } as never
  const programmeId = done(await app.call(endpoints.programmes.add, { ...at, watchId: watch.id }, programme, as)).id
  const work = { placeId: place.blockId, name: 'Mow the alleys', kind: 'crop-work', plannedOn: '2026-06-14' } as const
  const jobId = done(await app.call(endpoints.schedule.addJob, at, work, as)).id
  const findId = done(await app.call(library.keepUnknown, at, { seen: 'leaf:holes' }, as)).id
  const pinned = { organismId: 'himalayan-balsam', placeId: place.blockId, seenOn: '2026-06-10', sight: 'standing' } as const
  const flagId = done(await app.call(endpoints.flags.add, at, pinned, as)).id
  const searched = { placeId: place.blockId, organismIds: ['himalayan-balsam'], searchedOn: '2026-06-10' }
  const searchId = done(await app.call(endpoints.flags.addSearch, at, searched, as)).id
  const trap = { name: 'Trap 1', blockId: place.blockId, organismId: 'codling-moth', hungOn: '2026-04-20' }
  const trapId = done(await app.call(endpoints.traps.add, at, trap, as)).id
  const arrivalId = done(
    await app.call(
      endpoints.arrivals.add,
      at,
      { what: 'plants', name: 'grafted apple', arrivedOn: '2026-06-01', placeId: place.blockId },
      as,
    ),
  ).id
  const happening = { placeId: place.blockId, happened: 'lost', plants: 2, happenedOn: '2026-06-01' } as const
  const plantEventId = done(await app.call(places.addEvent, at, happening, as)).id
  const looked = { placeId: place.blockId, organismId: 'himalayan-balsam', lookedOn: '2026-06-01', first: 4, second: 5, both: 3 }
  const secondLookId = done(await app.call(endpoints.flags.addSecondLook, at, looked, as)).id
  const soil = { placeId: place.blockId, readOn: '2026-06-10', celsius: 14 }
  const readingId = done(await app.call(endpoints.living.readSoil, at, soil, as)).id
  const knapsack = { name: 'Knapsack', kind: 'knapsack' } as const
  const machineId = done(await app.call(endpoints.equipment.addMachine, at, knapsack, as)).id
  const lot = { productId: product.id, number: 'L1', amount: 1, unit: 'L', cameOn: '2026-05-01' } as const
  const lotId = done(await app.call(endpoints.equipment.addLot, at, lot, as)).id
  const consent = { kind: 'consent', byWhom: 'the owner', validFrom: '2026-01-01' } as const
  const permissionId = done(await app.call(endpoints.permissions.add, at, consent, as)).id
  const told = { treatmentId: treatment.id, toWhom: 'the school', way: 'told', givenOn: '2026-06-12' } as const
  const noticeId = done(await app.call(endpoints.permissions.giveNotice, at, told, as)).id
  const tried = {
    name: 'Soap',
    what: 'soap',
    placeId: place.blockId,
    units: 'plants',
    measure: 'count',
    pairs: 3,
    judgeAfterDays: 3,
  } as const
  const findLinkId = done(await app.call(endpoints.finds.addLink, at, { name: 'Board at the bridge' }, as)).id
  const trialId = done(await app.call(endpoints.trials.draw, at, tried, as)).id
  const fescue = { name: 'Red fescue', begins: 'sown', gramsPerM2: 3 } as const
  const wantedPlantId = done(await app.call(endpoints.replacement.addWanted, at, fescue, as)).id
  const instead = { placeId: place.blockId, areaM2: 20, lines: [{ wantedPlantId, share: 1 }], plannedOn: '2026-09-10' }
  const replacementId = done(await app.call(endpoints.replacement.add, at, instead, as)).id
  const marked = { placeId: place.blockId, weeds: ['himalayan-balsam'], wanted: [wantedPlantId] }
  const plotId = done(await app.call(endpoints.plots.add, at, marked, as)).id
  const covers = [{ of: 'weed', id: 'himalayan-balsam', cover: '5-25' }] as const
  const plotLookId = done(await app.call(endpoints.plots.look, at, { plotId, lookedOn: '2026-06-10', covers: [...covers] }, as)).id
  const bluebell = { placeId: place.blockId, name: 'Bluebell', wakesOn: '02-20', sleepsOn: '06-10', harmedBy: ['cutting'] } as const
  const companionId = done(await app.call(endpoints.companions.add, at, { ...bluebell, harmedBy: ['cutting'] }, as)).id
  const corners = { south: 46.1, west: -119.4, north: 46.3, east: -119.2 }
  const jpeg = readFileSync(new URL('./testing/point.jpg', import.meta.url)).toString('base64')
  const aerialId = done(await app.call(ground.addImage, at, { name: 'from above', jpeg, ...corners }, as)).id
  ids = {
    arrivalId,
    plantEventId,
    secondLookId,
    readingId,
    machineId,
    lotId,
    permissionId,
    noticeId,
    trialId,
    findLinkId,
    wantedPlantId,
    replacementId,
    plotId,
    plotLookId,
    companionId,
    aerialId,
    findId,
    ruleId,
    siteRuleId,
    programmeId,
    jobId,
    siteId: place.site.id,
    blockId: place.blockId,
    placeId: part.id,
    shapeId: shape.id,
    harvestId,
    plantingId,
    decisionId: NOBODY,
    trapId,
    checkId: NOBODY,
    flagId,
    visitId: NOBODY,
    searchId,
    stationId: place.stationId,
    watchId: watch.id,
    productId: product.id,
    treatmentId: treatment.id,
    roundId: round.id,
    recordId: record.id,
    lookId,
    rowId: check.id,
    wetEventId: wetEvent.id,
    correctionId: NOBODY,
    clockId: NOBODY,
    reportableId: NOBODY,
    plantRowId: NOBODY,
    importId: NOBODY,
    personId: NOBODY,
    invitationId: NOBODY,
    passkeyId: NOBODY,
    phoneId: NOBODY,
    auditId: '1',
    organismId: 'codling-moth',
    kind: 'organism',
  }
})
afterAll(() => app.stop())

const all = Object.entries(endpoints).flatMap(([group, operations]) =>
  Object.entries<Endpoint>(operations).map(([name, e]) => ({ name: `${group}.${name}`, e })),
)
const ofSite = all.filter(({ e }) => e.path.startsWith('/sites/:siteId'))
const writes = ofSite.filter(({ e }) => e.method !== 'get')
const reads = ofSite.filter(({ e }) => e.method === 'get')

type Call = (
  e: Endpoint,
  params: object,
  input: object,
  as?: { person?: string },
) => Promise<{ status: number; problem: { detail: string } }>
const call: Call = (e, params, input, as) => app.call(e, params as never, input as never, as)
const fieldsOf = ({ input }: Endpoint): string[] => Object.keys((input as unknown as { shape?: object }).shape ?? {})

/** A sum over every row of every table: the same as long as nothing was changed. */
async function everything(): Promise<string> {
  const [tables] = await app.database.query<Row[]>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
  )
  // What the server does by itself beside the writes of people is told by its own tests.
  const names = tables
    .map((row) => row['name'] as string)
    .filter((name) => !['issued_forecast', 'sign_in'].includes(name))
    .sort()
  const [sums] = await app.database.query<Row[]>(`CHECKSUM TABLE ${names.join(', ')}`)
  return sums.map((row) => `${row['Table']} ${row['Checksum']}`).join('\n')
}

function nested(depth: number): unknown {
  let value: unknown = 1
  for (let i = 0; i < depth; i++) value = i % 2 ? [value] : { a: value }
  return value
}

/** What a careless or hostile program may send in a field. */
const ODD: readonly unknown[] = [
  null,
  '',
  'x',
  "Robert'); DROP TABLE watch; --",
  '2026-06-12',
  '2026-02-30',
  NOBODY,
  -1,
  0,
  1.5,
  1e15,
  true,
  [],
  [null],
  {},
  'x'.repeat(5000),
  // Half of a character, and what is nested deeper than anything that is entered.
  'half \ud83c',
  nested(30),
  nested(2000),
  Array<number>(60_000).fill(1),
]

const QUERY = {
  season: SEASON,
  organismId: 'codling-moth',
  month: '6',
  from: '2026-06-01',
  to: '2026-06-03',
  day: '2026-06-01',
  at: '2026-06-01T12:00:00Z',
  lower: '10',
  method: 'single-sine',
}

describe('a write that is refused changes nothing, and nothing that is sent breaks the server', () => {
  /** Two who may do everything take turns: one alone would be held back for writing so much. */
  const owners = [() => place.person, () => second]
  let second: string
  beforeAll(async () => {
    const input = { name: 'A second owner', role: 'owner' } as const
    second = done(await app.call(endpoints.sites.addPerson, { siteId: place.site.id }, input, { person: place.person })).id
  })
  test.each(writes.map((one, i) => ({ ...one, by: owners[i % 2]! })))('$name', async ({ e, by }) => {
    const fields = fieldsOf(e)
    let before = await everything()
    for (const odd of ODD) {
      const { status, problem } = await call(e, ids, Object.fromEntries(fields.map((field) => [field, odd])), { person: by() })
      expect(status, `${JSON.stringify(odd).slice(0, 60)}: ${problem.detail}`).toBeLessThan(500)
      const after = await everything()
      if (status === 200) before = after
      else expect(after, `${JSON.stringify(odd)}: ${status}`).toBe(before)
    }
  })
})

describe('who may do what', () => {
  /** Somebody of each role at the first site. */
  const people = new Map<Role, string>()
  beforeAll(async () => {
    for (const role of roles) {
      const help = role === 'volunteer' ? { on: '2026-06-12', blockIds: [place.blockId] } : null
      const input = { name: `A ${role}`, role, help }
      const { id } = done(await app.call(endpoints.sites.addPerson, { siteId: place.site.id }, input, { person: place.person }))
      people.set(role, id)
    }
  })
  const isAtSite = ({ e }: { e: Endpoint }): boolean => e.path.startsWith('/sites/:siteId')
  const inputOf = (e: Endpoint): object =>
    e.method === 'get' ? QUERY : e.input.safeParse({ rowVersion: 999 }).success ? { rowVersion: 999 } : {}

  test.each(all.filter(isAtSite))('each role, a stranger and nobody: $name', async ({ name, e }) => {
    const before = await everything()
    const need = needOf(e) as Right
    const input = inputOf(e)
    const status = async (person: string, params = ids) => (await call(e, params, input, { person })).status
    const statuses = await Promise.all(roles.filter((role) => !may(role, need)).map((role) => status(people.get(role)!)))
    expect(statuses, name).toEqual(statuses.map(() => 403))
    // Somebody of another site is told neither that this one is there nor what is in it.
    expect(await status(other.person)).toBe(404)
    expect((await call(e, ids, input, { person: '' })).status).toBe(401)
    expect((await call(e, ids, input, { person: NOBODY })).status).toBe(401)
    expect(await everything()).toBe(before)
    for (const role of roles.filter((one) => may(one, need))) expect([401, 403], role).not.toContain(await status(people.get(role)!))
  })

  test.each(all.filter(({ e }) => !isAtSite({ e }) && !['nothing', 'device'].includes(needOf(e))))(
    'nobody is turned away: $name',
    async ({ e }) => expect((await call(e, { ...ids, signInId: NOBODY }, {}, { person: '' })).status).toBe(401),
  )

  test('somebody who left, or who signed out, is nobody', async () => {
    const who = done(
      await app.call(endpoints.sites.addPerson, { siteId: place.site.id }, { name: 'Gone', role: 'lead' }, { person: place.person }),
    )
    const look = async () => (await call(endpoints.blocks.list, ids, {}, { person: who.id })).status
    expect(await look()).toBe(200)
    const params = { siteId: place.site.id, personId: who.id }
    done(await app.call(endpoints.sites.removePerson, params, { rowVersion: who.rowVersion }, { person: place.person }))
    expect(await look()).toBe(404)
    await app.database.query('UPDATE sign_in SET ended_at = UTC_TIMESTAMP() WHERE person_id = ?', [who.id])
    expect(await look()).toBe(401)
  })

  // A site by itself is whose it is: there somebody of the other site is at home.
  const simple = writes.filter(({ e }) => fieldsOf(e).includes('rowVersion') && e.input.safeParse({ rowVersion: 1 }).success)
  const ofAThing = simple.filter(({ e }) => /Id(\/restore)?$/.test(e.path) && !/:siteId(\/restore)?$/.test(e.path))
  test.each(ofAThing)('nobody reaches another site’s things through their own: $name', async ({ e }) => {
    const before = await everything()
    const { status } = await call(e, { ...ids, siteId: other.site.id }, { rowVersion: 1 }, { person: other.person })
    expect(status).toBe(404)
    expect(await everything()).toBe(before)
  })
})

describe('a read', () => {
  test.each(reads)('of a site that is not there is told so: $name', async ({ e }) => {
    const { status, problem } = await call(e, { ...ids, siteId: NOBODY }, QUERY)
    expect([404, 422], problem.detail).toContain(status)
  })

  test.each(reads.filter(({ e }) => /:(watch|station|block)Id/.test(e.path)))(
    'of what belongs to another site finds nothing: $name',
    async ({ e }) => {
      const { status } = await call(e, { ...ids, siteId: other.site.id }, QUERY)
      expect([404, 422]).toContain(status)
    },
  )

  test.each(reads)('with a query that is none is refused in words: $name', async ({ e }) => {
    const { status, problem } = await call(e, ids, Object.fromEntries(fieldsOf(e).map((field) => [field, "';--"])))
    expect(status, problem.detail).toBeLessThan(500)
    if (status === 422) expect(problem.detail).not.toMatch(/Invalid (input|option)|expected/)
  })
})
