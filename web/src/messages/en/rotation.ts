import { register } from '../registry.js'

/** Rotation of groups of action. */
export const rotation = {
  'rotation.next-generation':
    'Group {group} was or is to be used against the generation before or after, too ({other}): what survives both is resistant. Take one of another group.',
  'rotation.in-a-row':
    'Group {group} twice in a row on this ground ({other}): put one of another group, or one that acts at many sites, between.',
  'rotation.over-winter': 'Group {group} was the last one used here the season before: begin with another.',
  'rotation.share': 'Group {group} would be {share} of the sprays of this season on this ground: half is the most.',
  'rotation.byMethod': 'No group is typed for it on the shelf: its kind stands for the group.',
} as const
register(rotation)
