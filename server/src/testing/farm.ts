import { endpoints, type Site } from '@bocado/contract'
import type { Application } from './application.js'

/** A site made for a test, with one block and one station, and a person of each kind that writes or may not. */
export interface TestSite {
  site: Site
  person: string
  viewer: string
  blockId: string
  stationId: string
}

/** A product as it is put on the shelf by its label. */
export const GRANULE = {
  name: 'Granule C',
  methods: ['granulosis-virus'],
  stages: ['young-larva'],
  effect: 0.75,
  residualDays: 8,
  labelRate: 0.1,
  rateUnit: 'L/ha' as const,
  reEntryHours: 4,
  preHarvestDays: 0,
  bees: 'none-stated' as const,
  protection: 'gloves',
}

/** Fails with the server's words where a step that a test only prepares with does not succeed. */
export function done<T>(answer: { status: number; body: T; problem: { detail: string } }): T {
  if (answer.status !== 200) throw new Error(`${answer.status}: ${answer.problem.detail}`)
  return answer.body
}

export async function startSite(app: Application, name = 'Hollin Bench', owner?: string): Promise<TestSite> {
  const { sites, blocks, weather } = endpoints
  const person = owner ?? (await app.newPerson())
  const site = done(
    await app.call(
      sites.create,
      {},
      {
        name,
        place: 'a river terrace',
        timeZone: 'America/Los_Angeles',
        units: 'us',
        latitude: 46.2,
        longitude: -119.3,
      },
      { person },
    ),
  )
  const viewer = done(await app.call(sites.addPerson, { siteId: site.id }, { name: 'Packing-house buyer', role: 'viewer' }, { person })).id
  const stationId = done(await app.call(weather.addStation, { siteId: site.id }, { name: 'Bench' }, { person })).id
  const blockId = done(
    await app.call(blocks.create, { siteId: site.id }, { name: 'Old Apples', kind: 'orchard', areaHa: 4.2, grows: 'apple' }, { person }),
  ).id
  return { site, person, viewer, blockId, stationId }
}
