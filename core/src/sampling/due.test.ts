import { expect, test } from 'vitest'
import { countDue, trapDue, usualMinutes, type Countable } from './due.js'

const watch = (change: Partial<Countable> = {}): Countable => ({
  today: 100,
  urgency: 'quiet',
  opens: null,
  breedsOn: false,
  isItsMonth: false,
  last: null,
  lookAgainOn: null,
  ...change,
})
const counted = (day: number, verdict: NonNullable<Countable['last']>['verdict'] = 'stop') => ({ day, verdict })

test.each<[string, Partial<Countable>, ReturnType<typeof countDue>]>([
  ['nothing asks for it', {}, null],
  ['its window is open and nobody counted', { urgency: 'closing' }, { day: 100, because: 'window' }],
  ['its window is open and it was counted', { urgency: 'open', last: counted(95) }, { day: 102, because: 'window' }],
  ['its window opens within the week', { urgency: 'coming', opens: 107 }, { day: 100, because: 'coming' }],
  ['its window is farther off', { urgency: 'coming', opens: 108 }, null],
  ['the last count left it open', { last: counted(99, 'undecided') }, { day: 102, because: 'undecided' }],
  ['that was long ago', { last: counted(85, 'too-few') }, null],
  [
    'what was decided waits for a day',
    { urgency: 'open', lookAgainOn: 112, last: counted(98, 'act') },
    { day: 112, because: 'look-again' },
  ],
  ['it breeds on', { breedsOn: true, last: counted(90) }, { day: 97, because: 'breeds-on' }],
  ['months are all that is known', { urgency: 'unknown', isItsMonth: true, last: counted(95) }, { day: 109, because: 'months' }],
  ['it is not its month', { urgency: 'unknown', isItsMonth: false }, null],
  ['it is past', { urgency: 'past', isItsMonth: true }, null],
])('%s', (_, change, due) => expect(countDue(watch(change))).toEqual(due))

test('a trap is checked as often as it was, one without checks after a week', () => {
  expect(trapDue(100, [])).toBe(107)
  expect(trapDue(100, [102])).toBe(104)
  // One long gap, when somebody was away, does not make it rare.
  expect(trapDue(100, [103, 106, 130, 133, 136])).toBe(139)
})

test('how long it takes is said from three times on', () => {
  expect(usualMinutes([10, 20])).toBeNull()
  expect(usualMinutes([40, 10, 20])).toBe(20)
})
