/**
 * What of a site can change by itself. Whoever shows something says which aspects it rests on, and reads it anew when one of them has
 * changed. `words` is what people say that no forecast rests on; `forecasts` is what is derived from the others; `day`
 * turns with the site's day.
 */
export const aspects = [
  'site',
  'stations',
  'weather',
  'watches',
  'blooms',
  'counts',
  'treatments',
  'library',
  'words',
  'forecasts',
  'day',
] as const
export type Aspect = (typeof aspects)[number]

/** How often each aspect of a site has changed; one that is not there never has. */
export type AspectVersions = Partial<Record<Aspect, number>>

/** In place of a site's id: the list of sites itself. */
export const ALL_SITES = '00000000-0000-0000-0000-000000000000'

/** The header by which the answer to a write says what it changed: JSON of versions by site. */
export const CHANGED_HEADER = 'Bocado-Changed'

/** The header by which the answer to a read says what it rests on: JSON of versions of its site, or of the list of sites. */
export const READ_AT_HEADER = 'Bocado-Read-At'
