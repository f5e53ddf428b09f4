import { register } from '../registry.js'

/** Which patches to take first within the hours that there are. */
export const triage = {
  'triage.title': 'Which patches first',
  'triage.hours': 'Hours there are',
  'triage.sayHours': 'Say how many hours there are this season, up to {most}.',
  'triage.says':
    '{taken, plural, =0 {No patch fits whole} one {One patch} other {{taken, number} patches}}, {hours} h; {left, plural, =0 {none is left} one {one is left, with plants: {plants}} other {{left, number} are left, with plants: {plants}}}.',
  'triage.patch': '{number} {name}, {place}',
  'triage.unnamed': 'not named yet',
  'triage.plants': 'plants: {plants}, {minutes} min',
  'triage.apart': 'stands apart',
  'triage.notYet': 'does not seed yet',
  'triage.getsAway': 'gets away from there',
  'triage.rank': 'rank {rank}',
  'triage.later':
    'Left alone, {patches, plural, one {this patch} other {these {patches, number} patches}} would hold plants next season: about {plants} ({low} to {high}): {hours} h of work then, {now} h now.',
  'triage.left': 'Left for later: {all}{more, plural, =0 {} other {, and {more, number} more}}.',
  'triage.how':
    'Whole patches that together win most for the hours: what a patch adds next year grows with its edge, and more where it stands apart; what seeds comes before what does not, and before that what gets away from where it stands; your ranks of blocks (under The walk) weigh in. Minutes by your own visits, where they were measured.',
} as const

register(triage)
