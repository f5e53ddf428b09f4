import type { Band, WatchForecast } from '@bocado/contract'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { bloomsAround } from './Blooms.js'
import { stageBoundsOn, stageSharesAt } from './streams.js'

/** What there is of a watch on a day of the season, in words: stages with their bounds, infection, seedlings, blooms about then. */
export function readingWords(row: WatchForecast, band: Band, day: number, t: Say, f: Format): string {
  const date = f.date(f.seasonDay(row.watch.season, day))
  const blooming = bloomsAround(band.blooms, day)
    .map(({ name, eventName }) => t('bloom.reading', { name, event: eventName }))
    .join(', ')
  const seen = row.seen
    .filter((s) => s.day === f.seasonDay(row.watch.season, day))
    .map(({ name, kind }) => ` ${t('band.seen', { name, kind, date: '' }).trim()}.`)
    .join('')
  const bloom = (blooming === '' ? '' : ` ${t('bloom.around', { blooms: blooming })}`) + seen
  if (row.grade === 'months') return monthWords(row, day, t, f) + bloom
  if (day < row.heat.biofixIndex) return t('band.beforeBiofix', { date }) + bloom
  if (day >= row.heat.knownDays) return t('band.unknown', { date }) + bloom
  return `${stateWords(row, day, date, t, f)}${bloom}`
}

/** What can be said of a month where a number of the model is a placeholder: which stages there may be, and no share. */
function monthWords(row: WatchForecast, day: number, t: Say, f: Format): string {
  const heat = row.heat.median[Math.min(day, row.heat.knownDays - 1)] ?? 0
  const stages = stageSharesAt(row, heat)
    .filter(({ share }) => share >= 0.1)
    .map(({ stage }) => row.stages.find(({ id }) => id === stage)?.name ?? stage)
  return t('band.readMonth', { month: f.month(f.seasonDay(row.watch.season, day)), stages: stages.join(', ') || t('band.none') })
}

function stateWords(row: WatchForecast, day: number, date: string, t: Say, f: Format): string {
  const heat = row.heat.median[day] ?? 0
  const { infection, emergence } = row
  const found = infection?.days.find((d) => d.day === day)
  const parts = [
    ...stageBoundsOn(row, day)
      .filter(({ share }) => share.p90 >= 0.015)
      .map(({ stage, share }) =>
        t('band.stageShare', {
          stage: row.stages.find(({ id }) => id === stage)?.name ?? stage,
          share: f.percent(share.p50),
          low: f.number(100 * share.p10),
          high: f.number(100 * share.p90),
          sure: share.p90 - share.p10 < 0.015 ? 'yes' : 'no',
        }),
      ),
    ...(infection
      ? [
          found
            ? t(day < row.heat.todayIndex ? 'infection.mark' : 'infection.markAhead', {
                date: '',
                share: f.percent(found.probability),
                certain: found.certain ? 'yes' : 'no',
                severity: f.number(found.severity, 1),
              }).trim()
            : t(day < row.heat.todayIndex + (row.heat.forecast?.days ?? 0) ? 'infection.none' : 'infection.beyond'),
        ]
      : []),
    ...(emergence ? [t('emergence.reading', { share: f.percent(emergence.p50[day] ?? 0) })] : []),
  ]
  return t(day < row.heat.todayIndex ? 'band.readPast' : 'band.readFuture', {
    date,
    heat: f.heat(heat),
    stages: parts.join(', ') || t('band.none'),
  })
}
