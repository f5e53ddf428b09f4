import { register } from '../registry.js'

/** The hours of the days ahead, under the chosen row. */
export const board = {
  'board.title': 'Hours for {name}',
  'board.noForecast': 'No forecast is here: nothing is known of the hours ahead.',
  'board.next': 'Next: {runs}.',
  'board.run': '{day} {from} to {until} ({usable} of {members})',
  'board.nothing': 'On no day in view is there an hour for it in half of the ways the weather may go.',
  'board.costs': 'Hours go to {costs}.',
  'board.cost': '{reason} {hours, number} ({whose, select, label {its label} own {own rule} law {law} other {usual limit}})',
  'board.flowers': 'In flower there: {names}.',
  'board.wayOut':
    '{reason, select, bees {Where that is over, say so under Bloom; else mow what may be mown the evening before, or take another way.} wind {Take another way, or wait for a calmer day.} towards {Wait until it turns, keep to the part that lies further off, or take a way without drops.} rule {Take another way, or look at the rule under Site.} soil {Wait for other soil, or take a species that bears it.} other {Coarser drops, or spot by spot, are not bound by it.}}',
  'board.usable': '{date}, {from} to {until}: usable in {usable} of {members}.',
  'board.over': '{date}, {from} to {until}: over.',
  'board.others': 'Against it: {reasons}.',
  'board.blocked': '{reason} in {count}',
  'board.unknown': 'Not known in {count}.',
  'board.rules': 'Rules of this place: {names}.',
  'board.reason.rule': 'a rule',
  'board.reason.entry': 're-entry',
  'board.reason.soil': 'soil',
  'board.reason.bees': 'bees',
  'board.reason.wind': 'wind',
  'board.reason.towards': 'wind direction',
  'board.reason.inversion': 'still air',
  'board.reason.rain': 'rain',
  'board.reason.temperature': 'heat or cold',
  'board.reason.delta-t': 'too dry or damp',
  'board.reason.dark': 'dark',
  'board.reason.sun': 'sun',
} as const

register(board)
