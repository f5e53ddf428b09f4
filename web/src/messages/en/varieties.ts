import { register } from '../registry.js'

/** How varieties bear a pest or a disease: what the library says, and what was seen here. */
export const varieties = {
  'varieties.title': 'Varieties',
  'varieties.said': '{what}: {effect}',
  'varieties.from': '({confidence}, {source})',
  'varieties.unsaid': 'The library says nothing of how varieties differ.',
  'varieties.saidHere': 'Here: {list}.',
  'varieties.saidOne': '{variety}, {verdict}',
  'varieties.none':
    'No look at a variety is recorded here yet. Count two or more side by side in one block, in the same week: then they can be compared.',
  'varieties.how':
    'Beside others: against what stood in the same block and was looked at within a week, with what two plots differ by anyway allowed for. Treated otherwise, it is no comparison. Intervals at 90 %.',
  'varieties.column.variety': 'Variety',
  'varieties.column.looked': 'Hit, of looked at',
  'varieties.column.share': 'Share hit, to {most}',
  'varieties.column.beside': 'Beside others',
  'varieties.hitOf': '{hit} of {looked}',
  'varieties.share': '{share} ({low} to {high})',
  'varieties.beside': '{verdict}: {ratio} times as often ({low} to {high}), {places, plural, one {one comparison} other {# comparisons}}',
  'varieties.alone': 'never beside another, so not compared',
  'varieties.verdict.less': 'hit less',
  'varieties.verdict.not-separable': 'no difference that can be told',
  'varieties.verdict.more': 'hit more',
  'varieties.verdict.alone': 'not compared',
  'varieties.record': 'Record how a variety bore it',
  'varieties.block': 'In',
  'varieties.chooseBlock': 'choose the block',
  'varieties.lookedOn': 'On',
  'varieties.variety': 'Variety',
  'varieties.kind': 'One of those the library names',
  'varieties.kind.none': 'none of them',
  'varieties.part': 'Looked at',
  'varieties.looked': 'How many',
  'varieties.hit': 'Hit',
  'varieties.degree': 'How much of the leaf, of those that were hit',
  'varieties.degree.none': 'not judged',
  'varieties.note': 'Note',
  'varieties.sentence':
    '{variety} in {block}, {date}: {hit} of {looked} hit ({part}){degree, select, none {} other {, about {degree} of the leaf}}.',
  'varieties.done': 'Done',
  'varieties.looks': 'Look by look ({count})',
  'varieties.csv': 'All looks as CSV',
  'varieties.hideLooks': 'Hide the looks',
  'varieties.bring': 'Bring looks in (CSV)',
  'varieties.brought':
    '{added, plural, =0 {None was new} one {One look taken in} other {{added, number} looks taken in}}{known, plural, =0 {} other {, {known, number} known already}}.',
  'varieties.correctOne': 'Correct {variety}, {date}',
  'varieties.removeOne': 'Remove {variety}, {date}',
  'varieties.removed': '{variety} removed.',
} as const

register(varieties)
