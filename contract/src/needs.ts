import type { Endpoint } from './endpoint.js'
import { endpoints } from './endpoints.js'
import type { Need } from './rights.js'

type Groups = typeof endpoints
interface NeedsOf<G extends keyof Groups> {
  reads: Need
  writes: Need
  /** Operations that ask for something else than the others of their group. */
  but?: Partial<Record<keyof Groups[G], Need>>
}

/** What each operation asks of whoever calls it. */
const NEEDS: { [G in keyof Groups]: NeedsOf<G> } = {
  account: {
    reads: 'signed-in',
    writes: 'self',
    but: {
      session: 'nothing',
      signIn: 'nothing',
      signOut: 'nothing',
      askPasskey: 'nothing',
      signInByPasskey: 'nothing',
      demoSignIn: 'nothing',
      begin: 'nothing',
      lookAtLink: 'nothing',
      useLink: 'nothing',
      signInByCode: 'nothing',
    },
  },
  audit: { reads: 'lead', writes: 'lead' },
  crew: { reads: 'lead', writes: 'lead' },
  phones: { reads: 'lead', writes: 'lead', but: { pair: 'nothing' } },
  privacy: { reads: 'lead', writes: 'own' },
  sites: {
    reads: 'look',
    writes: 'lead',
    but: {
      list: 'signed-in',
      create: 'self',
      nameHolding: 'own',
      shareFirst: 'own',
      archive: 'own',
      remove: 'own',
      restore: 'own',
      typeNormals: 'tend',
      removeNormals: 'tend',
    },
  },
  blocks: {
    reads: 'look',
    writes: 'lead',
    but: { addWetEvent: 'observe', removeWetEvent: 'observe', restoreWetEvent: 'observe', addCheckArea: 'tend' },
  },
  places: { reads: 'look', writes: 'lead' },
  flags: { reads: 'look', writes: 'observe' },
  finds: {
    reads: 'look',
    writes: 'observe',
    but: { links: 'lead', addLink: 'lead', removeLink: 'lead', restoreLink: 'lead', look: 'nothing', send: 'nothing' },
  },
  traps: {
    reads: 'look',
    writes: 'tend',
    but: { check: 'observe', removeCheck: 'observe', restoreCheck: 'observe', paste: 'observe', issueToken: 'lead', endToken: 'lead' },
  },
  harvests: { reads: 'look', writes: 'observe' },
  helping: { reads: 'help', writes: 'help' },
  crops: { reads: 'look', writes: 'tend', but: { addStage: 'observe', removeStage: 'observe', restoreStage: 'observe' } },
  arrivals: { reads: 'look', writes: 'observe' },
  ground: { reads: 'look', writes: 'lead' },
  weather: {
    reads: 'look',
    writes: 'tend',
    but: {
      typeDays: 'observe',
      untypeDays: 'observe',
      addStation: 'lead',
      issueToken: 'lead',
      endToken: 'lead',
      updateStation: 'lead',
      removeStation: 'lead',
      restoreStation: 'lead',
    },
  },
  watches: { reads: 'look', writes: 'tend' },
  calibration: {
    reads: 'look',
    writes: 'tend',
    but: { addSighting: 'observe', addCatches: 'observe', removeRecord: 'observe', restoreRecord: 'observe' },
  },
  library: {
    reads: 'look',
    writes: 'tend',
    but: {
      keepUnknown: 'observe',
      nameUnknown: 'observe',
      removeUnknown: 'observe',
      restoreUnknown: 'observe',
      tellApart: 'observe',
      check: 'observe',
      removeCheck: 'observe',
      restoreCheck: 'observe',
      confirmPhoto: 'observe',
      removePhoto: 'observe',
      restorePhoto: 'observe',
    },
  },
  varieties: { reads: 'look', writes: 'observe' },
  bench: { reads: 'look', writes: 'look' },
  bloom: {
    reads: 'look',
    writes: 'observe',
    but: { addTrigger: 'treat', removeTrigger: 'treat', restoreTrigger: 'treat', follow: 'tend' },
  },
  scouting: {
    reads: 'look',
    writes: 'observe',
    but: { setRule: 'tend', removeRule: 'tend', restoreRule: 'tend', decide: 'tend', removeDecision: 'tend', restoreDecision: 'tend' },
  },
  treatments: { reads: 'look', writes: 'treat' },
  equipment: { reads: 'look', writes: 'treat' },
  permissions: { reads: 'look', writes: 'tend' },
  outcomes: { reads: 'look', writes: 'tend' },
  trials: { reads: 'look', writes: 'observe', but: { draw: 'tend', remove: 'tend', restore: 'tend' } },
  plots: { reads: 'look', writes: 'tend', but: { look: 'observe', removeLook: 'observe', restoreLook: 'observe' } },
  replacement: { reads: 'look', writes: 'tend' },
  companions: { reads: 'look', writes: 'tend' },
  rules: { reads: 'look', writes: 'lead' },
  programmes: { reads: 'look', writes: 'tend' },
  schedule: { reads: 'look', writes: 'tend' },
  prevention: { reads: 'look', writes: 'tend' },
  around: { reads: 'look', writes: 'own' },
  living: { reads: 'look', writes: 'tend', but: { readSoil: 'observe', removeReading: 'observe', restoreReading: 'observe' } },
  alerts: {
    reads: 'look',
    writes: 'look',
    but: { inbox: 'signed-in', pushKey: 'self', addDevice: 'self', removeDevice: 'self' },
  },
  devices: { reads: 'device', writes: 'device' },
  demo: { reads: 'nothing', writes: 'signed-in' },
}

const needs = new Map<Endpoint, Need>(
  Object.entries(endpoints).flatMap(([group, operations]) => {
    const { reads, writes, but = {} } = NEEDS[group as keyof Groups] as { reads: Need; writes: Need; but?: Record<string, Need> }
    return Object.entries<Endpoint>(operations).map(([name, e]): [Endpoint, Need] => [
      e,
      but[name] ?? (e.method === 'get' ? reads : writes),
    ])
  }),
)

/** What an operation of the contract asks of whoever calls it. */
export function needOf(e: Endpoint): Need {
  const need = needs.get(e)
  if (!need) throw new Error(`${e.method} ${e.path} is no operation of the contract`)
  return need
}
