import { register } from '../registry.js'

/** What is living and comes by order. */
export const living = {
  'living.state.unknown': 'Nobody has said how long it takes to come: type it at the product, and its last day to order is told.',
  'living.state.order': 'Order by {by}, so that it is there in time.',
  'living.state.late': 'It was to be ordered by {by}: it would come too late. Put the day off, or ask whether it can come sooner.',
  'living.state.ordered': 'Ordered {ordered}.',
  'living.state.due': 'Ordered {ordered}; it should be there.',
  'living.state.there':
    'There since {arrived}{until, select, none {} other {; put it out by {until}}}{alive, select, none {} other {. {alive} were alive}}.',
  'living.state.stale': 'It kept until {until}: look at it again before it is put out, most may be dead.',
  'living.state.dead': 'Only {alive} were alive: ask for another delivery, and put the day off.',
  'living.orderedToday': 'Ordered today',
  'living.cameToday': 'It came today',
  'living.look': 'Look at some of it under a lens before it is put out.',
  'living.alive': 'Alive',
  'living.howAlive': 'Say how much was alive',
  'living.onTheDay':
    '{medium, select, soil {Soil there} other {Air there}} about {on} on {date}; it needs {floor} or more{from, select, label { by its label} other {}}, at most {ceiling}.',
  'living.after':
    'In {warm} of the ways the weather may go it stays warm enough over {days, plural, one {the day} other {{days, number} days}} after, in {cool} below its ceiling.',
  'living.tooCold': 'Too cold for it: another day, another species, or another place.',
  'living.tooHot': 'Too hot for it: another day, or in the shade.',
  'living.estimated': 'The soil is estimated from the air.',
  'living.offset.read-there':
    'By {count, plural, one {one reading} other {{count, number} readings}} of a thermometer there it is {by} off the estimate.',
  'living.offset.probe': 'By the probe of its station it is {by} off the estimate.',
  'living.thermometer': 'Type what a thermometer reads there',
  'living.reading': 'Soil reads',
  'living.readings': 'Two readings tell by how much that soil differs.',
  'living.moist': 'Water before, and keep it moist for two weeks.',
  'living.residue': '{name} still harms it until {until}.',
} as const
register(living)
