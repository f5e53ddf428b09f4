import { register } from '../registry.js'

/** A sheet for people who help for a day. */
export const kit = {
  'kit.title': 'Work day in {block}, {date}',
  'kit.print': 'Print it',
  'kit.back': 'Back to the walk',
  'kit.meet': 'Meet at',
  'kit.until': 'Until',
  'kit.bags': 'Bags',
  'kit.lanes': 'Lanes: who goes where',
  'kit.notStep': 'Where nobody steps',
  'kit.hours': 'Meet: {meet}. Until {until}.',
  'kit.bagsSaid': '{count, plural, one {One bag} other {{count, number} bags}}; what is full is tied and stays at the lane’s end.',
  'kit.lanesSaid': 'Lanes: {lanes}',
  'kit.notStepSaid': 'Nobody steps here: {places}',
  'kit.stays': '{name} must stay unharmed{where, select, block {} other { ({where})}}.',
  'kit.boots': 'Boots, tools and tyres are brushed off at the gate, before and after: seed travels in mud.',
  'kit.unsure': 'Unsure of a plant: leave it, flag it, ask.',
  'kit.nothingUp': 'No flag of this block has anything standing.',
  'kit.take': 'Take it at {numbers}: {where}.',
  'kit.notThese': 'Not these:',
  'kit.sketch': '{block} with {count, plural, one {one flag} other {{count, number} flags}} by number, north up.',
  'kit.north': 'north is up',
} as const

register(kit)
