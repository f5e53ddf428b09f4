import { randomUUID } from 'node:crypto'
import { endpoints, type Place, type Site } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { places, blocks, treatments, watches, sites, library } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
})
afterAll(() => app.stop())

type Part = Partial<Pick<Place, 'level' | 'areaM2' | 'plants'>> & { parentId: string; id?: string }
const add = (name: string, { level = 'row', ...rest }: Part) => app.call(places.create, at, { name, level, ...rest }, as)
const names = async (): Promise<string[]> => done(await app.call(places.list, at, {})).map(({ name }) => name)

describe('parts of a block', () => {
  test('lie within each other, the larger around the smaller, down to single plants', async () => {
    const patch = done(await add('North half', { parentId: place.blockId, level: 'patch', areaM2: 21_000 }))
    const row = done(await add('Row 1', { parentId: patch.id, areaM2: 400, plants: 62 }))
    const trees = done(await add('Trees 1 to 4', { parentId: row.id, level: 'plants', plants: 4 }))
    expect([patch.parentId, row.parentId, trees.parentId]).toEqual([place.blockId, patch.id, row.id])
    const inside = await add('Row 2', { parentId: trees.id })
    expect(inside.problem.fields).toEqual([{ path: 'level', message: 'cannot lie within Trees 1 to 4, which is smaller' }])
    const turned = await app.call(places.update, { ...at, placeId: row.id }, { ...row, level: 'pots' }, as)
    expect(turned.problem.fields?.[0]?.path).toBe('level')
  })

  test('never add up to more ground than there is', async () => {
    const south = done(await add('South half', { parentId: place.blockId, level: 'patch', areaM2: 21_000 }))
    const more = await add('A strip', { parentId: place.blockId, areaM2: 0.01 })
    expect(more.problem.detail).toBe('areaM2: is more than Old Apples has left: 0 m²')
    const [block] = done(await app.call(blocks.list, at, {}))
    const smaller = await app.call(blocks.update, { ...at, blockId: place.blockId }, { ...block!, areaHa: 4.1 }, as)
    expect(smaller.problem.detail).toBe('areaHa: is less than its parts have: 4.2 ha')
    const less = done(await app.call(places.update, { ...at, placeId: south.id }, { ...south, areaM2: 20_000 }, as))
    expect(done(await add('A strip', { parentId: place.blockId, areaM2: 1000 })).areaM2).toBe(1000)
    expect((await app.call(places.update, { ...at, placeId: south.id }, { ...less, areaM2: 20_001 }, as)).status).toBe(422)
  })

  test('go out of sight with what they lie in, and come back with it', async () => {
    const bed = done(await add('Bed', { parentId: place.blockId, level: 'bed' }))
    done(await add('Pots', { parentId: bed.id, level: 'pots' }))
    const { rowVersion } = done(await app.call(places.remove, { ...at, placeId: bed.id }, { rowVersion: bed.rowVersion }, as))
    expect(await names()).not.toContain('Pots')
    expect((await add('More pots', { parentId: bed.id, level: 'pots' })).status).toBe(404)
    done(await app.call(places.restore, { ...at, placeId: bed.id }, { rowVersion }, as))
    expect(await names()).toEqual(expect.arrayContaining(['Bed', 'Pots']))
  })

  test('are stored once, however often a device sends them', async () => {
    const sent = { parentId: place.blockId, level: 'row' as const, id: randomUUID() }
    const [first, second] = [done(await add('Row 9', sent)), done(await add('Row 9', sent))]
    expect(second).toEqual(first)
    expect((await names()).filter((name) => name === 'Row 9')).toHaveLength(1)
    expect((await add('Row 9', { parentId: place.blockId })).problem.fields).toEqual([
      { path: 'name', message: 'this name is taken; choose another' },
    ])
  })

  test('sent twenty times at once are stored once, and each time answered', async () => {
    const sent = { parentId: place.blockId, level: 'row' as const, id: randomUUID() }
    const answers = await Promise.all(Array.from({ length: 20 }, () => add('Row 10', sent)))
    expect(new Set(answers.map((answer) => done(answer).id))).toEqual(new Set([sent.id]))
    expect((await names()).filter((name) => name === 'Row 10')).toHaveLength(1)
  })

  test('that are alike are added in one go, or none of them where one does not fit', async () => {
    const bed = done(await app.call(blocks.create, at, { name: 'Long Bed', kind: 'bed', areaHa: 0.003 }, as))
    const several = (parts: object[]) =>
      app.call(places.createSeveral, at, { parentId: bed.id, parts: parts as { level: 'row'; name: string }[] }, as)
    const rows = (more: object = {}) => [1, 2, 3, 4].map((n) => ({ level: 'row', name: `Line ${n}`, plants: 6, id: randomUUID(), ...more }))
    const tooMuch = await several(rows({ areaM2: 10 }))
    expect(tooMuch.problem.fields).toMatchObject([{ path: 'parts.3.areaM2', code: 'area.more-than-left' }])
    expect(await names()).not.toContain('Line 1')
    const sent = rows()
    const [first, again] = [done(await several(sent)), done(await several(sent))]
    expect(again).toEqual(first)
    expect(first.map(({ name, plants, parentId }) => [name, plants, parentId])).toEqual([1, 2, 3, 4].map((n) => [`Line ${n}`, 6, bed.id]))
    expect((await several(rows())).problem.fields).toEqual([
      { path: 'parts.0.name', message: 'Line 1 is there already; choose another name' },
    ])
  })

  test('are no blocks: nothing can be watched in one', async () => {
    const [part] = done(await app.call(places.list, at, {}))
    const watched = await app.call(watches.create, at, { organismId: 'codling-moth', blockId: part!.id, season: SEASON }, as)
    expect(watched.problem.detail).toBe('There is no such block at this site.')
    const changed = await app.call(
      blocks.update,
      { ...at, blockId: part!.id },
      { name: 'X', kind: 'orchard', rowVersion: part!.rowVersion },
      as,
    )
    expect(changed.status).toBe(404)
  })
})

describe('a deed', () => {
  let watchId: string
  let productId: string
  let part: Place
  let blockId: string
  beforeAll(async () => {
    blockId = done(await app.call(blocks.create, at, { name: 'Young Apples', kind: 'orchard', areaHa: 2 }, as)).id
    const input = { organismId: 'codling-moth', blockId, season: SEASON, biofix: '2026-05-10' }
    watchId = done(await app.call(watches.create, at, input, as)).id
    productId = done(await app.call(treatments.addProduct, at, GRANULE, as)).id
    part = done(await add('Row 20', { parentId: blockId, areaM2: 500 }))
  })
  const input = () => ({ watchId, productId, plannedOn: '2026-06-10', note: '' })

  test('stands in the whole block unless a part of it is named', async () => {
    expect(done(await app.call(treatments.plan, at, input(), as))).toMatchObject({ placeId: blockId, placeName: 'Young Apples' })
    const planned = done(await app.call(treatments.plan, at, { ...input(), placeId: part.id }, as))
    expect(planned).toMatchObject({ placeId: part.id, placeName: 'Row 20' })
    const elsewhere = done(await app.call(blocks.create, at, { name: 'Stone Row', kind: 'vineyard', areaHa: 1.6 }, as)).id
    expect((await app.call(treatments.plan, at, { ...input(), placeId: elsewhere }, as)).problem.detail).toBe(
      'placeId: choose the block of the watch, or a part of it',
    )
    const record = { startedAt: '2026-06-10T12:00:00Z', rate: 0.1, weather: {}, note: '', rowVersion: planned.rowVersion }
    const params = { ...at, treatmentId: planned.id }
    expect((await app.call(treatments.record, params, { ...record, areaHa: 0.06 }, as)).problem.detail).toBe(
      'areaHa: is more than Row 20 has: 0.05 ha',
    )
    const done_ = done(await app.call(treatments.record, params, { ...record, areaHa: 0.05, minutes: 25 }, as))
    expect(done_.done).toMatchObject({ areaHa: 0.05, minutes: 25, doneByName: 'Marit Solheim' })
  })

  test('is stored once, however often a device sends it', async () => {
    const sent = { ...input(), id: randomUUID(), note: 'sent twice' }
    const first = done(await app.call(treatments.plan, at, sent, as))
    expect(done(await app.call(treatments.plan, at, sent, as))).toEqual(first)
    const all = done(await app.call(treatments.list, at, { season: SEASON }))
    expect(all.filter(({ note }) => note === 'sent twice')).toHaveLength(1)
    const many = { ...input(), id: randomUUID(), note: 'sent at once' }
    const answers = await Promise.all(Array.from({ length: 20 }, () => app.call(treatments.plan, at, many, as)))
    expect(new Set(answers.map((answer) => done(answer).id))).toEqual(new Set([many.id]))
    done(await app.call(treatments.remove, { ...at, treatmentId: first.id }, { rowVersion: first.rowVersion }, as))
    expect((await app.call(treatments.plan, at, sent, as)).problem.detail).toContain('was removed since')
  })
})

describe('a holding', () => {
  let second: Site
  let there: { siteId: string }
  beforeAll(async () => {
    second = done(
      await app.call(
        sites.create,
        {},
        {
          name: 'Lower Hollin',
          place: 'below',
          timeZone: 'America/Los_Angeles',
          units: 'metric',
          holdingId: place.site.holding.id,
        },
        as,
      ),
    )
    there = { siteId: second.id }
  })
  const shelf = async (site: { siteId: string }) => done(await app.call(treatments.products, site, {}))

  test('has the sites that were begun in it, and a name of its own', async () => {
    expect(second.holding).toEqual({ ...place.site.holding, sites: 2 })
    const { id: _, sites: __, ...held } = second.holding
    done(await app.call(sites.nameHolding, at, { ...held, name: 'Hollin Farms' }, as))
    const all = done(await app.call(sites.list, {}, {}, as))
    expect(all.map(({ holding }) => holding.name)).toEqual(['Hollin Farms', 'Hollin Farms'])
    expect(all.every(({ versions }) => (versions.site ?? 0) > 0)).toBe(true)
    expect((await app.call(sites.nameHolding, there, { ...held, name: 'Late' }, { person: second.people[0]!.id })).status).toBe(409)
  })

  test('has a shelf that each of its sites sees beside its own', async () => {
    const product = done(await app.call(treatments.addProduct, at, { ...GRANULE, name: 'Everywhere', shared: true }, as))
    expect((await shelf(there)).map(({ name, shared }) => [name, shared])).toEqual([['Everywhere', true]])
    expect((await shelf(at)).map(({ name }) => name)).toEqual(['Everywhere', 'Granule C'])
    const before = done(await app.call(sites.list, {}, {}, as)).find(({ id }) => id === second.id)?.versions.treatments ?? 0
    const corrected = { ...GRANULE, name: 'Everywhere', shared: true, protection: 'gloves, mask', rowVersion: product.rowVersion }
    done(await app.call(treatments.updateProduct, { ...at, productId: product.id }, corrected, as))
    expect(done(await app.call(sites.list, {}, {}, as)).find(({ id }) => id === second.id)?.versions.treatments).toBe(before + 1)
    const outside = await startSite(app, 'Quarry Gate')
    expect(await shelf({ siteId: outside.site.id })).toEqual([])
    expect(
      (await app.call(treatments.updateProduct, { siteId: outside.site.id, productId: product.id }, corrected, { person: outside.person }))
        .status,
    ).toBe(404)
  })

  test('shares an organism of its own with every site, until one watches it', async () => {
    const moth = await (await app.get(`sites/${at.siteId}/library/organisms/codling-moth/file`)).json()
    const entry = { ...(moth as Record<string, unknown>), name: 'Late moth' }
    const own = done(await app.call(library.saveOrganism, at, { entry, shared: true }, as))
    const brief = done(await app.call(library.list, there, {})).find(({ id }) => id === own.entryId)
    expect(brief).toMatchObject({ name: 'Late moth', own: { shared: true } })
    const by = { person: second.people[0]!.id }
    const blockId = done(await app.call(blocks.create, there, { name: 'Lower Row', kind: 'orchard' }, by)).id
    const watch = done(await app.call(watches.create, there, { organismId: own.entryId, blockId, season: SEASON }, by))
    await app.settled()
    const band = done(await app.call(watches.band, there, { season: SEASON }))
    expect(band.watches.map(({ organismName }) => organismName)).toEqual(['Late moth'])
    const back = { entry: { ...entry, id: own.entryId }, rowVersion: own.rowVersion, shared: false }
    expect((await app.call(library.saveOrganism, at, back, as)).problem.detail).toContain('Lower Hollin watches it, too')
    const removed = await app.call(library.removeOwn, { ...at, kind: 'organism', rowId: own.id }, { rowVersion: own.rowVersion }, as)
    expect(removed.problem.detail).toContain('It is watched')
    // Another holding may have an entry of the same id: what it watches is no concern of this one.
    const far = await startSite(app, 'Far Gate')
    const [farAt, farAs] = [{ siteId: far.site.id }, { person: far.person }]
    done(await app.call(library.saveOrganism, farAt, { entry: { ...entry, id: own.entryId } }, farAs))
    done(await app.call(watches.create, farAt, { organismId: own.entryId, blockId: far.blockId, season: SEASON }, farAs))
    done(await app.call(watches.remove, { ...there, watchId: watch.id }, { rowVersion: watch.rowVersion }, by))
    expect(done(await app.call(library.saveOrganism, at, back, as)).entryId).toBe(own.entryId)
    expect(done(await app.call(library.list, there, {})).some(({ id }) => id === own.entryId)).toBe(false)
  })
})
