import { civilDate, dayNumber, seasonLater } from '@bocado/core/time'

/** The first day of the season after one. */
export const nextSeason = (start: string): string => civilDate(seasonLater(dayNumber(start), 1))
