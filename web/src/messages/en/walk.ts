import { register } from '../registry.js'

/** What to go and look at. */
export const walk = {
  'walk.title':
    '{count, plural, =0 {Nothing to go and look at today} one {One thing to look at today} other {{count, number} things to look at today}}',
  'walk.takes':
    '{minutes, plural, =0 {} other {about {minutes, number} min}}{unknown, plural, =0 {} one {{minutes, plural, =0 {} other {, and }}one of which nobody knows how long it takes} other {{minutes, plural, =0 {} other {, and }}{unknown, number} of which nobody knows how long they take}}',
  'walk.none': 'No window is open or about to be, no count is left open, and no trap or flag is due.',
  'walk.count': 'Count {name}',
  'walk.trap': 'Check {name}',
  'walk.plots': 'Look at {count, plural, one {plot} other {{count, number} plots:}} {numbers}',
  'walk.flags': 'Look at {count, plural, one {flag} other {{count, number} flags:}} {numbers}',
  'walk.arrival': 'Look at what came in: {name}',
  'walk.apart': 'came {date}, root and stem not looked at yet',
  'walk.apartOver': 'its time apart is over {date}',
  'walk.alternative': 'Nothing was found last time: try {where}; {hour}.',
  'walk.short': 'Hours are short',
  'walk.hours': 'There are',
  'walk.otherwise': 'For what nobody timed, take',
  'walk.byRank':
    'First what has rank 1, then 2 and 3; of the same rank what stands in flower or pod, what gets away, and what is due longest.',
  'walk.noRanks': 'Nothing is left out as long as no block has a rank: say which come first.',
  'walk.rank': 'rank {rank}',
  'walk.rankNone': 'no rank',
  'walk.spreads': 'Gets away from here',
  'walk.spreadsNot': 'Stays here',
  'walk.spreadsOne':
    '{block}: {spreads, select, yes {what grows here gets away by water, edge or machines; say that it stays} other {what grows here stays; say that it gets away by water, edge or machines}}',
  'walk.kit': 'Sheet for a work day',
  'walk.kitOne': '{block}: sheet for a work day',
  'walk.left': 'Left undone',
  'walk.calendar': 'Two weeks as a calendar file',
  'walk.calendarName': '{site}, walks',
  'walk.go.arrival': 'To what came in',
  'walk.go.count': 'Count now',
  'walk.go.trap': 'To the trap',
  'walk.go.plots': 'To the plots',
  'walk.go.flags': 'To the flags',
  'walk.goOne': '{what}, {block}',
  'walk.because.look-again': 'what was left is to be looked at again',
  'walk.because.undecided': 'the last count left it open',
  'walk.because.window': 'its window is open',
  'walk.because.coming': 'its window opens within a week',
  'walk.because.breeds-on': 'it breeds on',
  'walk.because.months': 'about this month, by months',
  'walk.last': 'last {date}',
  'walk.since': 'due since {date}',
  'walk.never': 'not looked at yet',
  'walk.minutes': '{minutes, number} min',
  'walk.soon': 'Within a week',
  'walk.how':
    'Counted weekly while a window is open or about to be, every other week where only months are known, again after three days where a count was left open; traps as often as they were; flags on their day. How long it takes is the middle of your own times, from three on. Printed, it has a sheet to tally on; it is typed in by rows on the count screen.',
}
register(walk)
