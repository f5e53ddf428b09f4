import { register } from '../registry.js'

/** What must be reported, and what has to be told from a look-alike that is to be protected. */
export const duties = {
  'duty.title': 'Must be reported here',
  'duty.none': 'Nothing is on the list. What has to be reported differs from place to place: ask the plant-protection service.',
  'duty.must': 'Must be reported here.',
  'duty.tell': 'Tell {whom}. Do not move, compost or post it.',
  'duty.check': '{text} Whether it must be reported here is not known: ask, and put it on the list of this site where it must.',
  'duty.checkTitle': '{count, plural, one {One to check} other {{count, number} to check}}',
  'duty.put': 'Put on the list',
  'duty.putOne': 'Put {name} on the list',
  'duty.other': 'Put another on the list',
  'duty.organism': 'What',
  'duty.choose': 'choose what must be reported',
  'duty.whom': 'Whom to tell, and how',
  'duty.change': 'Change',
  'duty.changeOne': 'Change whom to tell of {name}',
  'duty.removed': '{name} is off the list.',
  'duty.removeOne': 'Take {name} off the list',
  'apart.title': 'Is it not {open}?',
  'apart.why': 'That is to be protected. Before anything is cut, sprayed or pulled, look at this:',
  'apart.here': 'As {name}',
  'apart.others': 'As the other',
  'apart.unsure': 'Cannot tell',
  'apart.other': 'What was seen speaks for {open}, which is to be protected: leave it standing. Nothing is planned against it here.',
  'apart.stopped': 'Nobody could tell it from {open}, which is to be protected. Ask somebody who knows; nothing is planned until then.',
  'apart.again': 'Look again, character by character',
  'apart.clear': 'Told from its protected look-alikes on {date}. Look once more at each plant before you begin.',
} as const

register(duties)
