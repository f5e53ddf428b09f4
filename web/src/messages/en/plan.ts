import { register } from '../registry.js'

/** Planning a treatment. */
export const plan = {
  'plan.title': 'Plan a treatment',
  'plan.moving': 'Change the planned treatment',
  'plan.toShelf': 'Put a product on the shelf',
  'plan.toShelfNow': 'To the shelf',
  'plan.nothingFits':
    'Nothing on the shelf is for this, and nothing is known that works by hand. Only products of your own shelf are planned here.',
  'plan.wasDone': 'What was done',
  'plan.nothingDone': 'Nothing was recorded against this in that season.',
  'plan.recordLater': 'Record something that was done',
  'plan.nothingOnShelf': 'Nothing on the shelf is for this.',
  'plan.byHand': 'Done by hand: no label asks anything of it.',
  'plan.howItIsDone': 'How it is done well',
  'plan.takeBest': 'Take that day',
  'plan.assumed':
    '{which, select, effect {The share is a guess} residualDays {The days are a guess} other {Both are guesses}} by the kind of {by, select, hand {work} other {material: type on the shelf what you know}}.',
  'plan.notForIt':
    '{count, plural, one {One product on the shelf is not for this} other {{count, number} products on the shelf are not for this}}',
  'plan.wasUsed': 'It was used: record it',
  'gate.no-way-to-act': '{name}: nothing here says that it works against this.',
  'gate.other-strain': '{name} is of another kind, which does nothing against this.',
  'gate.no-stage': '{name} reaches, by its label, none of the stages that can be reached so.',
  'gate.target-not-on-label': '{name} does not name this on its label.',
  'gate.crop-not-on-label': '{name} does not name what grows here on its label.',
  'gate.place-not-on-label': '{name} is not for such a place by its label.',
  'gate.unmapped': 'Nobody has said what {name} is: it can be planned, but what it reaches is not known, nor whether it is for this.',
  'gate.strain-not-said':
    'Nobody has said of which kind {name} is: it can be planned, but the wrong kind does nothing, and what it reaches is not known.',
  'plan.product': 'With',
  'plan.date': 'On',
  'plan.earlier': 'A day earlier',
  'plan.later': 'A day later',
  'plan.save': 'Plan it',
  'plan.move': 'Move it',
  'plan.covers':
    '{product} on {date} would stand before {share} of the infections that may come in the {days, number} {days, plural, one {day} other {days}} ahead, while its deposit lasts.',
  'bees.nobodySaid': 'Nobody has said what flowers in or beside this block: look before you treat. Bloom, Plants here.',
  'bees.until': '{name} (until about {until})',
  'bees.hazardThere':
    'Hazardous to bees, and on {date} there may flower here: {names}. From dusk to dawn only, and only if it no longer harms by then; mow what flowers the evening before.',
  'bees.forbiddenThere': 'The label forbids it in bloom, and on {date} there may flower here: {names}. It is not planned for that day.',
  'bees.noneThere': 'Nothing that was named flowers in or beside this block on {date}. Look all the same.',
  'bees.notKnown': 'Nobody knows when it flowers: {names}. Look before you treat.',
  'plan.dueNow': 'Protection is due now: the sooner it stands, the less comes through.',
  'plan.nothingAhead': 'No infection is in sight that {product} could be put before. It works before infection, not after it.',
  'plan.moved': 'Moved to {date}.',
  'plan.change': 'Change',
  'plan.reaches': '{date}: reaches {share} % ({low} to {high}) of the {generation}.',
  'plan.best': 'The most that one treatment reaches is {share}, on {date}.',
  'plan.noStage': '{product} reaches none of the stages that can be reached.',
  'plan.months': 'No coverage is given for a date: a number of the model is only guessed.',
  'plan.noWeather': 'No coverage can be given while weather is missing.',
  'plan.chart':
    'Share reached by one treatment on each day, with bounds over the past seasons. The date field and the arrows beside it choose the day.',
  'plan.how':
    'Taken as killing {effect} of what it meets{days, plural, =0 { on its day alone} one {, acting on for one day} other {, acting on for {days, number} days}}, over {seasons, plural, one {one past season} other {{seasons, number} past seasons}}.',
  'plan.intervals':
    'Re-entry after {reEntry} h, harvest after {preHarvest, plural, one {one day} other {{preHarvest, number} days}}. Wear: {protection}.',
  'jointly.open': 'Two or three days together',
  'jointly.interval': 'Apart at least',
  'jointly.label': 'as the label asks',
  'jointly.days': 'days',
  'jointly.range': 'enter 1 to 60 days',
  'jointly.finding': 'Trying the days.',
  'jointly.none': 'From today on nothing of it is in reach.',
  'jointly.take': 'Take {date}',
  'jointly.reach': '{count, plural, one {reaches} other {together reach}} {share} ({low} to {high}) of the {generation}.',
  'plan.waiting.less': 'A day later it reaches {share} less ({low} to {high}).',
  'plan.waiting.more': 'A day later it reaches {share} more ({low} to {high}).',
  'plan.waiting.either': 'A day later it reaches about as much: from {more} more to {less} less.',
  'plan.waiting.same': 'A day later it reaches as much.',
  'plan.waiting.count': 'A count first costs little, and may save it.',
  'plan.harvest.under-way':
    '{crop} is being picked since {since}. After this, {days, plural, one {one day goes} other {{days, number} days go}} by without picking: again from {from}.',
  'plan.harvest.may-begin':
    '{crop} may be ready to pick from {since} on; after this it may be picked from {from} only ({days, plural, one {one day} other {{days, number} days}} by the label).',
  'plan.planned': '{name}, planned for {date}.',
  'plan.done': '{name}, done {when}, recorded by {person}.',
  'plan.removed': '{name} removed.',
  'plan.says': '{name} planned against {organism} on {date}',
} as const

register(plan)
