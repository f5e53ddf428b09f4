import { endpoints, type Product } from '@bocado/contract'
import { EFFECT_BY_KIND } from '@bocado/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, GRANULE, startSite, type TestSite } from '../testing/farm.js'

const { treatments, watches, outcomes, library } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let moth: string
let granule: Product
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  moth = done(await app.call(watches.create, at, { organismId: 'codling-moth', blockId: place.blockId, season: SEASON }, as)).id
  granule = done(await app.call(treatments.addProduct, at, GRANULE, as))
})
afterAll(() => app.stop())

const plan = (means: { productId?: string; methodId?: string }) =>
  app.call(treatments.plan, at, { watchId: moth, plannedOn: '2026-06-14', ...means }, as)
const DID = { startedAt: '2026-06-11T14:00:00Z', weather: {}, note: '' }

describe('what is done by hand', () => {
  test('is planned and recorded like a product, with what was taken and without rate or area', async () => {
    const planned = done(await plan({ methodId: 'fallen-fruit' }))
    expect(planned).toMatchObject({
      productId: null,
      methodId: 'fallen-fruit',
      status: 'planned',
      name: expect.stringMatching(/fruit/i) as string,
    })
    const taken = { amount: 14.5, unit: 'kg' as const }
    const params = { ...at, treatmentId: planned.id }
    const recorded = done(await app.call(treatments.record, params, { ...DID, minutes: 40, taken, rowVersion: planned.rowVersion }, as))
    expect(recorded).toMatchObject({
      status: 'done',
      deviation: null,
      done: {
        rate: null,
        rateUnit: null,
        areaHa: null,
        minutes: 40,
        taken,
        label: null,
        reEntryUntil: null,
        does: { methods: ['fallen-fruit'], effect: EFFECT_BY_KIND.cultural, assumed: ['effect', 'residualDays'] },
      },
    })
    const corrected = done(
      await app.call(
        treatments.record,
        params,
        { ...DID, taken: { amount: 12, unit: 'kg' }, areaHa: 0.5, rowVersion: recorded.rowVersion },
        as,
      ),
    )
    expect(corrected.done).toMatchObject({ taken: { amount: 12 }, areaHa: 0.5, minutes: null })
    const found = done(await app.call(outcomes.list, at, { season: SEASON })).find(({ treatmentId }) => treatmentId === planned.id)
    expect(found).toMatchObject({ productName: recorded.name, deviation: null })
  })

  test('is changed to a product, and back, while it is only planned', async () => {
    const planned = done(await plan({ methodId: 'fallen-fruit' }))
    const params = { ...at, treatmentId: planned.id }
    const moved = done(
      await app.call(treatments.move, params, { productId: granule.id, plannedOn: '2026-06-15', rowVersion: planned.rowVersion }, as),
    )
    expect(moved).toMatchObject({ productId: granule.id, methodId: null, name: granule.name })
    const back = done(
      await app.call(treatments.move, params, { methodId: 'fallen-fruit', plannedOn: '2026-06-15', rowVersion: moved.rowVersion }, as),
    )
    expect(back).toMatchObject({ productId: null, methodId: 'fallen-fruit' })
    done(await app.call(treatments.remove, params, { rowVersion: back.rowVersion }, as))
  })

  test('names one thing, that needs no label and is for this', async () => {
    const faults = async (means: { productId?: string; methodId?: string }) => (await plan(means)).problem.fields?.[0]
    expect(await faults({})).toMatchObject({ path: 'productId', message: 'choose a product, or a method that needs none' })
    expect((await faults({ productId: granule.id, methodId: 'fallen-fruit' }))?.message).toContain('not both')
    expect((await faults({ methodId: 'granulosis-virus' }))?.message).toContain('put the product on the shelf')
    expect((await faults({ methodId: 'no-such-way' }))?.path).toBe('methodId')
    expect((await faults({ methodId: 'tillage' }))?.message).toContain('nothing here says that it works against it')
  })

  test('that the library does not know against this is recorded with the reason, and marked', async () => {
    const did = (deviationReason: string) =>
      app.call(treatments.recordUnplanned, at, { watchId: moth, methodId: 'tillage', ...DID, deviationReason }, as)
    expect((await did('')).problem.fields?.[0]).toMatchObject({ path: 'deviationReason' })
    expect(done(await did('the alleys were due'))).toMatchObject({ deviation: { because: 'no-way-to-act' }, done: { label: null } })
  })

  test('keeps its name when the own method that it was is renamed and removed', async () => {
    const method = (await (await app.get(`sites/${at.siteId}/library/methods/hand-picking/file`)).json()) as object
    const own = done(await app.call(library.saveMethod, at, { entry: { ...method, name: 'Picking at dusk' } }, as))
    const did = { watchId: moth, methodId: own.entryId, ...DID, deviationReason: 'tried it' }
    const deed = done(await app.call(treatments.recordUnplanned, at, did, as))
    expect(deed.name).toBe('Picking at dusk')
    done(await app.call(library.removeOwn, { ...at, kind: 'method', rowId: own.id }, { rowVersion: own.rowVersion }, as))
    const corrected = await app.call(
      treatments.record,
      { ...at, treatmentId: deed.id },
      { ...DID, minutes: 5, rowVersion: deed.rowVersion },
      as,
    )
    expect(done(corrected)).toMatchObject({ name: 'Picking at dusk', done: { minutes: 5 } })
  })
})

describe('what a product does that its label does not say', () => {
  test('is a guess by what it is, and is marked; a product still needs its rate and area', async () => {
    const { effect: _, residualDays: __, ...label } = GRANULE
    const guessed = done(await app.call(treatments.addProduct, at, { ...label, name: 'Half said', methods: ['granulosis-virus'] }, as))
    expect(guessed).toMatchObject({ effect: EFFECT_BY_KIND.biological, residualDays: 7, assumed: ['effect', 'residualDays'] })
    const said = done(
      await app.call(
        treatments.updateProduct,
        { ...at, productId: guessed.id },
        { ...label, name: 'Half said', methods: ['granulosis-virus'], effect: 0.5, rowVersion: guessed.rowVersion },
        as,
      ),
    )
    expect(said).toMatchObject({ effect: 0.5, assumed: ['residualDays'] })
    expect((await app.call(treatments.addProduct, at, { ...label, methods: [] }, as)).problem.fields?.[0]?.path).toBe('methods')
    const sprayed = await app.call(
      treatments.recordUnplanned,
      at,
      { watchId: moth, productId: said.id, ...DID, deviationReason: 'so it was' },
      as,
    )
    expect(sprayed.problem.fields?.[0]).toEqual({ path: 'rate', message: 'enter the rate used' })
  })
})
