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
  'walk.flags': 'Look at {count, plural, one {flag} other {{count, number} flags:}} {numbers}',
  'walk.go.count': 'Count now',
  'walk.go.trap': 'To the trap',
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
