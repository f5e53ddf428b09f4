import { register } from '../registry.js'

/** Setting a threshold, and when it is reached. */
export const threshold = {
  'actFrom.edit': 'Change the threshold',
  'actFrom.editNamed': 'Change the threshold of {name}, {block}',
  'actFrom.per100': 'Act from, per 100 {items}',
  'actFrom.empty': 'empty: the library’s, where it has one',
  'actFrom.reason': 'Why this site differs',
  'actFrom.byStage': 'Another from a stage of the crop on',
  'actFrom.addStep': 'And another stage',
  'actFrom.from': 'From',
  'actFrom.chooseStage': 'Choose a stage',
  'actFrom.then': 'act from, per 100 {items}',
  'actFrom.withoutStep': 'Without stage {number, number}',
  'actFrom.stagesFrom':
    'Stages come from what stands where, under Bloom. While nobody has seen whether the crop is that far, the lower of the two holds.',
  'actFrom.byCost': 'Reckon it from what it costs and saves',
  'actFrom.withoutCost': 'Without this reckoning',
  'actFrom.costExplain':
    'Where what a treatment costs is as much as it saves, acting begins to pay (Pedigo, Hutchins & Higley 1986). The numbers are yours: what one per 100 {items} takes from a hectare is seldom known well.',
  'actFrom.cost': 'A treatment costs, a hectare',
  'actFrom.price': 'A kilogram sells for',
  'actFrom.loss': 'Lost a hectare, for each one per 100 {items}',
  'actFrom.control': 'The treatment prevents',
  'actFrom.lag': 'Days until it acts',
  'actFrom.doubling': 'Doubles in days',
  'actFrom.level':
    '{same, select, yes {It pays from {injury} per 100 {items}.} other {It pays from {injury} per 100 {items}; to be in time one acts from {action}.}}',
  'actFrom.take': 'Take it',
  'actFrom.picture': 'What a treatment saves by how many there are, against its cost of {cost}: they meet at {injury} per 100 {items}.',
  'actFrom.costs': 'it costs',
  'actFrom.saves': 'it saves',
  'actFrom.save': 'Set the threshold',
  'actFrom.now':
    '{sure, select, yes {Since {stage}: act from {per100} per 100 {items}.} other {Act from {per100} per 100 {items}, as from {stage} on: nobody wrote down whether the crop is that far.}}',
  'actFrom.drag': 'Threshold',
  'actFrom.dragged': '{per100} per 100 {items}',
  'actFrom.reached':
    'As it was counted since {since, select, treated {the last treatment} other {it was first counted}}, it doubles in {days, plural, one {a day} other {about {days, number} days}} and reaches the threshold about {middle} ({from} to {until, select, later {later than four weeks on} other {{until}}}).',
} as const

register(threshold)
