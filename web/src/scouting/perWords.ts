import type { Organism } from '@bocado/contract'
import type { Say } from '../messages/useText.js'
import '../messages/en/count.js'

/** Of what a hundred is meant: the items that are looked at, or parts of their surface where degrees of damage are judged. */
export const perWords = ({ scale, items }: Pick<Organism['sampling'], 'scale' | 'items'>, t: Say): string =>
  scale === 'degrees' ? t('count.surface') : items
