import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { varieties, bloom } = endpoints

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
type Look = Omit<InputOf<typeof varieties.add>, 'blockId'>
const look = (variety: string, hit: number, more: Partial<Look> = {}): Look => ({
  organismId: 'apple-scab',
  variety,
  part: 'fruit',
  lookedOn: '2025-08-20',
  looked: 100,
  hit,
  ...more,
})
const add = (input: Look) => app.call(varieties.add, at(), { ...input, blockId: place.blockId }, as())
const here = async (organismId = 'apple-scab') => done(await app.call(varieties.get, at(), { organismId }))

describe('how varieties bore it here', () => {
  test('is kept with its season, and compared with what stood beside it', async () => {
    const kept = done(await add(look('Lane Russet', 6, { libraryVariety: 'scab-resistant varieties', note: 'north rows' })))
    expect(kept).toMatchObject({ season: '2025-01-01', blockName: 'Old Apples', degree: null, personName: 'Marit Solheim' })
    done(await add(look('Bench Early', 48, { lookedOn: '2025-08-22' })))
    done(await add(look('Lane Russet', 4, { lookedOn: '2024-08-19', libraryVariety: 'scab-resistant varieties' })))
    done(await add(look('Bench Early', 40, { lookedOn: '2024-08-19' })))
    const { looks, standings } = await here()
    expect(looks.map(({ lookedOn }) => lookedOn)).toEqual(['2025-08-22', '2025-08-20', '2024-08-19', '2024-08-19'])
    expect(standings).toHaveLength(2)
    expect(standings[0]).toMatchObject({
      variety: 'Lane Russet',
      libraryVariety: 'scab-resistant varieties',
      looked: 200,
      hit: 10,
      places: 2,
      besideOthers: { places: 2, verdict: 'less' },
    })
    expect(standings[1]).toMatchObject({ variety: 'Bench Early', besideOthers: { verdict: 'more' } })
  })

  test('counts each part of the plant by itself', async () => {
    expect(done(await add(look('Lane Russet', 90, { part: 'leaf', degree: 5 }))).degree).toBe(5)
    const { standings } = await here()
    expect(standings.map(({ part, variety }) => `${part} ${variety}`).sort()).toEqual([
      'fruit Bench Early',
      'fruit Lane Russet',
      'leaf Lane Russet',
    ])
    expect(standings.find(({ part }) => part === 'leaf')!.besideOthers).toBeNull()
  })

  test('a name in other letters is the same variety, at every organism of the site', async () => {
    const other = done(await add(look('lane russet', 3, { organismId: 'codling-moth' })))
    expect(other.variety).toBe('Lane Russet')
    expect((await here('codling-moth')).names).toEqual(['Bench Early', 'Lane Russet'])
    expect((await here('codling-moth')).looks).toHaveLength(1)
  })

  test('is taken away and brought back; not beside the same entered anew', async () => {
    const { looks } = await here()
    const { id, rowVersion } = looks[0]!
    const gone = done(await app.call(varieties.remove, { ...at(), lookId: id }, { rowVersion }, as()))
    expect((await here()).looks).toHaveLength(looks.length - 1)
    const again = done(await add(look('Bench Early', 44, { lookedOn: '2025-08-22' })))
    const refused = await app.call(varieties.restore, { ...at(), lookId: id }, { rowVersion: gone.rowVersion }, as())
    expect(refused.status).toBe(422)
    expect(refused.problem.detail).toContain('entered again meanwhile')
    done(await app.call(varieties.remove, { ...at(), lookId: again.id }, { rowVersion: again.rowVersion }, as()))
    expect(done(await app.call(varieties.restore, { ...at(), lookId: id }, { rowVersion: gone.rowVersion }, as())).hit).toBe(48)
  })

  test.each([
    ['more hit than looked at', look('Old Keeper', 101), 'hit', 'cannot be more than were looked at'],
    ['none looked at', look('Old Keeper', 0, { looked: 0 }), 'looked', 'whole number from 1'],
    ['a day to come', look('Old Keeper', 1, { lookedOn: '2026-06-13' }), 'lookedOn', 'today is 2026-06-12'],
    ['words that the library does not say', look('Old Keeper', 1, { libraryVariety: 'blue ones' }), 'libraryVariety', 'scab-resistant'],
    ['the same once more', look('BENCH EARLY', 1, { lookedOn: '2025-08-22' }), 'lookedOn', 'Old Apples is recorded already'],
    ['a degree of fruit', look('Old Keeper', 1, { degree: 5 }), 'degree', 'share of a leaf'],
    ['a weed', look('Old Keeper', 1, { organismId: 'creeping-thistle' }), 'organismId', 'is a weed'],
  ])('refuses %s and keeps nothing', async (_, input, path, words) => {
    const before = await here()
    const { status, problem } = await add(input)
    expect(status).toBe(422)
    expect(problem.fields![0]!.path).toBe(path)
    expect(problem.fields![0]!.message).toContain(words)
    expect(await here()).toEqual(before)
  })

  test('goes out as a file, all organisms together, quoted where it has to be', async () => {
    done(await add(look('Old Keeper', 2, { lookedOn: '2023-08-20', note: 'by the pump, "north" rows' })))
    const answer = await app.get(`sites/${place.site.id}/variety-looks.csv`)
    expect(answer.headers.get('content-type')).toContain('text/csv')
    const lines = (await answer.text()).split('\r\n')
    expect(lines[0]).toBe('date,block,organism,variety,part,looked,hit,degree_percent,note,observer')
    expect(lines).toContain('2023-08-20,Old Apples,Apple scab,Old Keeper,fruit,100,2,,"by the pump, ""north"" rows",Marit Solheim')
    expect(lines.some((line) => line.includes('Codling moth,Lane Russet'))).toBe(true)
    expect(lines.slice(1).map((line) => line.slice(0, 10))).toEqual(
      lines
        .slice(1)
        .map((line) => line.slice(0, 10))
        .sort()
        .reverse(),
    )
  })

  test('is corrected at the version that was seen, and not into one that stands already', async () => {
    const kept = done(await add(look('Stone Keeper', 9, { lookedOn: '2025-09-01' })))
    const other = done(await add(look('Stone Keeper', 3, { lookedOn: '2025-09-02' })))
    const { organismId: _, ...fields } = look('Stone Keeper', 11, { lookedOn: '2025-09-01', note: 'counted again' })
    const change = (id: string, changes: object, rowVersion: number) =>
      app.call(varieties.update, { ...at(), lookId: id }, { ...fields, ...changes, blockId: place.blockId, rowVersion }, as())
    expect(done(await change(kept.id, {}, kept.rowVersion))).toMatchObject({ hit: 11, note: 'counted again', rowVersion: 2 })
    expect((await change(kept.id, { hit: 12 }, kept.rowVersion)).status).toBe(409)
    expect((await change(kept.id, { hit: 101 }, 2)).problem.fields?.[0]?.path).toBe('hit')
    expect((await change(other.id, {}, other.rowVersion)).problem.fields?.[0]?.path).toBe('lookedOn')
  })

  test('comes in from a file such as goes out: all of it or none, and what is there already once', async () => {
    const before = (await here()).looks.length
    const bring = (csv: string) => app.call(varieties.importLooks, at(), { csv }, as())
    const lines = [
      'date,block,organism,variety,part,looked,hit,degree_percent,note',
      '2024-08-01,Old Apples,Apple scab,Bench Early,leaf,50,4,"12,5",the "low" rows',
      '2024-08-01,old apples,apple-scab,Stone Keeper,fruit,100,2,,',
    ]
    const wrong = await bring(
      [...lines, '2024-08-01,Nowhere,Apple scab,X,fruit,10,1,,', '2024-08-01,Old Apples,Apple scab,X,fruit,10,11,,'].join('\n'),
    )
    expect(wrong.problem.fields?.map(({ message }) => message)).toEqual([
      'line 4: there is no block Nowhere here',
      'line 5, hit: cannot be more than were looked at',
    ])
    expect((await here()).looks).toHaveLength(before)
    expect(done(await bring(lines.join('\r\n')))).toEqual({ added: 2, known: 0 })
    expect((await here()).looks.find(({ variety, part }) => variety === 'Bench Early' && part === 'leaf')).toMatchObject({
      degree: 12.5,
      note: 'the "low" rows',
    })
    const out = await (await app.get(`sites/${at().siteId}/variety-looks.csv`)).text()
    expect(done(await bring(out))).toEqual({ added: 0, known: out.trim().split(/\r?\n/).length - 1 })
    expect((await bring('date;block\n')).problem.detail).toContain('is missing')
  })

  test('another site sees none of it', async () => {
    const other = await startSite(app, 'Lower Terrace')
    const theirs = done(await app.call(varieties.get, { siteId: other.site.id }, { organismId: 'apple-scab' }))
    expect(theirs).toEqual({ looks: [], standings: [], names: [] })
    const { id, rowVersion } = (await here()).looks[0]!
    const params = { siteId: other.site.id, lookId: id }
    expect((await app.call(varieties.remove, params, { rowVersion }, { person: other.person })).status).toBe(404)
  })
})

test('a bloom that was removed is not brought back beside the same entered anew', async () => {
  const input = { plantId: 'common-lilac', event: 'first-open' as const, seenFrom: '2026-04-20' }
  const first = done(await app.call(bloom.add, at(), input, as()))
  const gone = done(await app.call(bloom.remove, { ...at(), recordId: first.id }, { rowVersion: first.rowVersion }, as()))
  done(await app.call(bloom.add, at(), input, as()))
  const { status, problem } = await app.call(bloom.restore, { ...at(), recordId: first.id }, { rowVersion: gone.rowVersion }, as())
  expect(status).toBe(422)
  expect(problem.detail).toContain('entered again meanwhile')
})
