import type { Station } from '@bocado/contract'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** How a station fares, in two lines: what it holds, and what each of its sensors gave lately. */
export function StationHealth({ station }: { station: Station }) {
  const t = useText()
  const f = useFormat()
  const { hours, typedDays, firstDay, lastDay, sensors, utcOffsetMinutes } = station
  const newest = sensors
    .map(({ lastHour }) => lastHour)
    .sort()
    .at(-1)
  return (
    <div>
      <p>
        {firstDay !== null && lastDay !== null
          ? t('weather.extent', { hours, days: typedDays, first: f.withYear(firstDay), last: f.withYear(lastDay) })
          : t('weather.noReadings')}{' '}
        {station.place !== '' ? `${t('station.stands', { place: station.place })} ` : ''}
        {station.underCover ? `${t('station.isUnderCover')} ` : ''}
        {t('weather.standardTime', { offset: offsetWords(utcOffsetMinutes) })}
      </p>
      {sensors.length > 0 ? (
        <Small data-testid="sensors">
          {sensors
            .map(({ variable, share, lastHour }) =>
              t('health.sensor', {
                variable: t(`variable.${variable}`),
                share: f.percent(share),
                late: lastHour === newest ? 'no' : 'yes',
                when: f.moment(lastHour),
              }),
            )
            .join(' · ')}
        </Small>
      ) : null}
    </div>
  )
}

export function offsetWords(minutes: number): string {
  const sign = minutes < 0 ? '−' : '+'
  const held = Math.abs(minutes)
  return `UTC${sign}${Math.floor(held / 60)}${held % 60 ? `:${String(held % 60).padStart(2, '0')}` : ''}`
}
