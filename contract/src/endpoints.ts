import { account } from './account.js'
import { around } from './around.js'
import { arrivals } from './arrivals.js'
import { audit } from './audit.js'
import { bench } from './bench.js'
import { bloom } from './bloom.js'
import { calibration } from './calibration.js'
import { crew } from './crew.js'
import { crops } from './crops.js'
import { demo, devices } from './devices.js'
import { finds } from './finds.js'
import { flags } from './flags.js'
import { ground } from './ground.js'
import { harvests } from './harvests.js'
import { helping } from './helping.js'
import { living } from './living.js'
import { library } from './library.js'
import { outcomes } from './outcomes.js'
import { programmes } from './programmes.js'
import { alerts } from './alerts.js'
import { schedule } from './schedule.js'
import { rules } from './rules.js'
import { phones } from './phones.js'
import { places } from './places.js'
import { prevention } from './prevention.js'
import { privacy } from './privacy.js'
import { scouting } from './scouting.js'
import { blocks, sites } from './sites.js'
import { equipment } from './equipment.js'
import { permissions } from './permissions.js'
import { plots } from './plots.js'
import { replacement } from './replacement.js'
import { companions } from './companions.js'
import { trials } from './trials.js'
import { traps } from './traps.js'
import { treatments } from './treatments.js'
import { varieties } from './varieties.js'
import { watches } from './watches.js'
import { weather } from './weather.js'

/** Every operation of the HTTP interface, by resource. */
export const endpoints = {
  account,
  crew,
  phones,
  privacy,
  audit,
  sites,
  blocks,
  places,
  ground,
  weather,
  watches,
  calibration,
  library,
  varieties,
  bench,
  bloom,
  scouting,
  flags,
  finds,
  traps,
  treatments,
  equipment,
  permissions,
  harvests,
  crops,
  arrivals,
  helping,
  outcomes,
  trials,
  plots,
  replacement,
  companions,
  programmes,
  schedule,
  prevention,
  living,
  around,
  alerts,
  rules,
  devices,
  demo,
}
