import { register } from '../registry.js'

/** Plants that must not be harmed by what is done against their neighbours. */
export const companions = {
  'companions.title': 'Plants that must not be harmed',
  'companions.none':
    'What grows beside a weed and is to stay: while it is awake, what would harm it is closed in its block; once all are asleep it is open.',
  'companions.add': 'Name a plant that must not be harmed',
  'companions.name': 'Plant',
  'companions.where': 'Where it grows',
  'companions.wakes': 'First above the ground on',
  'companions.sleeps': 'Last above the ground on',
  'companions.harm': 'What would harm it',
  'companions.plant': 'On the bloom list it is',
  'companions.noPlant': 'not there',
  'companions.asleepOn': 'Seen asleep on',
  'companions.awake': 'Awake from {from} to {until}.',
  'companions.byBlooms': 'With {count, plural, one {one bloom} other {{count, number} blooms}} of your own.',
  'companions.harmedBy': 'Harmed by: {acts}.',
  'companions.changeOne': 'Edit {name}',
  'companions.removeOne': 'Remove {name}',
  'companions.removed': '{name} is no longer named as a plant that must not be harmed.',
  'companions.asleep':
    '{place, select, none {All that must not be harmed here is} other {{place}: all that must not be harmed is}} asleep from {from}{opened, select, none {} other { ({opened} the last)}} to {until}{closed, select, none {} other { ({closed} the first to wake)}}.',
  'companions.never': '{place, select, none {} other {{place}: }}something that must not be harmed is awake on every day of the year.',
} as const
register(companions)
