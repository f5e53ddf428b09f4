import type { PlantingDates } from '@bocado/contract'
import type { Say } from '../messages/useText.js'

/** On what it rests when something comes. */
export const basisWords = ({ by, seasons }: Pick<PlantingDates['meetings'][number], 'by' | 'seasons'>, t: Say): string =>
  by === 'months' ? t('prevent.basis.months') : t(`prevent.basis.${by}`, { seasons })
