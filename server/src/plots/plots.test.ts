import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { endpoints, type InputOf, type PlotCover } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { plots, replacement, schedule } = endpoints
const BALSAM = 'himalayan-balsam'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let sedge: string
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  sedge = done(await app.call(replacement.addWanted, at, { name: 'Sedge', begins: 'planted', spacingCm: 25, months: [9, 10] }, as)).id
})
afterAll(() => app.stop())

const mark = async (input: Partial<InputOf<typeof plots.add>> = {}) =>
  app.call(plots.add, at, { placeId: place.blockId, weeds: [BALSAM], wanted: [sedge], ...input }, as)
const look = (plotId: string, lookedOn: string, balsam: PlotCover, more: Partial<InputOf<typeof plots.look>> = {}) =>
  app.call(plots.look, at, { plotId, lookedOn, covers: [{ of: 'weed', id: BALSAM, cover: balsam }], ...more }, as)
const list = async () => done(await app.call(plots.list, at, {}, as))
const faults = (answer: Awaited<ReturnType<typeof mark>>) => answer.problem.fields?.map(({ path, message }) => `${path}: ${message}`)

describe('plots', () => {
  test('are found again, looked at over the years, and tell how cover goes', async () => {
    const ids: string[] = []
    for (const paces of [12, 30, 48]) ids.push(done(await mark({ fromWhat: 'the gatepost', bearingDeg: 240, paces })).id)
    const years: PlotCover[][] = [
      ['50-75', '25-50', '5-25'],
      ['25-50', '25-50', '5-25'],
      ['25-50', '5-25', '1-5'],
    ]
    for (const [p, covers] of years.entries())
      for (const [i, cover] of covers.entries()) done(await look(ids[p]!, `${2024 + i}-06-1${p}`, cover))
    // What was seen out of time counts where nothing else was seen in that season.
    done(await look(ids[0]!, '2025-10-20', 'under-1'))
    const { plots: all, covers } = await list()
    const own = all.filter(({ id }) => ids.includes(id))
    expect(own.map(({ number }) => number)).toEqual([1, 2, 3])
    expect(own[0]).toMatchObject({ fromWhat: 'the gatepost', bearingDeg: 240, paces: 12, sideM: 1, dueOn: '2027-06-10' })
    expect(own[0]!.plants.map(({ name }) => name)).toEqual(['Himalayan balsam', 'Sedge'])
    expect(own[0]!.looks.map(({ lookedOn }) => lookedOn)).toEqual(['2026-06-10', '2025-10-20', '2025-06-10', '2024-06-10'])
    const [line] = covers
    expect(line).toMatchObject({ of: 'weed', name: 'Himalayan balsam', worked: true })
    expect(line!.seasons.map(({ mean, plots: n }) => [Math.round(mean * 10) / 10, n])).toEqual([
      [45.8, 3],
      [30, 3],
      [11, 3],
    ])
    expect(line!.trend!.perYear).toBeCloseTo((-23.75 - 11.25 - 17.25) / 3, 6)
    expect(line!.trend!.high).toBeLessThan(0)
    // Left alone, a plot stands by itself.
    const left = done(await mark({ worked: false, number: 9 })).id
    done(await look(left, '2026-06-10', 'over-75'))
    expect((await list()).covers.map(({ worked, seasons }) => [worked, seasons.length])).toEqual([
      [true, 3],
      [false, 1],
    ])
  })

  test('a look without signal is kept once, with its photo and by whom, however often it comes', async () => {
    const { id: plotId } = done(await mark())
    const jpeg = readFileSync(new URL('../testing/point.jpg', import.meta.url)).toString('base64')
    const sent = {
      id: randomUUID(),
      photo: { jpeg, takenOn: '2026-06-10' },
      made: { at: '2026-06-10T09:00:00Z', order: 3, by: place.person },
    }
    const answers = await Promise.all(Array.from({ length: 8 }, () => look(plotId, '2026-06-10', '5-25', sent)))
    expect(new Set(answers.map((answer) => done(answer).id))).toEqual(new Set([sent.id]))
    const one = (await list()).plots.find(({ id }) => id === plotId)!
    expect(one.looks).toHaveLength(1)
    const photo = await app.get(`sites/${at.siteId}/photos/${one.looks[0]!.photoId}/jpeg`)
    expect(photo.status).toBe(200)
    const gone = done(await app.call(plots.removeLook, { ...at, plotLookId: sent.id }, { rowVersion: 1 }, as))
    expect((await list()).plots.find(({ id }) => id === plotId)!.dueOn).toBeNull()
    done(await app.call(plots.restoreLook, { ...at, plotLookId: sent.id }, { rowVersion: gone.rowVersion }, as))
    expect((await list()).plots.find(({ id }) => id === plotId)!.looks).toHaveLength(1)
    expect(await (await app.get(`sites/${at.siteId}/plots.csv`)).text()).toContain('Himalayan balsam,weed,5-25')
  })

  test('what cannot be is refused by its field, and changes nothing', async () => {
    const { id: plotId } = done(await mark({ number: 77 }))
    const before = await list()
    expect(faults(await mark({ number: 77 }))).toEqual(['number: another plot has this number on its stake'])
    expect(faults(await mark({ weeds: [], wanted: [] }))).toEqual(['weeds: say what is looked at there'])
    expect(faults(await mark({ weeds: ['no-such-weed'] }))?.[0]).toMatch(/^weeds: choose weeds/)
    expect(faults(await mark({ wanted: [randomUUID()] }))?.[0]).toMatch(/^wanted: choose plants/)
    expect(faults(await mark({ paces: 12 }))).toEqual(['fromWhat: say from where the paces are counted'])
    expect(faults(await mark({ position: { latitude: -46.2, longitude: -119.3 } }))?.[0]).toMatch(/^position: lies/)
    expect(faults(await look(plotId, '2026-06-13', '5-25'))?.[0]).toMatch(/^lookedOn: /)
    const strange = [{ of: 'wanted', id: BALSAM, cover: '5-25' }] as const
    expect(faults(await look(plotId, '2026-06-10', '5-25', { covers: [...strange] }))).toEqual(['covers.0: is no plant of this site'])
    const twice = { of: 'weed', id: BALSAM, cover: 'none' } as const
    expect(faults(await look(plotId, '2026-06-10', '5-25', { covers: [twice, twice] }))).toEqual(['covers.1: is there twice'])
    expect(await list()).toEqual(before)
  })

  test('many who mark out plots at once get stakes of their own', async () => {
    const answers = await Promise.all(Array.from({ length: 6 }, () => mark()))
    const ids = answers.map((answer) => done(answer).id)
    const numbers = (await list()).plots.flatMap(({ id, number }) => (ids.includes(id) ? [number] : []))
    expect(new Set(numbers).size).toBe(6)
  })
})

describe('what grows instead', () => {
  const plans = async () => done(await app.call(replacement.list, at, {}, as))
  const jobs = async () => done(await app.call(schedule.read, at, { season: '2026-01-01' }, as)).jobs
  const plan = (input: Partial<InputOf<typeof replacement.add>> = {}) =>
    app.call(
      replacement.add,
      at,
      {
        placeId: place.blockId,
        organismId: BALSAM,
        areaM2: 50,
        lines: [{ wantedPlantId: sedge, share: 0.5 }],
        plannedOn: '2026-09-20',
        ...input,
      },
      as,
    )

  test('amounts follow from the ground, and it is one thing with its work on the schedule', async () => {
    const meadow = done(await app.call(replacement.addWanted, at, { name: 'Meadow mix', begins: 'sown', gramsPerM2: 3 }, as)).id
    const both = {
      lines: [
        { wantedPlantId: sedge, share: 0.5 },
        { wantedPlantId: meadow, share: 0.5 },
      ],
    }
    const made = done(await plan(both))
    expect(made.lines.map(({ plants, grams }) => [plants, grams])).toEqual([
      [400, null],
      [null, 75],
    ])
    expect(made).toMatchObject({ organismName: 'Himalayan balsam', plannedOn: '2026-09-20', outOfSeason: [] })
    const job = (await jobs()).find(({ id }) => id === made.jobId)!
    expect(job).toMatchObject({ kind: 'sowing', name: 'Sedge, Meadow mix in place of Himalayan balsam' })
    // Moved on the schedule, it is moved here.
    done(await app.call(schedule.updateJob, { ...at, jobId: job.id }, { ...job, plannedOn: '2026-07-01' }, as))
    const moved = (await plans()).plans.find(({ id }) => id === made.id)!
    expect(moved).toMatchObject({ plannedOn: '2026-07-01', outOfSeason: ['Sedge'] })
    // Done here, it is done there.
    const { placeId, organismId, note } = moved
    const finished = { placeId, organismId, note, areaM2: 40, ...both, plannedOn: '2026-06-10', doneOn: '2026-06-11', rowVersion: 1 }
    const params = { ...at, replacementId: made.id }
    expect(done(await app.call(replacement.update, params, finished, as)).lines[0]!.plants).toBe(320)
    expect((await jobs()).find(({ id }) => id === made.jobId)!.doneOn).toBe('2026-06-11')
    expect((await app.call(replacement.update, params, finished, as)).status).toBe(409)
    const gone = done(await app.call(replacement.remove, params, { rowVersion: 2 }, as))
    expect((await jobs()).some(({ id }) => id === made.jobId)).toBe(false)
    done(await app.call(replacement.restore, params, { rowVersion: gone.rowVersion }, as))
    expect((await jobs()).some(({ id }) => id === made.jobId)).toBe(true)
  })

  test('what was planned keeps its plant though that leaves the list; a new plan cannot have it', async () => {
    const rush = done(await app.call(replacement.addWanted, at, { name: 'Rush', begins: 'planted', spacingCm: 50 }, as))
    const made = done(await plan({ lines: [{ wantedPlantId: rush.id, share: 1 }] }))
    done(await app.call(replacement.removeWanted, { ...at, wantedPlantId: rush.id }, { rowVersion: 1 }, as))
    const { wanted, plans: all } = await plans()
    expect(wanted.some(({ id }) => id === rush.id)).toBe(false)
    expect(all.find(({ id }) => id === made.id)!.lines).toMatchObject([{ name: 'Rush', plants: 200 }])
    expect(faults((await plan({ lines: [{ wantedPlantId: rush.id, share: 1 }] })) as never)).toEqual([
      'lines.0.wantedPlantId: choose a plant of your list',
    ])
  })

  test('what cannot be is refused by its field, and leaves no work behind', async () => {
    const before = await jobs()
    const refused = async (input: Partial<InputOf<typeof replacement.add>>) => faults((await plan(input)) as never)
    expect(await refused({ lines: [] })).toEqual(['lines: choose at least one plant'])
    expect(
      await refused({
        lines: [
          { wantedPlantId: sedge, share: 0.6 },
          { wantedPlantId: sedge, share: 0.2 },
        ],
      }),
    ).toEqual(['lines: name each plant once'])
    expect(
      (
        await refused({
          lines: [
            { wantedPlantId: sedge, share: 0.7 },
            { wantedPlantId: randomUUID(), share: 0.7 },
          ],
        })
      )?.[0],
    ).toMatch(/^lines: takes more/)
    expect(await refused({ organismId: 'no-such-weed' })).toEqual(['organismId: choose a weed of the library, or one of your own'])
    expect((await refused({ areaM2: 0 }))?.[0]).toMatch(/^areaM2: must be at least/)
    const again = await app.call(replacement.addWanted, at, { name: 'sedge', begins: 'planted' }, as)
    expect(faults(again as never)).toEqual(['name: is on the list already'])
    const wrong = await app.call(replacement.addWanted, at, { name: 'Yarrow', begins: 'planted', gramsPerM2: 2 }, as)
    expect(faults(wrong as never)).toEqual(['gramsPerM2: what is planted is not sown'])
    expect(await jobs()).toEqual(before)
  })
})
