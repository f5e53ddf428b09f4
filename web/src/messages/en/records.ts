import { register } from '../registry.js'

/** Own records of a watch, and what they say of its numbers. */
export const records = {
  'typedFigure.add': 'A heat figure of one’s own',
  'typedFigure.event': 'It tells',
  'typedFigure.heat': 'Sum',
  'typedFigure.lower': 'Above',
  'typedFigure.from': 'Counted from',
  'typedFigure.source': 'Where it is from',
  'typedFigure.save': 'Go by it',
  'typedFigure.stands':
    '{name}: {heat} above {lower}, from {from, select, season {the first day of the season} other {{from}}}{source, select, none {} other {, {source}}}.',
  'typedFigure.dropNamed': 'Drop the figure of {name}',
  'typedFigure.dropped': '{name} goes by the calendar again.',
  'records.title': 'What was seen here',
  'records.none':
    'Nothing is recorded yet. Write down when you saw an event, or what a trap caught: past seasons count as well. Its numbers can then be fitted to this block; where it has none, three seasons make a clock.',
  'records.addSighting': 'Record what was seen',
  'records.addCatches': 'Record catches of a trap',
  'records.posterior':
    '{seasons, plural, one {One season puts} other {{seasons, number} seasons put}} it at {heat}, before it was {prior}. Your records carry {share} of that.',
  'records.flight':
    'The flight is spread by {sd} ({low} to {high}), before {prior}: from {catches, number} animals in {intervals, number} intervals between checks.',
  'records.skill':
    'Each season predicted without itself is off by {own} {own, plural, one {day} other {days}}, with the number before by {prior} {prior, plural, one {day} other {days}}: {better, select, yes {the records help} same {no difference yet} other {the records do not help yet}}. {inside, number} of {seasons, number} lay between the 10th and 90th percentile.',
  'records.oneSeason': 'With one season nothing can be held against it: it moves the number a little, more seasons say more.',
  'records.accepted': 'This block counts with it. A watch takes it with the new numbers, under Numbers.',
  'records.accept': 'Let this block count with it',
  'records.left.weather': '{season} is left out: weather is missing between its biofix and the day.',
  'records.left.few-catches': '{season} is left out: too few catches, or too few checks, to tell where the flight lay.',
  'records.left.biofix': '{season} is left out: its biofix is not known. Enter it in a watch of that season.',
  'records.left.before-biofix': '{season} is left out: the day lies before the biofix of that season.',
  'records.event': 'What was seen',
  'records.kind': 'How far it was',
  'records.kind.first': 'the first of it',
  'records.kind.half': 'about half',
  'records.seenOn': 'Seen on',
  'records.lookedBefore': 'Looked before without it on',
  'records.anySeason': 'Any season counts. Without the last look a week is taken for the gap.',
  'records.caughtEvent': 'Caught as they reach',
  'records.hungOn': 'Trap hung on',
  'records.checks': 'Checks, one a line: day and catch',
  'records.checksHow': 'As 2025-05-14 12, in the order of the days, one season at a time. Checks without a catch count too.',
  'records.wrongLine':
    'Line {line, number} cannot be read: {text}. Write the day, such as 2025-05-14 or 14 May 2025, then the number caught.',
  'records.seen':
    '{name}: {kind, select, first {first seen} other {about half}} {date}{before, select, none {} other {, not yet on {before}}}. {by}.',
  'records.catches':
    '{name}: {caught, number} caught at {checks, plural, one {one check} other {{checks, number} checks}}, {from} to {to}.',
  'records.showChecks': 'Show the checks',
  'records.hideChecks': 'Hide the checks',
  'records.row.before': 'Before',
  'records.row.after': 'With records',
  'records.picture': '{name}: before {prior}; seasons {seasons}; with the records {posterior}',
  'records.pictureHow': 'Heat in {unit}. Bars and lines reach from the 10th to the 90th percentile; lines show how well a season is dated.',
  'ownClock.seasons': '{count, plural, one {One season} other {{count, number} seasons}} dated: {days}.',
  'ownClock.notYet': 'From three seasons on they make a clock, from five on it can be gone by.',
  'ownClock.makes':
    'They make a clock: {heat} above {lower} from the first day of the season. Each season told without itself, it is off by {error} {error, plural, one {day} other {days}}; the mean date, {date}, by {calendar} {calendar, plural, one {day} other {days}}.',
  'ownClock.nearer': 'That is nearer than the calendar by more than chance would make it.',
  'ownClock.notNearer': 'That is not surely nearer than the calendar: go by the months.',
  'ownClock.fewSeasons': 'It takes five seasons to tell which is nearer.',
  'ownClock.take': 'Go by this clock in this block',
  'ownClock.takeNewer': 'Go by what the records say now',
  'ownClock.taken':
    'This block goes by it: own records, {seasons, number} {seasons, plural, one {season} other {seasons}}.{current, select, yes {} other { The records say something else by now.}}',
  'ownClock.drop': 'Go by the months again',
  'ownClock.dropOne': 'Go by the months again for {name}',
  'ownClock.dropped': '{name}: by the months again.',
  'ownClock.left': '{season} is left out: its weather is not known.',
} as const

register(records)
