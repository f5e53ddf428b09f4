import { randomUUID } from 'node:crypto'
import { endpoints, type InputOf } from '@bocado/contract'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { startApplication, type Application } from '../testing/application.js'
import { done, startSite, type TestSite } from '../testing/farm.js'

const { blocks, crew, flags, helping, places, sites, scouting, watches } = endpoints
const TODAY = '2026-06-12'
const BALSAM = 'himalayan-balsam'

let app: Application
let place: TestSite
let at: { siteId: string }
let as: { person: string }
let creek: string
let meadow: string
const ids: Record<string, string> = {}
beforeAll(async () => {
  app = await startApplication({ now: '2026-06-12T14:30:00Z' })
  place = await startSite(app)
  at = { siteId: place.site.id }
  as = { person: place.person }
  const block = async (name: string) => done(await app.call(blocks.create, at, { name, kind: 'natural-area' }, as)).id
  ;[creek, meadow] = [await block('Creek Margin'), await block('Lower Meadow')]
  const part = done(await app.call(places.create, at, { parentId: creek, level: 'patch', name: 'Below the bridge' }, as)).id
  const flag = async (name: string, placeId: string, more: Partial<InputOf<typeof flags.add>> = {}) => {
    const pin = {
      organismId: BALSAM,
      placeId,
      seenOn: '2026-06-01',
      sight: 'standing' as const,
      plants: 4,
      note: 'by Dario, last year too',
    }
    ids[name] = done(await app.call(flags.add, at, { ...pin, ...more }, as)).id
  }
  await flag('creek', creek)
  await flag('bridge', part)
  await flag('meadow', meadow)
  await flag('cleared', creek)
  done(await app.call(flags.visit, at, { flagId: ids['cleared']!, seenOn: '2026-06-05', sight: 'none' }, as))
  ids['today'] = await volunteer('Tovah Lindqvist', TODAY, [creek])
  ids['later'] = await volunteer('Volunteer of the twentieth', '2026-06-20', [creek])
})
afterAll(() => app.stop())

const volunteer = async (name: string, on: string, blockIds: string[]) =>
  done(await app.call(sites.addPerson, at, { name, role: 'volunteer', help: { on, blockIds } }, as)).id
const dayFor = (person: string, asked = '') => app.call(helping.day, at, { blocks: asked }, { person })
const work = (person: string, input: Partial<InputOf<typeof helping.work>>) =>
  app.call(helping.work, at, { flagId: ids['creek']!, sight: 'none', helpedOn: TODAY, taken: null, note: '', ...input }, { person })

describe('whoever helps for a day', () => {
  test('is told what must stay unharmed in their blocks, and of no other', async () => {
    const stays = async (placeId: string, name: string) => {
      const plant = { placeId, name, wakesOn: '04-05', sleepsOn: '08-20', harmedBy: ['cutting' as const], note: 'by the stakes' }
      return done(await app.call(endpoints.companions.add, at, plant, as))
    }
    const added = [await stays(creek, 'Marsh orchid'), await stays(meadow, 'Meadow saffron')]
    const told = [{ name: 'Marsh orchid', where: 'Creek Margin', from: '04-05', until: '08-20' }]
    expect(done(await dayFor(ids['today']!)).stays).toEqual(told)
    // Who works here sees it as they will.
    expect(done(await dayFor(place.person, creek)).stays).toEqual(told)
    for (const { id, rowVersion } of added)
      done(await app.call(endpoints.companions.remove, { ...at, companionId: id }, { rowVersion }, as))
  })

  test('is told what stands in their blocks, how to know it, and nothing of what was', async () => {
    const day = done(await dayFor(ids['today']!))
    expect(day).toMatchObject({ on: TODAY, blocks: [{ id: creek, name: 'Creek Margin' }] })
    expect(day.flags.map(({ id }) => id).sort()).toEqual([ids['creek'], ids['bridge']].sort())
    expect(day.flags[0]).toMatchObject({ blockName: 'Creek Margin', organismId: BALSAM, plants: 4, isDone: false })
    const [organism] = day.organisms
    expect(organism!.characters.length).toBeGreaterThan(0)
    expect(organism).toMatchObject({ byHand: true })
    expect(organism!.doesNotWork.map(({ what }) => what)).toContain('Pulling with pods')
    expect(JSON.stringify(day)).not.toMatch(/Dario|2026-06-01|2026-06-05/)
  })

  test('sees that on no other day, and nothing else of the site on any', async () => {
    const early = await dayFor(ids['later']!)
    expect([early.status, early.problem.detail]).toEqual([403, 'Your day of work here is 2026-06-20.'])
    for (const person of [ids['today']!, ids['later']!]) {
      const denied = [
        await app.call(blocks.list, at, {}, { person }),
        await app.call(flags.list, at, {}, { person }),
        await app.call(watches.band, at, { season: '2026-01-01' }, { person }),
        await app.call(scouting.list, at, { season: '2026-01-01' }, { person }),
        await app.call(flags.visit, at, { flagId: ids['creek']!, seenOn: TODAY, sight: 'none' }, { person }),
        await app.call(sites.addPerson, at, { name: 'Somebody', role: 'scout' }, { person }),
      ]
      expect(denied.map(({ status }) => status)).toEqual(Array(denied.length).fill(403))
    }
    const [site] = done(await app.call(sites.list, {}, {}, { person: ids['today']! }))
    expect(site!.people.map(({ id }) => id)).toEqual([ids['today']])
    expect(site!.people[0]!.help).toEqual({ on: TODAY, blockIds: [creek] })
  })

  test('records what was taken, once however often it is sent, in their own name and blocks', async () => {
    const id = randomUUID()
    const sent = { id, sight: 'standing' as const, plants: 2, taken: { amount: 9, unit: 'pieces' as const }, minutes: 12 }
    for (let i = 0; i < 3; i++) expect(done(await work(ids['today']!, sent)).id).toBe(id)
    const { flags: all } = done(await app.call(flags.list, at, {}, as))
    const flag = all.find((one) => one.id === ids['creek'])!
    expect(flag.visits).toHaveLength(2)
    expect(flag.last).toMatchObject({ seenOn: TODAY, plants: 2, minutes: 12, personName: 'Tovah Lindqvist' })
    expect(done(await dayFor(ids['today']!)).flags.find((one) => one.id === ids['creek'])).toMatchObject({ isDone: true, plants: 2 })
    expect((await work(ids['today']!, { flagId: ids['meadow']! })).problem.fields?.[0]?.path).toBe('blockId')
    expect((await work(ids['today']!, { helpedOn: '2026-06-11' })).problem.fields?.[0]).toEqual({
      path: 'helpedOn',
      message: 'you help here on 2026-06-12',
    })
    expect((await work(ids['later']!, { helpedOn: '2026-06-20' })).status).toBe(422)
    expect((await work(ids['today']!, { sight: 'none', plants: 3 })).problem.fields?.[0]?.path).toBe('plants')
  })

  test('flags what is found; of what they are not sure it is not known', async () => {
    const find = (input: Partial<InputOf<typeof helping.find>>) =>
      app.call(helping.find, at, { blockId: creek, helpedOn: TODAY, note: 'by the alder', ...input }, { person: ids['today']! })
    const { id } = done(await find({ plants: 3 }))
    const { flags: all } = done(await app.call(flags.list, at, {}, as))
    expect(all.find((one) => one.id === id)).toMatchObject({ organismId: null, state: 'found', last: { plants: 3, note: 'by the alder' } })
    expect((await find({ blockId: meadow })).problem.fields?.[0]?.path).toBe('blockId')
  })

  test('only looks at what is not taken out by hand, or may not be touched', async () => {
    const known = async (organismId: string) => {
      done(await app.call(flags.add, at, { organismId, placeId: meadow, seenOn: '2026-06-01', sight: 'standing', plants: 2 }, as))
      return done(await dayFor(place.person, meadow)).organisms.find(({ id }) => id === organismId)
    }
    const knotweed = await known('japanese-knotweed')
    expect(knotweed).toMatchObject({ byHand: false })
    expect(knotweed!.hazards.map(({ group }) => group)).toContain('spread')
    // It is dug out, and burns whoever touches it.
    expect(await known('giant-hogweed')).toMatchObject({ byHand: false })
    expect(await known('garlic-mustard')).toMatchObject({ byHand: true })
  })

  test('who works here always sees the day as it will be shown, of the blocks that are named', async () => {
    const day = done(await dayFor(place.person, meadow))
    expect(day.blocks.map(({ name }) => name)).toEqual(['Lower Meadow'])
    expect(day.flags.map(({ id }) => id)).toContain(ids['meadow'])
    expect(day.flags.every(({ blockId }) => blockId === meadow)).toBe(true)
    expect(done(await dayFor(place.person)).blocks).toEqual([])
  })
})

describe('a volunteer', () => {
  const add = (input: Partial<InputOf<typeof sites.addPerson>>) =>
    app.call(sites.addPerson, at, { name: 'Another volunteer', role: 'volunteer', ...input }, as)
  test('needs a day and blocks of the site; nobody else is held to one', async () => {
    expect((await add({})).problem.fields?.[0]).toEqual({ path: 'help', message: 'choose the day and the blocks' })
    expect((await add({ help: { on: TODAY, blockIds: [] } })).problem.fields?.[0]?.path).toBe('help.blockIds')
    expect((await add({ help: { on: TODAY, blockIds: [randomUUID()] } })).problem.fields?.[0]?.path).toBe('help.blockIds')
    const scout = done(await add({ role: 'scout', help: { on: TODAY, blockIds: [creek] } }))
    expect(scout.help).toBeNull()
    const params = { ...at, personId: scout.id }
    const asked = { name: 'Another volunteer', role: 'volunteer' as const, rowVersion: scout.rowVersion }
    const changed = done(await app.call(sites.changePerson, params, { ...asked, help: { on: '2026-06-13', blockIds: [meadow] } }, as))
    expect(changed).toMatchObject({ role: 'volunteer', help: { on: '2026-06-13', blockIds: [meadow] } })
    const scoutAgain = done(await app.call(sites.changePerson, params, { ...asked, role: 'scout', rowVersion: changed.rowVersion }, as))
    expect(scoutAgain.help).toBeNull()
  })

  test('is invited with the day', async () => {
    const invite = (help: InputOf<typeof crew.invite>['help']) =>
      app.call(crew.invite, at, { name: 'A third volunteer', role: 'volunteer', help }, as)
    expect((await invite(null)).problem.fields?.[0]?.path).toBe('help')
    const { token } = done(await invite({ on: TODAY, blockIds: [creek, meadow] }))
    const come = { token, signInName: 'third.volunteer', password: 'a long enough one 4 me' }
    done(await app.call(endpoints.account.useLink, {}, come as never))
    const [person] = done(await app.call(sites.list, {}, {}, as))
      .find(({ id }) => id === at.siteId)!
      .people.filter(({ name }) => name === 'A third volunteer')
    expect(person).toMatchObject({ role: 'volunteer', help: { on: TODAY, blockIds: [creek, meadow] } })
  })
})
