import { register } from '../registry.js'

/** What still helps once nothing reaches an organism any more. */
export const late = {
  'late.title': 'What still helps',
  'late.help.harvest-early': 'Pick what is whole now',
  'late.help.cut-out': 'Cut back to sound tissue',
  'late.help.divide': 'Divide and re-root what is sound',
  'late.help.clear-away': 'Clear away what holds it',
  'late.help.break-its-year': 'Break its next year',
  'late.hours': '{hours} h in {place}',
  'late.on': 'On them, counted',
  'late.onHint': 'fruit, heads or bunches',
  'late.whole': 'By the count of {date}, {low} to {high} of {count, number} are whole{weight, select, none {} other {: {weight}}}.',
  'late.noWeight': 'Two harvests with weight and number tell what one weighs here; then this says it in weight as well.',
  'late.noCount': 'No count is here: nobody knows how many are whole.',
  'late.eat': 'Only what will ripen. What is bitten is eaten or frozen at once after it is cut out; it is not canned.',
  'late.replace': 'Clear it and sow something else',
  'late.frost':
    'Frost here usually by {usual}, in an early year by {early} (in {seasons, plural, one {one season} other {{seasons, number} seasons}}).',
  'late.noFrost': 'When frost comes is not known: fewer than five past seasons of the station are here.',
  'late.ripens.surely': '{name}, ripe {from} to {until}',
  'late.ripens.perhaps': '{name}, if frost is late ({from} to {until})',
  'late.bySowing': 'Sown today, of other families: {names}.',
  'late.nothingRipens': 'Nothing of other families that is sown today would ripen before frost.',
  'late.next': 'For next year: {names}.',
  'late.plan': 'Plan it',
  'late.planOne': 'Plan {name}',
  'late.record': 'Record what was picked',
} as const

register(late)
