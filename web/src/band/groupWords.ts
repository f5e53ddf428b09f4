import type { Say } from '../messages/useText.js'
import type { Group } from './urgency.js'

/** "Now, 5": a group of rows and how many there are. */
export const groupWords = (group: Group, t: Say): string =>
  t('band.group', { name: group.name ?? t(`band.group.${group.id}` as Parameters<Say>[0]), rows: group.rows.length })
