import { register } from '../registry.js'

/** The screen of whoever helps for a day. */
export const helping = {
  'helping.title': 'Your work today in {blocks}',
  'helping.notToday': 'You help here on {date}. Come back on that day: this page then says where, what to look for and what to mind.',
  'helping.over': 'Your day of work here is over. Thank you. Who leads {site} has what you recorded.',
  'helping.left':
    '{count, plural, =0 {Nothing is left to visit.} one {One flag is left to visit.} other {{count, number} flags are left to visit.}}',
  'helping.keepOff': 'Keep away from: {places}.',
  'helping.boots': 'Boots and tools are brushed off at the gate, before and after: seed travels in mud.',
  'helping.unsure': 'Unsure of a plant: leave it, flag it as not known, ask.',
  'helping.known': 'How to know it',
  'helping.isIt': 'It is',
  'helping.isNot': 'It is not',
  'helping.flag': '#{number} {name}',
  'helping.unknown': 'not known',
  'helping.plants': '{count, plural, one {one plant} other {{count, number} plants}}',
  'helping.done': 'done today',
  'helping.clear': 'All taken',
  'helping.clearNamed': 'All taken at #{number}',
  'helping.none': 'None seen',
  'helping.noneNamed': 'None seen at #{number}',
  'helping.lookOnly': 'Look only: do not pull, cut or touch it.',
  'helping.doesNotWork': 'Does not work',
  'helping.rest': 'Some still stand',
  'helping.restNamed': 'Some still stand at #{number}',
  'helping.plantsLeft': 'Plants left',
  'helping.took': 'Took',
  'helping.find': 'I found another',
  'helping.what': 'What it is',
  'helping.notSure': 'I am not sure',
  'helping.where': 'Where',
  'helping.count': 'Plants',
  'helping.saysWork': '#{number}: {sight, select, none {all taken} unseen {none seen} other {some still stand}}',
  'helping.saysFind': 'Found: {name}',
  'helping.on': 'Day',
  'helping.in': 'Blocks',
  'helping.drop': 'Without {name}',
  'helping.onDay': 'on {date} only',
} as const

register(helping)
