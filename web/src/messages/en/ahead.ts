import { register } from '../registry.js'

/** What the years would bring to a weed under several ways of working. */
export const ahead = {
  'ahead.title': 'What the years would bring',
  'ahead.of': '{name}, {block}: what the years would bring',
  'ahead.next': 'Next year {low} to {high} of them, in nine of ten runs.',
  'ahead.instead': 'What shall grow in its place?',
  'ahead.open': 'What the years would bring',
  'ahead.none':
    'Of this weed no plants were counted in any season that is over. Say at its flags how many stood, and the years can be reckoned.',
  'ahead.how':
    'Lives of {form, select, annual {a weed of one year} biennial {a weed of two years} clonal {a weed with spreading roots} other {a woody weed}}, drawn from what is usual and weighed by the counts of {seasons}. What is usual comes from common knowledge: the bounds hold four of five runs, not every year that may come.',
  'ahead.first': 'A first picture; it is being smoothed.',
  'ahead.soFar': 'Passes a season so far',
  'ahead.found': 'Found by a pass',
  'ahead.lying': 'What is taken in flower is left lying',
  'ahead.arrivals': 'Comes from elsewhere',
  'ahead.arrivals.none': 'nothing',
  'ahead.arrivals.some': 'a little each year',
  'ahead.arrivals.much': 'much each year',
  'ahead.minutes': 'Minutes for a plant',
  'ahead.minutesOwn': 'by your own visits',
  'ahead.ways': 'Way of working',
  'ahead.way.none': 'Nothing is done',
  'ahead.way.one': 'One pass a season',
  'ahead.way.two': 'Two passes',
  'ahead.way.three': 'Three passes',
  'ahead.way.seeders': 'Two passes, only what will seed',
  'ahead.way.own': 'Own programme',
  'ahead.own': 'Passes of each year',
  'ahead.ownHow': 'Drag a number up or down, or use the arrow keys.',
  'ahead.ownFrom': '{year} on',
  'ahead.picture': 'Plants by year: {way} with its bounds, the other ways beside it',
  'ahead.few': 'Few after {p50, plural, one {one year} other {{p50, number} years}} ({from} to {to}).',
  'ahead.notFew': 'Not few within {years, plural, one {one year} other {{years, number} years}} in half of the runs.',
  'ahead.later': 'later',
  'ahead.gone': 'Nothing left after {years, plural, one {one year} other {{years, number} years}} in {share} of the runs.',
  'ahead.watch': 'As long as it comes from elsewhere it stays few at best: then watch.',
  'ahead.bank': 'What lies in the soil lives for about {years, plural, one {one year} other {{years, number} years}} more.',
  'ahead.bankLong': 'What lies in the soil outlives the years that are looked at.',
  'ahead.work': 'To take in all: about {all}, next year {first}; that is {hours} h, next year {firstHours} h.',
  'ahead.bags': 'Bags to carry: about {all, number}, next year {first, number}.',
  'ahead.money': 'In money for the hours: {all}, next year {first}.',
  'ahead.missed':
    'One season missed, the year after next: about {more} more to take{later, plural, =0 {} one {, one year later} other {, {later, number} years later}}.',
  'ahead.half': 'This leaves more than doing nothing would: thinned plants seed more. Do it all, or leave it.',
} as const

register(ahead)
