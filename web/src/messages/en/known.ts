import { register } from '../registry.js'

/** What is known after several seasons: of ways to act, of organisms year by year, of the forecasts. */
export const known = {
  'known.years': 'Year by year',
  'known.skill': 'How good the forecasts were',
  'known.review': 'Review of a season',
  'known.back': 'To the outcomes',
  'known.ways': 'What each way did here',
  'known.waysHow':
    'All seasons together. Deeds in one block are no replicates of each other: only from three blocks on, each with its check, is it said that something worked.',
  'known.way': '{name} against {organism}',
  'known.trial': 'Fair trial, {place}, judged {date}:',
  'known.worked':
    'It worked: {value} than untreated (90 % interval {low} to {high}), {deeds, plural, one {one deed} other {{deeds, number} deeds}} in {areas, plural, one {one block} other {{areas, number} blocks}}.',
  'known.worse':
    'It did harm: {value} than untreated (90 % interval {low} to {high}), {deeds, plural, one {one deed} other {{deeds, number} deeds}} in {areas, plural, one {one block} other {{areas, number} blocks}}.',
  'known.lower-here':
    'Lower here than in the check: {value} (90 % interval {low} to {high}), {deeds, plural, one {one deed} other {{deeds, number} deeds}} in {areas, plural, one {one block} other {{areas, number} blocks}}.',
  'known.higher-here':
    'Higher here than in the check: {value} (90 % interval {low} to {high}), {deeds, plural, one {one deed} other {{deeds, number} deeds}} in {areas, plural, one {one block} other {{areas, number} blocks}}.',
  'known.cannot-tell':
    'It cannot be told: anything from {low} to {high} fits {deeds, plural, one {one deed} other {{deeds, number} deeds}} in {areas, plural, one {one block} other {{areas, number} blocks}}.',
  'known.notJudged':
    '{count, plural, one {Done once, and never held against a check.} other {Done {count, number} times, and never held against a check.}}',
  'known.moreAreas':
    '{count, plural, one {One more block with a check} other {{count, number} more blocks with a check}} would let it be told whether it works.',
  'known.deeds': 'Each time',
  'known.deed': '{date}, {block}',
  'known.deed.effect': '{value} ({low} to {high})',
  'known.deed.none': 'not held against a check',
  'known.deed.reached': 'reached {share} of the generation',
  'share.fewer': '{share} fewer',
  'share.more': '{share} more',
  'share.times': 'over {times} times as many',
  'known.better':
    'On {date}, {days, plural, one {one day} other {{days, number} days}} {way, select, later {later} other {earlier}}, the same would have reached {share}.',
  'known.counts': 'The counts',
  'known.also': 'Between the counts came also {what}: what is told is of all of it together.',
  'known.alsoOne': '{name} on {date}',

  'years.title': 'Year by year',
  'years.says':
    'The most that was counted each season, what stood untreated, and what it took. A check alone tells what would have come anyway.',
  'years.none': 'Nothing was counted, flagged or treated in any season yet.',
  'years.picture': '{name}, {block}: the highest count of each season per 100 {items}',
  'years.pictureStood': '{name}, {block}: what stood each season',
  'years.legend': 'dot: the highest count in the block, with its 90 % interval; diamond: in the check area; dashed: threshold',
  'years.trend.fewer':
    'Falling: {rate} each year (90 % interval {low} to {high}), {of}, {years, plural, one {one season} other {{years, number} seasons}}.',
  'years.trend.more':
    'Growing: {rate} each year (90 % interval {low} to {high}), {of}, {years, plural, one {one season} other {{years, number} seasons}}.',
  'years.trend.open':
    'It cannot be told whether it falls or grows: from {low} to {high} each year, {of}, {years, plural, one {one season} other {{years, number} seasons}}.',
  'years.trend.none': 'Fewer than three seasons that are over: no trend.',
  'years.of.counts': 'by highest counts',
  'years.of.plants': 'by plants',
  'years.of.area': 'by ground covered',
  'years.of.patches': 'by patches',
  'years.tables': 'As tables',
  'years.pictures': 'As pictures',
  'years.season': 'Season',
  'years.highest': 'Highest per 100',
  'years.check': 'In the check',
  'years.daysOver': 'Days over threshold',
  'years.stood': 'Patches, plants',
  'years.treated': 'Times treated',
  'years.hours': 'Hours',
  'years.bags': 'Bags',
  'years.patches':
    '{patches, plural, one {one patch} other {{patches, number} patches}}{plants, select, none {} other {; plants: {plants}}}',
  'years.picked': 'Picked: {all}',
  'years.pickedOne': '{season}: {kg, select, none {} other {{kg}}}{spoilt, select, none {} other { ({spoilt} spoilt)}}',

  'skill.title': 'How good the forecasts were',
  'skill.says':
    'Each season told without itself: by the library, by the records of this place, by the bloom that tells it best, by the date alone. Mean distance in days from what was seen.',
  'skill.none':
    'No day was written down yet on which anything was seen. With two seasons of the same event the forecasts can be held against them.',
  'skill.event': '{name}, {event}',
  'skill.seen.begins': 'seen {dates}',
  'skill.seen.half': 'half of it by {dates}',
  'skill.library': 'Library',
  'skill.own': 'With the records here',
  'skill.bloom': 'Best bloom',
  'skill.calendar': 'Date alone',
  'skill.what': 'Event',
  'skill.days': '{days} d',
  'skill.late': 'late by {days}',
  'skill.early': 'early by {days}',
  'skill.inside': '{share} within bounds',
  'skill.ofYears': '{count, plural, one {one season} other {{count, number} seasons}}',
  'skill.best': 'nearest',
  'skill.take': 'The records here tell it better than the library: take their numbers',
  'skill.taken': 'The block goes by its own records.',
  'skill.issued': 'What was really said beforehand',
  'skill.issuedNone': 'Nothing with a date was said before any of these days.',
  'skill.lead.days': 'up to 6 days before',
  'skill.lead.week': '7 to 13 days before',
  'skill.lead.two-weeks': '14 to 27 days before',
  'skill.lead.month': '28 days or more before',
  'skill.issuedOf':
    '{lead}: {error} d off{bias, select, none {} other {, {bias}}}, {inside} within bounds ({count, plural, one {one statement} other {{count, number} statements}})',
  'skill.oneSeason': 'One season: two are needed to tell each without itself.',
} as const

register(known)
