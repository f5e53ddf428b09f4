import { register } from '../registry.js'

/** The field's words, each in a sentence or two. */
export const glossary = {
  'glossary.title': 'Words of the field',
  'glossary.explain': 'What the words mean that stand on the screens; dotted words explain themselves when they are pressed.',
  'glossary.biofix':
    'The day from which heat is counted: something seen that year, such as the first steady catch in a trap, or a fixed day where the organism has one.',
  'glossary.degree-days':
    'Warmth above the lower threshold, added up day by day. A day that averages 6 degrees above it gives 6; so many of them bring an insect or a weed from one stage to the next.',
  'glossary.lower': 'The temperature below which the organism does not develop, and no heat is counted.',
  'glossary.upper': 'The temperature above which more warmth speeds nothing up, or slows the organism down.',
  'glossary.threshold':
    'The count from which acting costs less than the harm that it prevents. It holds for a crop, a market and a season, and yours may differ from the library’s.',
  'glossary.check-area':
    'A part that is left untreated and counted the same way. It shows what would have happened anyway; without it nobody can tell a treatment from the weather.',
  'glossary.generation':
    'All that stem from one round of egg laying. Some organisms have one a year, others one after the other until autumn.',
  'glossary.re-entry': 'The time after a treatment in which nobody may enter without the protection that the label asks for.',
  'glossary.harvest': 'The least number of days between the last treatment and the harvest; the label sets it.',
  'glossary.sine':
    'How heat is made from a day’s lowest and highest temperature: as the area under a wave between the two (single), or under one wave for each half of the day (double).',
  'glossary.filled':
    'Readings that were missing and were put in from hours beside them, other stations or past years. The share says how much of a sum rests on them.',
  'glossary.members':
    'A weather forecast is made several times with small differences. Each run is a member; how far they lie apart shows how sure the forecast is.',
  'glossary.coverage': 'The share of a generation that was in a stage which the treatment reaches, while it still worked.',
  'glossary.established': 'A number from a published paper that was checked for this organism and region.',
  'glossary.approximate': 'A number that is commonly used, but not checked here: close as a rule, at times several days off.',
  'glossary.normals':
    'What each month is like on average over many years. They stand in where no weather was read, and say little of one year.',
  'glossary.wet-hours': 'Hours in which leaves are wet from rain, dew or watering. Many spores need a number of them in a row to infect.',
  'glossary.dew-point': 'The temperature to which air must cool until dew forms. The closer it is to the air’s own, the damper the air.',
  'glossary.deficit': 'How much more water the air could take up. When it is high, drops dry before they land and evaporate on the leaf.',
  'glossary.indicator':
    'A plant whose flowering tells how far the season is: what happened with it in past years happens with it again, whatever the calendar says.',
  'glossary.chill': 'Hours of cold that buds and resting stages need before warmth can wake them.',
  'glossary.henderson-tilton':
    'Efficacy from counts before and after in the treated and in the check area: the part of the decline that the check did not have (Henderson & Tilton 1955).',
  'glossary.abbott':
    'Efficacy from counts after treatment alone: how much lower the treated area stands than the check (Abbott 1925). It takes both for equal before.',
  'glossary.interval': 'The span in which the true value lies nine times of ten, as far as the counts can say.',
  'glossary.sample-unit': 'What is looked at in one go while counting: a tree, a plant, a row, a trap.',
  'glossary.residue': 'How long what was put on goes on working on what hatches or arrives later.',
  'glossary.mode':
    'In which way a product harms the organism. Products of one mode used again and again breed resistance: from one generation to the next, change it.',
  'glossary.protectant': 'Works only where it is on the leaf before the spores are: put on before the rain.',
  'glossary.curative': 'Works on an infection that has begun, within a set number of hours.',
  'glossary.offset':
    'A block may lie in a hollow or on a wall: its lowest and highest temperatures are taken as the station’s plus what you found.',
  'glossary.disruption':
    'So much of the moth’s own scent in the air that the males do not find the females. It needs area and an early start.',
  'glossary.overwinters': 'The stage and place in which the organism passes the winter, where it can often be reached.',
  'glossary.scouting': 'Going to look in a planned way: where, how many and what is counted are set before.',
} as const

register(glossary)
