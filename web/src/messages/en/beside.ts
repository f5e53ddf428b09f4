import { register } from '../registry.js'

/** Two ways to act, one beside the other. */
export const beside = {
  'beside.title': 'Two ways side by side',
  'beside.with': 'Beside it',
  'beside.reaches': 'Reaches',
  'beside.share': '{share} ({low} to {high})',
  'beside.stages': 'Stages',
  'beside.own': 'Here so far',
  'beside.ownNone': 'not judged against a check yet',
  'beside.ownOne':
    '{date}: {verdict, select, lowerThanCheck {{share} fewer than in the check ({low} to {high} %)} higherThanCheck {more than in the check} other {not to be told from the check}}',
  'beside.evidence': 'Known by',
  'beside.next': 'Next usable',
  'beside.on': '{date}',
  'beside.never': 'no hour in view',
  'beside.work': 'Work',
  'beside.workHere': '{hours} h in {place}',
  'beside.suits': 'Suits',
  'beside.suitsWhat': '{size}; {density}',
  'beside.waits': 'Waits',
  'beside.label': 're-entry {hours, number} h, harvest {days, plural, one {one day} other {{days, number} days}}',
  'beside.none': 'none',
  'beside.harms': 'Harms',
  'beside.provokes': 'Then',
  'beside.unknown': 'not known',
  'beside.how':
    'Hours of work are by the library for the whole block. Where less stands there, less is needed: by which size one or the other suits is said above.',
} as const

register(beside)
