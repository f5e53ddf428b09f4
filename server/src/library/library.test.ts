import { readFileSync } from 'node:fs'
import { endpoints, plantParts, signKinds, type InputOf } from '@bocado/contract'
import { findOrganism } from '@bocado/library'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'
import { hourlyFile, importFile, preview } from '../testing/upload.js'

const { library, watches } = endpoints
const SEASON = '2026-01-01'

let app: Application
let place: TestSite
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  const file = hourlyFile(2020, '2026-06-12')
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
})
afterAll(() => app.stop())

const at = () => ({ siteId: place.site.id })
const as = () => ({ person: place.person })
const suspects = async (input: InputOf<typeof library.suspects>) => done(await app.call(library.suspects, at(), input))

describe('from sign to suspects', () => {
  test.each([
    ['a squash that wilts with sawdust at its foot', { place: 'squash', month: 7, seen: 'plant:wilt,stem:frass' }, 'squash-vine-borer'],
    [
      'a squash that wilts at noon without',
      { place: 'squash', month: 7, seen: 'plant:wilt', notSeen: 'stem:frass,leaf:eggs,leaf:holes' },
      'cause-drought',
    ],
    ['tomato tops gone and large droppings', { place: 'tomatoes', month: 8, seen: 'leaf:missing,leaf:frass' }, 'tomato-hornworm'],
    ['notches in strawberry leaves at night', { place: 'strawberry', month: 7, seen: 'leaf:notches', hour: 'night' }, 'black-vine-weevil'],
    ['blind broccoli with twisted hearts', { place: 'broccoli', month: 7, seen: 'bud:distorted,plant:blind' }, 'swede-midge'],
    ['half-moon scars on plums after bloom', { place: 'plum', month: 5, seen: 'fruit:scars,fruit:drop' }, 'plum-curculio'],
    ['silver streaks in onions', { place: 'onion', month: 7, seen: 'leaf:silvering' }, 'onion-thrips'],
    ['a carpet in the woods in March', { place: 'woods', month: 3, seen: 'ground:carpet' }, 'lesser-celandine'],
    ['all plants scorched on one May morning', { place: 'bean', month: 5, seen: 'leaf:scorch,flower:dead' }, 'cause-frost'],
    ['a stranger in the meadow with divided leaves', { place: 'meadow', month: 6, seen: 'ground:stranger,leaf:divided' }, 'wild-parsnip'],
    [
      'a blotched hollow stem on the stream bank',
      { place: 'stream bank', month: 6, seen: 'stem:mottled,stem:hairy,plant:tall' },
      'giant-hogweed',
    ],
    ['a smooth spotted stem in the ditch', { place: 'ditch', month: 5, seen: 'stem:mottled,leaf:divided' }, 'poison-hemlock'],
    ['a vine with orange roots in the woods', { place: 'woods', month: 9, seen: 'stem:twining,root:orange' }, 'oriental-bittersweet'],
    ['a fleshy mat between vegetables', { place: 'vegetables', month: 7, seen: 'leaf:fleshy,plant:mat' }, 'common-purslane'],
    ['three-edged grass in the lawn', { place: 'lawn', month: 7, seen: 'leaf:grassy,stem:angled' }, 'yellow-nutsedge'],
    ['twisted leaves in several kinds of plants', { place: 'lettuce', month: 6, seen: 'leaf:curl,plant:stunting' }, 'cause-herbicide'],
  ] as const)('%s', async (_, input, first) => {
    const { suspects: ranked } = await suspects(input)
    expect(ranked.slice(0, 2).map(({ id }) => id)).toContain(first)
    expect(ranked[0]!.tells.length).toBeGreaterThan(0)
  })

  test('asks for the observation that parts them, and takes its answer', async () => {
    const before = await suspects({ place: 'squash', month: 7, seen: 'plant:wilt' })
    const [next] = before.next
    expect(next!.gain).toBeGreaterThan(0.05)
    expect(next!.shownBy[0]!.tell.length).toBeGreaterThan(5)
    const pair = `${next!.part}:${next!.sign}`
    const seen = await suspects({ place: 'squash', month: 7, seen: `plant:wilt,${pair}` })
    const not = await suspects({ place: 'squash', month: 7, seen: 'plant:wilt', notSeen: pair })
    const name = next!.shownBy[0]!.name
    const of = (s: typeof seen): number => s.suspects.find((x) => x.name === name)?.probability ?? 0
    expect(of(seen)).toBeGreaterThan(of(before))
    expect(of(not)).toBeLessThan(of(before))
  })

  test.each(['meadow', 'stream bank', 'vegetables', 'woods', 'lawn', 'orchard', 'ditch'])(
    'a stranger in the %s is narrowed down by questions that part the suspects, to one that stands out',
    async (place) => {
      const first = await suspects({ place, month: 6, seen: 'ground:stranger' })
      expect(first.next[0]!.gain).toBeGreaterThan(0.3)
      // It is taken to be the suspect that the list has last of those that count, and every question is answered as that one would.
      const truth = first.suspects
        .flatMap(({ id, probability }) => (probability > 0.05 ? (findOrganism(id) ?? []) : []))
        .filter(({ about }) => about.signs[0]!.months.includes(6))
        .at(-1)!
      const [seen, notSeen] = [['ground:stranger'], [] as string[]]
      for (let asked = 0, { next } = first; asked < 5 && next[0] && next[0].gain > 0.05; asked++) {
        const { part, sign } = next[0]
        const shows = truth.about.signs.some((s) => s.part === part && s.sign === sign && s.typical >= 0.5 && s.months.includes(6))
        ;(shows ? seen : notSeen).push(`${part}:${sign}`)
        next = (await suspects({ place, month: 6, seen: seen.join(), notSeen: notSeen.join() })).next
      }
      const { suspects: ranked } = await suspects({ place, month: 6, seen: seen.join(), notSeen: notSeen.join() })
      expect(ranked[0]).toMatchObject({ id: truth.id })
      expect(ranked[0]!.probability).toBeGreaterThan(0.6)
    },
  )

  test('the signs that are offered for a part are those that something shows there', async () => {
    const signs = done(await app.call(library.signs, at(), {}))
    expect(signs).toContainEqual({ part: 'stem', sign: 'mottled' })
    expect(signs).not.toContainEqual({ part: 'root', sign: 'webbing' })
    expect(new Set(signs.map(({ part, sign }) => `${part}:${sign}`)).size).toBe(signs.length)
  })

  test('the hour at which it happens counts: what feeds by night is suspected more when it is seen by night', async () => {
    const of = async (hour: 'night' | 'day') =>
      (await suspects({ place: 'lettuce', month: 5, hour, seen: 'leaf:holes' })).suspects.find(({ id }) => id === 'cause-slugs')
        ?.probability ?? 0
    expect(await of('night')).toBeGreaterThan(await of('day'))
  })

  test('a suspect that burns by touch says so, one that does not says nothing', async () => {
    const { suspects: ranked } = await suspects({ place: 'stream bank', month: 7, seen: 'ground:stranger' })
    const hogweed = ranked.find(({ id }) => id === 'giant-hogweed')
    expect(hogweed!.touch.join()).toContain('Sap burns skin')
    expect(ranked.filter(({ id, touch }) => id.startsWith('cause-') && touch.length > 0)).toEqual([])
  })

  test.each([
    ['tomatoes', 'tomato', 7, 'leaf:missing', 'tomato-hornworm'],
    ['ditch', 'ditches', 6, 'stem:mottled', 'poison-hemlock'],
    ['cherry', 'cherries', 6, 'fruit:maggots', 'cherry-fruit-fly'],
  ])('%s and %s are one place', async (one, other, month, seen, id) => {
    const of = async (place: string) => (await suspects({ place, month, seen })).suspects.find((s) => s.id === id)!.probability
    expect(await of(one)).toBe(await of(other))
    expect(await of(one)).toBeGreaterThan(0.1)
  })

  test('what lives elsewhere is suspected little, and what is no sign is named', async () => {
    const { suspects: ranked } = await suspects({ place: 'carrot', month: 7, seen: 'leaf:holes' })
    expect(ranked.slice(0, 3).map(({ id }) => id)).not.toContain('imported-cabbageworm')
    const { status, problem } = await app.call(library.suspects, at(), { month: 7, seen: 'leaf:sadness' })
    expect(status).toBe(422)
    expect(problem.fields![0]).toMatchObject({ path: 'seen' })
    expect(problem.detail).toContain('leaf:sadness')
  })
})

test('signs of the library are those that the page offers', () => {
  const organism = findOrganism('codling-moth')!
  for (const { part, sign } of organism.about.signs) {
    expect(plantParts).toContain(part)
    expect(signKinds).toContain(sign)
  }
})

describe('a page of the library', () => {
  test('has the year of this site’s weather, with bounds, and the methods that reach it', async () => {
    const entry = done(await app.call(library.entry, { ...at(), organismId: 'codling-moth' }, {}))
    expect(entry.year.grade).toBe('dates')
    expect(entry.year.windows[0]!.opens.p10!).toBeLessThan(entry.year.windows[0]!.opens.p90!)
    expect(entry.year.biofix.how).toBe('expected')
    expect(entry.methods.map(({ id }) => id)).toContain('granulosis-virus')
    expect(entry.figures.find(({ path }) => path === 'hatch.heat')!.value).toBe(139)
  })

  test('of which only months are known names months, no day', async () => {
    const entry = done(await app.call(library.entry, { ...at(), organismId: 'squash-vine-borer' }, {}))
    expect(entry.year).toMatchObject({ grade: 'months', windows: [] })
    expect(entry.year.usual[0]!.months).toEqual([6, 7])
  })

  test('is found by its brief, with its watches; one that is not there is said so', async () => {
    const { id } = done(await app.call(watches.create, at(), { organismId: 'squash-bug', blockId: place.blockId, season: SEASON }, as()))
    const list = done(await app.call(library.list, at(), {}))
    expect(list.length).toBeGreaterThan(150)
    expect(list.find((brief) => brief.id === 'squash-bug')!.watches).toEqual([{ id, blockId: place.blockId }])
    const { status } = await app.call(library.entry, { ...at(), organismId: 'unicorn' }, {})
    expect(status).toBe(404)
  })
})

test('the route decides which plants stand on the band', async () => {
  const blooms = async () => new Set(done(await app.call(watches.band, at(), { season: SEASON })).blooms.map(({ plant }) => plant))
  expect((await blooms()).size).toBeGreaterThan(20)
  const { id, rowVersion } = done(await app.call(library.addToRoute, at(), { plantId: 'common-lilac', place: 'by the gate' }, as()))
  expect(await blooms()).toEqual(new Set(['common-lilac']))
  done(await app.call(library.removeFromRoute, { ...at(), rowId: id }, { rowVersion }, as()))
  expect((await blooms()).size).toBeGreaterThan(20)
  expect((await app.call(library.addToRoute, at(), { plantId: 'plastic-rose' }, as())).status).toBe(422)
})

describe('a check of identity', () => {
  /** The smallest picture: one grey point. */
  const JPEG = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
  const check = (more: Partial<InputOf<typeof library.check>> = {}) =>
    app.call(library.check, at(), { organismId: 'wild-parsnip', answers: { stem: 'here', flower: 'here', leaflet: 'here' }, ...more }, as())

  test('is kept with its verdict and photo; a photo that somebody confirmed joins the reference set', async () => {
    const photo = { jpeg: JPEG, takenOn: '2026-06-11', position: { latitude: 46.2, longitude: -119.3 } }
    const kept = done(await check({ photo, note: 'by the lower gate' }))
    expect(kept).toMatchObject({ verdict: 'matches', checkedOn: '2026-06-12', personName: 'Marit Solheim' })
    const [stored] = done(await app.call(library.photos, at(), { organismId: 'wild-parsnip' }))
    expect(stored).toMatchObject({ id: kept.photoId, reference: false, position: { latitude: 46.2 } })
    const picture = await app.get(`sites/${place.site.id}/photos/${stored!.id}/jpeg`)
    expect(picture.headers.get('content-type')).toBe('image/jpeg')
    expect(Buffer.from(await picture.arrayBuffer()).toString('base64')).toBe(JPEG)
    const params = { ...at(), rowId: stored!.id }
    const confirmed = done(await app.call(library.confirmPhoto, params, { shows: 'wild-parsnip', reference: true, rowVersion: 1 }, as()))
    expect(confirmed).toMatchObject({ reference: true, rowVersion: 2 })
    expect((await app.call(library.confirmPhoto, params, { shows: 'oak', reference: true, rowVersion: 2 }, as())).status).toBe(422)
  })

  test('against it names what it may be instead; a doubt stays a doubt', async () => {
    expect(done(await check({ answers: { flower: 'others' } }))).toMatchObject({
      verdict: 'does-not-match',
      likely: ['cow-parsnip', 'poison-hemlock'],
    })
    expect(done(await check({ answers: { stem: 'unsure' } })).verdict).toBe('unsure')
    const soFar = done(await app.call(library.verdict, { ...at(), organismId: 'wild-parsnip' }, { answers: 'stem:here' }))
    expect(soFar).toMatchObject({ verdict: 'unsure', open: ['golden-alexanders', 'cow-parsnip'] })
  })

  test.each([
    ['no answer', { answers: {} }, /at least one question/],
    ['a character that it has not', { answers: { wings: 'here' as const } }, /wings is no character/],
    [
      'a picture that was cut off',
      { photo: { jpeg: '/9j/4AAQSkZJRgABAQAAAQABAAD'.padEnd(240, 'A'), takenOn: '2026-06-01' } },
      /no whole JPEG/,
    ],
    ['no picture at all', { photo: { jpeg: 'R0lGODlh', takenOn: '2026-06-01' } }, /no JPEG/],
    ['a photo of tomorrow', { photo: { jpeg: JPEG, takenOn: '2026-06-20' } }, /future/],
  ])('%s is refused, and nothing is kept', async (_, more, message) => {
    const before = done(await app.call(library.checks, at(), { organismId: 'wild-parsnip' })).length
    const { status, problem } = await check(more)
    expect(status).toBe(422)
    expect(problem.detail).toMatch(message)
    expect(done(await app.call(library.checks, at(), { organismId: 'wild-parsnip' }))).toHaveLength(before)
  })
})

describe('an organism of the site’s own', () => {
  const file = async (id: string): Promise<Record<string, unknown>> =>
    (await (await app.get(`sites/${place.site.id}/library/organisms/${id}/file`)).json()) as Record<string, unknown>
  const save = (entry: Record<string, unknown>, rowVersion: number | null = null) =>
    app.call(library.saveOrganism, at(), { entry, rowVersion }, as())

  test('goes out, in and out again without loss, can be watched, and a change is offered to its watches', async () => {
    const given = { ...(await file('codling-moth')), name: 'Bench codling moth' }
    const { entryId, rowVersion } = done(await save(given))
    expect(entryId).toMatch(/^own-[a-z]{12}$/)
    expect(rowVersion).toBe(1)
    const out = await file(entryId)
    expect(out).toEqual({ ...given, id: entryId })
    // Its file taken in once more is no change of it by accident.
    const again = await save(out)
    expect([again.status, again.problem.detail]).toEqual([409, expect.stringContaining('Bench codling moth stands under this id already')])
    expect(done(await save(out, 1)).rowVersion).toBe(2)
    expect((await save(out, 1)).status).toBe(409)
    expect(await file(entryId)).toEqual(out)

    const input = { organismId: entryId, blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }
    const watch = done(await app.call(watches.create, at(), input, as()))
    const forecast = async () => done(await app.call(watches.band, at(), { season: SEASON })).watches.find((f) => f.watch.id === watch.id)!
    const before = await forecast()
    expect(before).toMatchObject({ organismName: 'Bench codling moth', grade: 'dates', offer: null })
    const later = structuredClone(out) as { generations: { events: { id: string; heat: { value: number } }[] }[] }
    later.generations[0]!.events.find(({ id }) => id === 'hatch')!.heat.value = 150
    done(await save(later as never, 2))
    expect((await forecast()).offer).not.toBeNull()
    const [row] = done(await app.call(library.list, at(), {})).filter(({ id }) => id === entryId)
    const remove = await app.call(
      library.removeOwn,
      { ...at(), kind: 'organism', rowId: row!.own!.id },
      { rowVersion: row!.own!.rowVersion },
      as(),
    )
    expect(remove.problem.detail).toContain('It is watched')
  })

  test.each([
    [
      'events out of order',
      (e: never) => set(e, 'generations.0.events.2.heat.value', 20),
      'entry.generations.0.events.2.heat',
      /not after/,
    ],
    [
      'thresholds the wrong way round',
      (e: never) => set(e, 'heat.upper.value', 5),
      'entry.heat.upper',
      /above the lower threshold, 10 °C, got 5 °C/,
    ],
    [
      'a stage that is not there',
      (e: never) => set(e, 'generations.0.events.2.stage', 'ghost'),
      'entry.generations.0.events.2.stage',
      /no stage ghost; use adult, egg/,
    ],
    [
      'an established number without a paper',
      (e: never) => set(e, 'heat.lower', { value: 10, unit: '°C', confidence: 'established', region: 'here', source: { kind: 'none' } }),
      'entry.heat.lower.source',
      /needs a paper/,
    ],
    ['no hazards', (e: never) => set(e, 'hazards', []), 'entry.hazards', /must have at least 1 entry/],
    ['a number as a text', (e: never) => set(e, 'heat.lower.value', 'ten'), 'entry.heat.lower.value', /must be a number, got a text/],
    ['a field that nobody knows', (e: never) => set(e, 'about.hazzards', []), 'entry.about', /no field called hazzards; take it out/],
    ['no name for its family', (e: never) => set(e, 'about.family', undefined), 'entry.about.family', /is missing; enter a text/],
    ['a month that is none', (e: never) => set(e, 'about.signs.0.months', [0, 13]), 'entry.about.signs.0.months.0', /must be at least 1/],
    ['a method that nobody has', (e: never) => set(e, 'about.reach.0.method', 'prayer'), 'entry.about.reach.0.method', /no method prayer/],
    [
      'a unit that is none',
      (e: never) => set(e, 'generations.0.events.2.heat.unit', '°F·d'),
      'entry.generations.0.events.2.heat.unit',
      /must be one of .*°C·d.*, got "°F·d"/,
    ],
  ])('with %s is refused with the path, and nothing is stored', async (_, spoil, path, message) => {
    const entry = { ...(await file('codling-moth')), name: 'Spoilt moth' }
    spoil(entry as never)
    const { status, problem } = await save(entry)
    expect(status).toBe(422)
    const field = problem.fields!.find((f) => f.path === path)
    expect(field?.message, JSON.stringify(problem.fields)).toMatch(message)
    expect(done(await app.call(library.list, at(), {})).some(({ name }) => name === 'Spoilt moth')).toBe(false)
  })

  test('a method goes out and in, is offered, and can be removed and brought back', async () => {
    const method = (await (await app.get(`sites/${place.site.id}/library/methods/hand-picking/file`)).json()) as object
    const { id, entryId } = done(await app.call(library.saveMethod, at(), { entry: { ...method, name: 'Picking with children' } }, as()))
    const named = async () => done(await app.call(library.methods, at(), {})).filter(({ id: own }) => own === entryId).length
    expect(await named()).toBe(1)
    const params = { ...at(), kind: 'method' as const, rowId: id }
    const { rowVersion } = done(await app.call(library.removeOwn, params, { rowVersion: 1 }, as()))
    expect(await named()).toBe(0)
    done(await app.call(library.restoreOwn, params, { rowVersion }, as()))
    expect(await named()).toBe(1)
  })

  test.each([
    ['numbers alone', 'Leaf miner 1', 'Leaf miner 2'],
    ['letters that no id holds', 'Яблонная моль', 'リンゴハマキ'],
  ])('names that differ in %s stand beside each other', async (_, one, other) => {
    const given = await file('codling-moth')
    const made = [done(await save({ ...given, name: one })), done(await save({ ...given, name: other }))]
    expect(new Set(made.map(({ entryId }) => entryId)).size).toBe(2)
    expect(await Promise.all(made.map(async ({ entryId }) => (await file(entryId))['name']))).toEqual([one, other])
    const method = (await (await app.get(`sites/${place.site.id}/library/methods/row-cover/file`)).json()) as object
    const net = (name: string) => app.call(library.saveMethod, at(), { entry: { ...method, name } }, as())
    const nets = [done(await net(`${one} net 1.3 mm`)), done(await net(`${other} net 0.8 mm`))]
    expect(new Set(nets.map(({ entryId }) => entryId)).size).toBe(2)
  })

  test('what another was laid over, when ids were made of names, is offered and brought back beside it', async () => {
    const given = await file('codling-moth')
    const { id, entryId } = done(await save({ ...given, name: 'Net mite 2' }))
    const was = { name: 'Net mite 1', organism_id: entryId, entry: JSON.stringify({ ...given, id: entryId, name: 'Net mite 1' }) }
    await app.database.query(
      "INSERT INTO audit (site_id, person_id, entity, entity_id, action, before_row, after_row, at) VALUES (?, ?, 'own_organism', ?, 'change', ?, ?, '2026-01-05')",
      [place.site.id, place.person, id, JSON.stringify(was), JSON.stringify({ ...was, name: 'Net mite 2' })],
    )
    const offered = async () => done(await app.call(library.overwritten, at(), {}))
    expect(await offered()).toMatchObject([{ kind: 'organism', name: 'Net mite 1', overwrittenBy: 'Net mite 2' }])
    const { auditId } = (await offered())[0]!
    const back = done(await app.call(library.bringBackOverwritten, { ...at(), auditId }, {}, as()))
    expect(back.entryId).not.toBe(entryId)
    expect((await file(back.entryId))['name']).toBe('Net mite 1')
    expect((await file(entryId))['name']).toBe('Net mite 2')
    expect(await offered()).toEqual([])
  })

  test('that was removed with its watch does not come back as a watch of nothing, and breaks no band', async () => {
    const made = done(await save({ ...(await file('codling-moth')), name: 'Passing moth' }))
    const input = { organismId: made.entryId, blockId: place.blockId, season: SEASON, biofix: '2026-05-10' }
    const watch = done(await app.call(watches.create, at(), input, as()))
    const gone = done(await app.call(watches.remove, { ...at(), watchId: watch.id }, { rowVersion: 1 }, as()))
    const row = { ...at(), kind: 'organism' as const, rowId: made.id }
    const removed = done(await app.call(library.removeOwn, row, { rowVersion: 1 }, as()))
    const undo = await app.call(watches.restore, { ...at(), watchId: watch.id }, { rowVersion: gone.rowVersion }, as())
    expect([undo.status, undo.problem.detail]).toEqual([422, expect.stringContaining('Bring that back first')])
    // As a database may hold it from before.
    await app.database.query('UPDATE watch SET deleted_at = NULL WHERE id = ?', [watch.id])
    const band = done(await app.call(watches.band, at(), { season: SEASON }))
    expect(band.watches.find((w) => w.watch.id === watch.id)!.organismName).toBe('Passing moth')
    await app.database.query('UPDATE watch SET deleted_at = NOW() WHERE id = ?', [watch.id])
    done(await app.call(library.restoreOwn, row, { rowVersion: removed.rowVersion }, as()))
    done(await app.call(watches.restore, { ...at(), watchId: watch.id }, { rowVersion: gone.rowVersion }, as()))
  })

  test('that is changed is seen everywhere at once, and is not that of another site with the same id', async () => {
    const given = await file('codling-moth')
    const { entryId } = done(await save({ ...given, name: 'Early moth' }))
    const other = await startSite(app, 'Bench across the river')
    const there = { siteId: other.site.id }
    done(await app.call(library.saveOrganism, there, { entry: { ...given, id: entryId, name: 'Late moth' } }, { person: other.person }))
    const nameAt = async (siteId: string) => done(await app.call(library.entry, { siteId, organismId: entryId }, {})).year.organismName
    expect([await nameAt(place.site.id), await nameAt(other.site.id)]).toEqual(['Early moth', 'Late moth'])
    done(await save({ ...given, id: entryId, name: 'Earlier moth' }, 1))
    expect([await nameAt(place.site.id), await nameAt(other.site.id)]).toEqual(['Earlier moth', 'Late moth'])
  })

  test('has a published schema', async () => {
    const schema = (await (await fetch(`${app.address}/api/v1/schemas/organism.json`)).json()) as { properties: object; required: string[] }
    expect(Object.keys(schema.properties)).toEqual(expect.arrayContaining(['heat', 'generations', 'about', 'hazards']))
    expect(schema.required).toContain('hazards')
    expect((await fetch(`${app.address}/api/v1/schemas/unicorn.json`)).status).toBe(404)
  })
})

/** Sets what stands at a path of an object. */
function set(target: Record<string, unknown>, path: string, value: unknown): void {
  const parts = path.split('.')
  const last = parts.pop() as string
  let node: Record<string, unknown> = target
  for (const part of parts) node = node[part] as Record<string, unknown>
  node[last] = value
}
