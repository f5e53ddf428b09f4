import { register } from '../registry.js'

/** A block's season looked back on, and the next one begun from it. */
export const review = {
  'carry.on': 'Watch in {season} what was watched in {from}',
  'carry.made':
    '{count, plural, =0 {Everything of it is watched already.} one {One watch stands for {season}.} other {{count, number} watches stand for {season}.}}',
  'carry.later': 'Once season {season} has begun, Windows offers to watch again what was watched in this one.',
  'carry.how': 'Blocks, organisms, thresholds and own numbers are carried over; biofixes are of their season.',

  'review.title': 'Review: {block}, season {season}',
  'review.page': 'Review of a season',
  'review.block': 'Block',
  'review.print': 'Print it',
  'review.noBlocks': 'Nothing was watched in any block this season.',
  'review.came': 'What came, and why this year',
  'review.heatOver':
    'Heat above {base} from {from} on: {sum}, {way, select, even {as in} less {{share} less than in} other {{share} more than in}} the middle of {seasons, plural, one {one past season} other {{seasons, number} past seasons}}.',
  'review.heat':
    'Heat above {base} since {from}: {sum}, {way, select, even {as in the middle of {seasons, plural, one {one past season} other {{seasons, number} past seasons}}} ahead {{days, plural, one {one day} other {{days, number} days}} ahead of the middle of {seasons, plural, one {one past season} other {{seasons, number} past seasons}}} other {{days, plural, one {one day} other {{days, number} days}} behind the middle of {seasons, plural, one {one past season} other {{seasons, number} past seasons}}}}.',
  'review.wet': 'Rain {rain}; leaves were wet for {wet} h{unknown, select, none {} other {, {unknown} h of it not known}}.',
  'review.counted':
    '{name}: at most {per100} per 100 {items} on {date}{over, select, none {} other {, {over} d over the threshold}}{times, select, none {} other {; {times} the middle of {years, plural, one {the other season} other {{years, number} other seasons}}}}.',
  'review.stood':
    '{name}: {patches, plural, one {one patch} other {{patches, number} patches}} stood{plants, select, none {} other {, plants: {plants}}}. {trend}',
  'review.notCounted': '{name}: watched, and never counted.',
  'review.checkCame': 'In the check area at most {per100}.',
  'review.winter': '{what}: {then}',
  'review.done': 'What was done, and what it took',
  'review.deed': '{date}: {name}, against {organism}, by {person}{hours, select, none {} other {, {hours} h}}',
  'review.total':
    'In all {count, plural, one {one deed} other {{count, number} deeds}}, {hours} h{bags, plural, =0 {} one {, one bag} other {, {bags, number} bags}}.',
  'review.nothingDone': 'Nothing was done here.',
  'review.picked': 'Picked: {all}.',
  'review.worked': 'What it did',
  'review.outcome': '{name}, {date}: {says}',
  'review.early': 'too early to judge before {date}.',
  'review.nothingJudged': 'Nothing was held against a check.',
  'review.own': 'In own words',
  'review.ownLabel': 'What it was like, and what comes of it',
  'review.ownWrite': 'Write something',
  'review.ownChange': 'Change it',
  'review.change': 'What to change',
  'review.nothingToChange': 'Nothing stands out.',
  'review.change.window-missed': '{name}: the {generation} window closed on {closes} with counts over the threshold and nothing done.',
  'review.change.met-nothing': '{name} on {on} met nothing that it reaches: time it by the window.',
  'review.change.did-nothing':
    '{name} on {on}: at its best it took less than half of what the check says would have come. Do something else, or at another time.',
  'review.change.count-after': '{name} on {on} can be judged by nobody: count on the day before, and again once it shows.',
  'review.change.leave-check': '{name}: leave a part untreated and count there too, else what it did stays unknown.',
  'review.change.forecast-off':
    '{name}, {event}: the library has it {days} d too {way, select, late {late} other {early}} here; take the numbers of the records.',
  'review.next': 'Dates for next season',
  'review.seen': '{name}, {event}: seen {span} in {count, plural, one {one season} other {{count, number} seasons}}',
  'review.opens': '{name}, {generation}: opens about {date} ({from} to {to}), by past seasons of weather',
  'review.usual': '{name}, {generation}: usually {months}',
  'review.open': 'To the window',
} as const

register(review)
