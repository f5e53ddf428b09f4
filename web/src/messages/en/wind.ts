import { register } from '../registry.js'

/** Where the wind comes from, and what it must not carry to. */
export const wind = {
  'wind.said': 'wind {wind}{from, select, none {} other { from {from}}}',
  'wind.saidFrom': 'wind from {from}',
  'wind.from': 'Wind from',
  'wind.notNoted': 'not noted',
  'wind.there': '{name}, {away}',
  'wind.within': 'within it: {name}, whatever the wind',
  'wind.arc': '{from, select, all {from any side} other {from {from} to {to}}}: {there}',
  'wind.kind.water': 'water',
  'wind.kind.hives': 'hives',
  'wind.kind.neighbour': 'a neighbour',
  'wind.kind.sensitive': 'something sensitive',
  'wind.kind.way': 'a way',
  'wind.kind.other': 'something else',
  'wind.closed': 'Closed while the wind blows {arcs}.',
  'wind.notForecast': 'The forecast gives no direction of the wind: leave it while it blows {arcs}.',
  'wind.mustNot': 'The wind must not blow {arcs}.',
  'wind.more': '{arcs}; {count} more on the job sheet',
  'wind.carries': 'Wait: from there it carries to {names}.',
} as const

register(wind)
