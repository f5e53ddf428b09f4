import { readFileSync } from 'node:fs'
import { endpoints } from '@bocado/contract'
import { organisms } from '@bocado/library'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { library } = endpoints

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

/** The three most typical signs of an organism in a month. */
const typicalOf = (id: string, month: number): string =>
  organisms
    .find((o) => o.id === id)!
    .about.signs.filter(({ months }) => months.includes(month))
    .sort((a, b) => b.typical - a.typical)
    .slice(0, 3)
    .map(({ part, sign }) => `${part}:${sign}`)
    .join()

describe('ten finds, of which three are nothing that the library holds', () => {
  test.each([
    ['squash-vine-borer', 'squash', 7],
    ['codling-moth', 'apple', 7],
    ['european-corn-borer', 'sweet corn', 8],
    ['pear-psylla', 'pear', 7],
    ['vine-powdery-mildew', 'grape', 7],
    ['wild-parsnip', 'meadow', 6],
    ['onion-thrips', 'onion', 8],
  ])('%s is found, and is not taken for something unknown', async (id, where, month) => {
    const found = done(await app.call(library.suspects, at, { place: where, month, seen: typicalOf(id, month) }))
    expect(found.nothingFits).toBe(false)
    const ranked = found.suspects.map((suspect) => suspect.id)
    expect(ranked.slice(0, 3)).toContain(id)
    expect(found.suspects.find((suspect) => suspect.id === 'none-of-these')?.probability ?? 0).toBeLessThan(0.25)
  })

  test.each([
    ['round galls on the leaves and flowers of an oak', 'oak', 6, 'leaf:gall,flower:gall,bud:gall'],
    ['galls along the roots of a fig', 'fig', 8, 'root:gall,leaf:scars,stem:webbing'],
    ['an orange crust on the stems of a house leek', 'house leek', 7, 'stem:orange,leaf:powder,root:ooze'],
  ])('%s: nothing fits, and it says so', async (_, where, month, seen) => {
    const found = done(await app.call(library.suspects, at, { place: where, month, seen }))
    expect(found.nothingFits).toBe(true)
    expect(found.suspects[0]).toMatchObject({ id: 'none-of-these', organism: false })
  })
})

describe('a find that nobody can name', () => {
  const jpeg = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
  const input = {
    place: 'daylily',
    blockId: null as string | null,
    seen: 'bud:distorted,bud:maggots',
    notSeen: 'leaf:holes',
    howMany: 14,
    note: 'the early ones only',
    photo: { jpeg, takenOn: '2026-06-11' },
  }

  test('is kept with what was seen, how many there were and its photo, and named later', async () => {
    const kept = done(await app.call(library.keepUnknown, at, { ...input, blockId: place.blockId }, as))
    expect(kept).toMatchObject({ foundOn: '2026-06-12', howMany: 14, namedAs: null, personName: 'Marit Solheim' })
    expect(kept.observations.map(({ part, sign, seen }) => [part, sign, seen])).toEqual([
      ['bud', 'distorted', true],
      ['bud', 'maggots', true],
      ['leaf', 'holes', false],
    ])
    expect((await app.get(`sites/${at.siteId}/photos/${kept.photoId}/jpeg`)).status).toBe(200)
    const params = { ...at, findId: kept.id }
    const named = done(await app.call(library.nameUnknown, params, { namedAs: 'swede-midge', rowVersion: kept.rowVersion }, as))
    expect(named.namedAs).toBe('swede-midge')
    const photos = done(await app.call(library.photos, at, { organismId: 'swede-midge' }))
    expect(photos.map(({ id }) => id)).toEqual([kept.photoId])
    expect((await app.call(library.nameUnknown, params, { namedAs: 'unicorn', rowVersion: named.rowVersion }, as)).status).toBe(404)
    done(await app.call(library.removeUnknown, params, { rowVersion: named.rowVersion }, as))
    expect(done(await app.call(library.unknownFinds, at, {}))).toEqual([])
  })

  test('is refused with a sign that there is not', async () => {
    expect((await app.call(library.keepUnknown, at, { ...input, photo: null, seen: 'leaf:sadness' }, as)).problem.fields?.[0]?.path).toBe(
      'seen',
    )
  })
})

test('nothing is asked that has to be touched while a plant that burns is possible', async () => {
  const stranger = done(await app.call(library.suspects, at, { place: 'meadow', month: 6, seen: 'ground:stranger' }))
  expect(stranger.burning.length).toBeGreaterThan(0)
  for (const { part, sign } of stranger.next) {
    expect(part).not.toBe('root')
    expect(['scented', 'tap-root', 'creeping', 'tubers']).not.toContain(sign)
  }
  const parsnip = done(await app.call(library.verdict, { ...at, organismId: 'tree-of-heaven' }, { answers: '' }))
  expect(parsnip.later).toEqual(['smell'])
  expect(parsnip.ask).not.toContain('smell')
})
