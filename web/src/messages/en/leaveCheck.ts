import { register } from '../registry.js'

/** What an untreated check tells, before anything is done. */
export const leaveCheck = {
  'leave.none': 'Without a check nobody can tell later what this did from what would have come anyway.',
  'leave.some': '{names}: left untreated as a check.',
  'leave.open': 'What a check would tell',
  'leave.mean': 'Found on each {unit} before',
  'leave.units': 'Looked at in each',
  'leave.from.count': 'As it was counted on {date}.',
  'leave.from.threshold': 'As it stands at the threshold.',
  'leave.from.typed': 'Nothing was counted yet: say what you expect.',
  'leave.blocks': 'Blocks with a check',
  'leave.least': 'Told with {units} in each',
  'leave.needs': 'In each, to tell {share} fewer',
  'leave.fall': '{share} fewer',
  'leave.nothing': 'nothing',
  'leave.never': 'cannot be told',
  'leave.how':
    'Told four times in five where both are counted before and after, with what two areas differ by themselves. Under three blocks it says at most that less stood here than in the check; from three on, that it worked.',
  'leave.spread':
    '{counts, plural, =0 {How close together they sit is assumed: nobody has measured it here.} one {How close together they sit is by one count here.} other {How close together they sit is by {counts, number} counts here.}}',
  'leave.where':
    'Where: like the rest in age, kind and neighbours, not at the edge, out of what drifts, and wider than it moves in a few days. So large that it holds what is counted, with an untreated rim.',
  'leave.costs': 'A tenth of the block is {area}. What is lost there is the price of knowing.',
  'leave.weed': 'What seeds in it costs years: cut the heads off before they ripen, or leave none.',
  'leave.disease': 'What ripens in it comes into the rest: keep it small and down the wind, and leave none of what cannot be cured.',
} as const

register(leaveCheck)
