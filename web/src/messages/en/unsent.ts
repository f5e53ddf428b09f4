import { register } from '../registry.js'

/** What was recorded without signal and waits on the device. */
export const unsent = {
  'unsent.title': 'Waiting on this device',
  'unsent.text':
    'These records are kept here, and are sent in their order as soon as Bocado answers: each once, with when it was made. They outlive a closed page.',
  'unsent.none': 'Nothing waits here: everything recorded on this device is stored.',
  'unsent.made': '{when}, by {person}, {site}',
  'unsent.other': 'It is sent once {person} is signed in here.',
  'unsent.refused': 'Not stored: {reason}',
  'unsent.again': 'Send again',
  'unsent.againOne': 'Send again: {what}',
  'unsent.mend': 'Mend',
  'unsent.mendOne': 'Mend: {what}',
  'unsent.begun': 'Something else is begun in that form: store it, or begin anew there first.',
  'unsent.letGo': 'Let go',
  'unsent.letGoOne': 'Let go: {what}',
  'unsent.letGone': '{what}: let go, nothing of it is stored.',
  'unsent.here': 'Waits on this device: {what}',
  'unsent.hereRefused': 'Not stored: {what}.',
  'unsent.look': 'See why',
}
register(unsent)
