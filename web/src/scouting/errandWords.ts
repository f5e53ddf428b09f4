import type { Errand } from '../band/walk.js'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import '../messages/en/walk.js'

/** What is to be done, in a few words. */
export const errandWhat = ({ kind, row, trap, flags, plots, arrival }: Errand, t: Say): string =>
  kind === 'count'
    ? t('walk.count', { name: row?.organismName ?? '' })
    : kind === 'trap'
      ? t('walk.trap', { name: trap?.name ?? '' })
      : kind === 'arrival'
        ? t('walk.arrival', { name: arrival?.name ?? '' })
        : kind === 'plots'
          ? t('walk.plots', { count: plots?.length ?? 0, numbers: (plots ?? []).map(({ number }) => number).join(', ') })
          : t('walk.flags', { count: flags?.length ?? 0, numbers: (flags ?? []).map(({ number }) => `#${number}`).join(', ') })

/** Where it is done: the count itself, the trap, the flags, what came in. */
export const errandPath = ({ kind, row, flags, plots }: Errand, siteId: string): string =>
  kind === 'count'
    ? `/sites/${siteId}/scouting/${row?.watch.id}/count`
    : kind === 'arrival'
      ? `/sites/${siteId}/site`
      : kind === 'plots'
        ? `/sites/${siteId}/scouting/plots${plots?.[0] ? `?plot=${plots[0].id}` : ''}`
        : `/sites/${siteId}/scouting?panel=${kind === 'trap' ? 'traps' : 'flags'}${flags?.[0] ? `&flag=${flags[0].id}` : ''}`

/** Why it is due, and when it was looked at last. */
export const errandWhy = ({ because, kind, last, due, arrival }: Errand, t: Say, f: Format): string =>
  [
    kind === 'count' ? t(`walk.because.${because ?? 'window'}`) : '',
    kind === 'arrival'
      ? t(arrival?.isolatedUntil === due ? 'walk.apartOver' : 'walk.apart', { date: f.date(due) })
      : last
        ? t('walk.last', { date: f.date(last) })
        : kind === 'flags' || kind === 'plots'
          ? t('walk.since', { date: f.date(due) })
          : t('walk.never'),
  ]
    .filter(Boolean)
    .join('; ')
