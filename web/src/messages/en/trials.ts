import { register } from '../registry.js'

/** Fair trials of neighbours drawn by lot. */
export const trials = {
  'trials.title': 'Fair trials',
  'trials.one': 'Fair trial',
  'trials.none': 'None yet. Six pairs of plants, of which a lot says which is treated, tell more than a whole row beside another.',
  'trials.plan': 'Plan a fair trial',
  'trials.how':
    'Number them along the row: each two neighbours make a pair, and a lot says which of them is treated. Count before, treat, count once more on its day. A product, work by hand, a variety, a cover, a date of sowing.',
  'trials.name': 'Name of the trial',
  'trials.way': 'A way that is known',
  'trials.ownWords': 'none of these: a date, a variety',
  'trials.what': 'What is tried',
  'trials.whatHint': 'with its amount, as it is done',
  'trials.where': 'Where',
  'trials.against': 'Against',
  'trials.themselves': 'nothing: the plants themselves',
  'trials.units': 'Of',
  'trials.units.plants': 'plants',
  'trials.units.pots': 'pots',
  'trials.units.beds': 'beds',
  'trials.units.plots': 'plots',
  'trials.unit.plants': 'Plant',
  'trials.unit.pots': 'Pot',
  'trials.unit.beds': 'Bed',
  'trials.unit.plots': 'Plot',
  'trials.pairs': 'Pairs',
  'trials.measure': 'What is looked at',
  'trials.measure.count': 'how many there are',
  'trials.measure.alive': 'whether it lives',
  'trials.judgeAfter': 'Judged after',
  'trials.moves': 'It drives off or draws what comes: a scent, a decoy, a cover, a date of sowing',
  'trials.mean': 'Found on one before, about',
  'trials.power':
    'Were {wanted} taken, such a trial would find it in {share} of cases.{enough, select, yes {} other { Take more pairs, or units with more on them.}}',
  'trials.draw': 'Draw the lot',
  'trials.of':
    '{what}, {count, plural, one {one pair} other {{count, number} pairs}} of {units, select, plants {plants} pots {pots} beds {beds} other {plots}}, {place}',
  'trials.held': 'against {organism},',
  'trials.drawn': 'lot drawn {date}.',
  'trials.gone': 'There is no such trial here any more.',
  'trials.back': 'To the outcomes',
  'trials.print': 'Print the lot',
  'trials.removed': 'The trial {name} is removed.',
  'trials.lot': 'The lot',
  'trials.lotHow': 'Number the {units} along the row before anything is done. It is drawn once: another draw would be another trial.',
  'trials.treatThis': 'Treated',
  'trials.leaveThis': 'Left as it is',
  'trials.treated': 'Treat what the lot named',
  'trials.treatedOn': 'Treated on',
  'trials.treatedSave': 'It is treated',
  'trials.treatedEdit': 'Edit when it was treated',
  'trials.count.count.before': 'Count all of them before',
  'trials.count.count.after': 'Count all of them again',
  'trials.count.alive.before': 'Look at all of them before',
  'trials.count.alive.after': 'See which of them live',
  'trials.countedOn': 'Counted on',
  'trials.countSave': 'Keep the count',
  'trials.countEdit': 'Edit the count {phase, select, before {before} other {by which it is judged}}',
  'trials.missing': 'Not looked at yet: {units}.',
  'trials.lives': 'lives',
  'trials.dead': 'dead',
  'trials.movesSays':
    'Side by side it tells what is preferred: what left a treated one may sit on its neighbour. Whole beds, or other years, tell the rest.',
  'trials.next.before': 'Next: count all of them, before anything is done.',
  'trials.next.treat': 'Next: treat what the lot named, and leave the others.',
  'trials.next.wait': 'It can be judged from {date} on: what was done shows then, and no sooner.',
  'trials.next.after': 'Next: count all of them again. That count decides, and no other.',
  'trials.tooFew': 'Too few pairs had anything on them to say anything.',
  'trials.leftOut': '{count, plural, one {One pair had} other {{count, number} pairs had}} nothing on it before, and told nothing.',
  'trials.says.worked':
    'It worked: {least, select, yes {at least about {effect}} other {about {effect}}} fewer than on neighbours that were left (90 of 100 such trials: {low} to {high}).',
  'trials.says.moved':
    'About {effect} fewer than on its neighbour, which may have taken them ({low} to {high} in 90 of 100 such trials): that it is gone cannot be told side by side.',
  'trials.says.worse':
    'It did harm, or nothing to it: about {effect} more than on neighbours that were left ({low} to {high} in 90 of 100).',
  'trials.says.cannot-tell':
    'It cannot be told: {was} than on neighbours that were left, but anything from {low} to {high} fits what was counted. More pairs, or more on each, would tell.',
  'trials.change': '{share} {way, select, more {more} other {fewer}}',
  'trials.alive.worked':
    'It kept them alive: of the pairs that differ, the treated one lives in {treated, number} and the other in {check, number}. By chance alone that comes in {chance} of cases.',
  'trials.alive.worse':
    'More of what was left lives: in {check, number} of the pairs that differ, against {treated, number}. By chance alone that comes in {chance} of cases.',
  'trials.alive.cannot-tell':
    'It cannot be told: of the pairs that differ, the treated one lives in {treated, number} and the other in {check, number}; chance does as much in {chance} of cases.',
} as const
register(trials)
