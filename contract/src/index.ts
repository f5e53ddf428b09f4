import './plainErrors.js'
import { bench } from './bench.js'
import { bloom } from './bloom.js'
import { calibration } from './calibration.js'
import { demo, devices } from './devices.js'
import { library } from './library.js'
import { outcomes } from './outcomes.js'
import { places } from './places.js'
import { scouting } from './scouting.js'
import { blocks, sites } from './sites.js'
import { treatments } from './treatments.js'
import { varieties } from './varieties.js'
import { watches } from './watches.js'
import { weather } from './weather.js'

export * from './aspects.js'
export * from './bench.js'
export * from './bloom.js'
export * from './calibration.js'
export * from './common.js'
export * from './devices.js'
export * from './endpoint.js'
export * from './library.js'
export * from './openapi.js'
export * from './organisms.js'
export { plainMessage } from './plainErrors.js'
export * from './outcomes.js'
export * from './places.js'
export * from './scouting.js'
export * from './sites.js'
export * from './stations.js'
export * from './treatments.js'
export * from './variables.js'
export * from './varieties.js'
export * from './watch.js'
export * from './watchForecasts.js'
export * from './watches.js'
export * from './weather.js'

/** Every operation of the HTTP interface, by resource. */
export const endpoints = {
  sites,
  blocks,
  places,
  weather,
  watches,
  calibration,
  library,
  varieties,
  bench,
  bloom,
  scouting,
  treatments,
  outcomes,
  devices,
  demo,
}
export * from './refusals.js'
