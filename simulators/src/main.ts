import { dayNumber, instantOfDay } from '@bocado/core'
import { randomUUID } from 'node:crypto'
import type { Session, Site, Station, Trap } from '@bocado/contract'
import { COUNTER, CURRENT_YEAR, inventWeather, SEASON, SITE, STATIONS } from '@bocado/demo'
import { runForecastService } from './forecastService.js'
import { runTrapCounter, type CounterSettings } from './trapCounter.js'
import { runStation, type DeviceSettings } from './weatherStation.js'

type Headers = Record<string, string>

const get = async <T>(address: string, headers: Headers = {}): Promise<T> => (await (await fetch(address, { headers })).json()) as T

/** Signs in as who owns the demonstration, as a person does there: by one press. */
async function signIn(address: string): Promise<Headers> {
  const { demo } = await get<Session>(`${address}/api/v1/session`)
  const owner = demo?.find(({ role }) => role === 'owner')
  if (!owner) throw new Error(`${address} shows no demonstration`)
  const response = await fetch(`${address}/api/v1/demo/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId: owner.id }),
  })
  const [cookie] = response.headers.getSetCookie()
  if (!response.ok || !cookie) throw new Error(`nobody is signed in: ${response.status}`)
  return { Cookie: cookie.split(';')[0] as string }
}

/** Sets a device up as a person does: issues a token for its station and hands it over. */
async function setUp(address: string, site: Site, station: Station, as: Headers): Promise<DeviceSettings> {
  const response = await fetch(`${address}/api/v1/sites/${site.id}/stations/${station.id}/token`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': randomUUID(), ...as },
    body: JSON.stringify({ simulated: true }),
  })
  if (!response.ok) throw new Error(`no token for ${station.name}: ${response.status}`)
  const { token } = (await response.json()) as { token: string }
  return { address, stationId: station.id, token }
}

/** Lets the counter of the trap that has one send; nothing where somebody took that trap away: the stations go on. */
async function setUpCounter(address: string, site: Site, as: Headers): Promise<CounterSettings | null> {
  const traps = await get<Trap[]>(`${address}/api/v1/sites/${site.id}/traps?season=${SEASON}`, as)
  const trap = traps.find(({ name }) => name === COUNTER)
  if (!trap) return null
  const response = await fetch(`${address}/api/v1/sites/${site.id}/traps/${trap.id}/token`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': randomUUID(), ...as },
    body: '{}',
  })
  if (!response.ok) throw new Error(`no token for ${trap.name}: ${response.status}`)
  const { token } = (await response.json()) as { token: string }
  return { address, trapId: trap.id, token }
}

/** Starts the two stations of the demonstration, the counter of a trap, and a forecast for each, against the server at BOCADO_ADDRESS. */
async function main(): Promise<void> {
  const address = (process.env['BOCADO_ADDRESS'] ?? '').replace(/\/$/, '')
  if (!address) throw new Error('BOCADO_ADDRESS is not set; npm run demo sets it')
  const as = await signIn(address)
  const site = (await get<Site[]>(`${address}/api/v1/sites`, as)).find(({ name }) => name === SITE.name)
  if (!site) throw new Error(`there is no ${SITE.name} at ${address}`)
  const stop = new AbortController()
  for (const signal of ['SIGTERM', 'SIGINT', 'disconnect'] as const) process.once(signal, () => stop.abort())
  const stations = await get<Station[]>(`${address}/api/v1/sites/${site.id}/stations`, as)
  const yearEnd = Date.UTC(CURRENT_YEAR + 1, 0, 1)
  const running = STATIONS.map(async (invented) => {
    const station = stations.find(({ name }) => name === invented.name)
    if (!station) throw new Error(`${SITE.name} has no station ${invented.name}`)
    const hours = inventWeather(invented, yearEnd)
    // What was seeded need not be pushed again; the day it ends in is, which changes nothing.
    const since = station.lastDay ? instantOfDay(dayNumber(station.lastDay), station.utcOffsetMinutes) : 0
    const settings = await setUp(address, site, station, as)
    await Promise.all([runStation(settings, hours, since, stop.signal), runForecastService(settings, hours, stop.signal)])
  })
  process.send?.('running')
  const counter = await setUpCounter(address, site, as)
  await Promise.all([...running, ...(counter ? [runTrapCounter(counter, stop.signal)] : [])])
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error instanceof Error ? error.message : error)
    process.exit(1)
  },
)
