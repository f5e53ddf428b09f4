import { register } from '../registry.js'

/** What was picked, and what has to wait. */
export const harvest = {
  'harvest.title': 'Harvest',
  'harvest.sum': 'Harvest, {weight} this season',
  'harvest.add': 'Record a harvest',
  'harvest.line': 'What was picked',
  'harvest.hint': 'As you would say it: {example}',
  'harvest.example': '3.2 kg, 14 fruit, {place}, 3 spoilt by {organism}',
  'harvest.exampleUs': '7 lb, 14 fruit, {place}, 3 spoilt by {organism}',
  'harvest.says': 'Harvest: {what}',
  'harvest.where': 'Where',
  'harvest.day': 'Picked on',
  'harvest.pieces': '{count, plural, one {one piece} other {{count, number} pieces}}',
  'harvest.spoilt': '{count, plural, =0 {none spoilt} one {one spoilt} other {{count, number} spoilt}}',
  'harvest.spoiltBy': '{spoilt} by {organism}',
  'harvest.understood': 'Picked {what}.',
  'harvest.in': '{what} in {place}',
  'harvest.asNote': 'Kept as a note: {note}',
  'harvest.nothing': 'Say how much or how many, such as 3.2 kg or 14 fruit.',
  'harvest.wait': '{place}: not before {date}, by the label of {name}.',
  'harvest.tooEarly':
    'Too early by the label of {name}: harvest there from {date}. Keep it apart; it is neither for eating nor for selling.',
  'harvest.by': '{date}, recorded by {person}',
  'harvest.correct': 'Correct the harvest of {date}',
  'harvest.removeOne': 'Remove the harvest of {date}, {what}',
  'harvest.removed': 'The harvest of {date} is removed.',
  'harvest.more': '{count, plural, one {One earlier} other {{count, number} earlier}}',
}
register(harvest)
