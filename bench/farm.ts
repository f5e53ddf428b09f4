import { endpoints } from '@bocado/contract'
import { organisms } from '@bocado/library'
import type { Application } from '@bocado/server/testing/application'
import { done, startSite, type TestSite } from '@bocado/server/testing/farm'
import { hourlyFile, importFile, preview } from '@bocado/server/testing/upload'

const { weather, watches, blocks } = endpoints

/** The moment at which every benchmark stands. */
export const NOW = '2026-06-12T14:30:00Z'

/** A site with eleven past seasons and this one, a wet night every ninth day. */
export async function startBench(app: Application, name: string): Promise<TestSite> {
  const place = await startSite(app, name)
  const file = hourlyFile(2015, '2026-06-12', (at) => ({ rain: at.getUTCDate() % 9 === 0 && at.getUTCHours() < 9 ? 1.2 : 0 }))
  await importFile(app, place, file, (await preview(app, place, file.slice(0, 200_000))).body.mapping)
  return place
}

/** Twelve members of ten days, from the hour of `NOW` on. */
const issue = () => ({
  issuedAt: '2026-06-12T14:00:00Z',
  firstHour: '2026-06-12T08:00:00Z',
  members: Array.from({ length: 12 }, (_, m) => ({
    temperature: Array.from({ length: 264 }, (_, h) => 20 + m / 4 + 6 * Math.cos((2 * Math.PI * (h - 7)) / 24)),
    humidity: Array.from({ length: 264 }, (_, h) => 65 + ((h + m) % 24)),
    rain: Array.from({ length: 264 }, (_, h) => (h > 60 && h < 68 + m ? 0.8 : 0)),
  })),
})

/** Forty watches over the whole library, a third without a biofix, and a forecast of twelve members. */
export async function watchForty(app: Application, place: TestSite): Promise<void> {
  const params = { siteId: place.site.id }
  const as = { person: place.person }
  const { token } = done(await app.call(weather.issueToken, { ...params, stationId: place.stationId }, {}, as))
  await fetch(`${app.address}/api/v1/stations/${place.stationId}/forecast-issues`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Authorization: `Bearer ${token}` },
    body: JSON.stringify(issue()),
  })
  for (let i = 0; i < 40; i++) {
    const organism = organisms[i % organisms.length]
    if (!organism) continue
    const block = done(await app.call(blocks.create, params, { name: `Block ${i}`, kind: 'orchard' }, as))
    const biofix = i % 3 === 0 ? null : `2026-05-${String(1 + (i % 28)).padStart(2, '0')}`
    done(await app.call(watches.create, params, { organismId: organism.id, blockId: block.id, season: '2026-01-01', biofix }, as))
  }
}
