import { endpoints, type HourWeather, type ResponseOf } from '@bocado/contract'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { DateField } from '../design/DateField.js'
import { Explained } from '../design/Explained.js'
import { Caution, Figure, Heading, Line, Small, Stack } from '../design/text.js'
import { colour, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { Waiting } from '../shell/Waiting.js'
import { HoursPicture } from './HoursPicture.js'
import { PutRight, TypedDay } from './PutRight.js'
import { Figures } from './SeasonTable.js'
import { useStationClock } from './useStationClock.js'

const Hours = styled(Figures)`
  td,
  th {
    padding: 2px 4px;
    font-size: ${size.small};
  }
  tbody th {
    position: sticky;
    left: 0;
    background: ${colour.sheet};
    text-align: left;
  }
  td[data-wet='true'] {
    background: ${colour.petrol};
    color: ${colour.white};
  }
`

interface Props {
  stationId: string
  blockId: string | undefined
  day: string
  onDay: (day: string) => void
}

/** The hours of one day, and what follows from them. */
export function DayHours(p: Props) {
  const { stationId, blockId, day, onDay } = p
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.weather.hours, {
    params: { siteId: site.id, stationId },
    input: { day, ...(blockId ? { blockId } : {}) },
  })
  useKeys({ '[': () => onDay(f.nudge(day, -1)), ']': () => onDay(f.nudge(day, 1)) })
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t(`hours.${data?.source ?? 'read'}`, { date: f.date(day) })}</Heading>
        <Line $gap={16}>
          <TextButton onPress={() => onDay(f.nudge(day, -1))}>{t('hours.before')}</TextButton>
          <DateField label={t('hours.day')} value={day} onChange={(next) => next && onDay(next)} />
          <TextButton onPress={() => onDay(f.nudge(day, 1))}>{t('hours.after')}</TextButton>
        </Line>
      </Line>
      {/* The field of the day stays where it is while another day comes: somebody may still be typing in it. */}
      {data ? <Hours24 {...p} data={data} /> : <Waiting />}
    </Stack>
  )
}

function Hours24({ stationId, blockId, day, data }: Props & { data: ResponseOf<typeof endpoints.weather.hours> }) {
  const t = useText()
  const clock = useStationClock(stationId)
  const { hours, source, sun, typed, byHand } = data
  const nameOf = (hour: number): string => clock(day, hour)
  const doubts = hours.flatMap((hour) => hour.doubts.map((doubt) => ({ ...doubt, hour: hour.hour })))
  return (
    <>
      {typed ? <TypedDay typed={typed} day={day} stationId={stationId} /> : null}
      {source === 'none' ? (
        <p>{t('hours.nothing')}</p>
      ) : (
        <>
          <HoursPicture hours={hours} sun={sun} nameOf={nameOf} />
          <HourTable hours={hours} nameOf={nameOf} />
          {doubts.length > 0 ? (
            <Caution>
              {t('hours.doubts', {
                list: doubts
                  .slice(0, 6)
                  .map((d) => `${clock(day, d.hour)} ${t(`variable.${d.variable}`)} ${t(`flag.${d.flag}`)}`)
                  .join(', '),
                more: Math.max(0, doubts.length - 6),
              })}
            </Caution>
          ) : null}
          <Small>
            <Explained>{t('hours.standard')}</Explained>
          </Small>
          {blockId === undefined && source === 'read' ? (
            <PutRight key={day} byHand={byHand} hours={hours} day={day} nameOf={nameOf} stationId={stationId} />
          ) : null}
        </>
      )}
    </>
  )
}

function HourTable({ hours, nameOf }: { hours: readonly HourWeather[]; nameOf: (hour: number) => string }) {
  const t = useText()
  const f = useFormat()
  const { temperature, rain, wind, vapour } = f.measures
  const same = (v: number): number => v
  // Differences of temperature have no zero point to move.
  const degrees = (v: number): number => temperature.shown(v) - temperature.shown(0)
  const figure = (value: number | null, shown: (v: number) => number, digits: number): string | null =>
    value === null ? null : f.fixed(shown(value), digits)
  const rows: { name: string; of: (hour: HourWeather) => string | null }[] = [
    { name: t('hours.temperature', { unit: temperature.unit }), of: (h) => figure(h.temperature, temperature.shown, 1) },
    { name: t('hours.humidity'), of: (h) => figure(h.humidity, same, 0) },
    { name: t('hours.dewPoint', { unit: temperature.unit }), of: (h) => figure(h.dewPoint, temperature.shown, 1) },
    { name: t('hours.vpd', { unit: vapour.unit }), of: (h) => figure(h.vpd, vapour.shown, vapour.digits) },
    { name: t('hours.deltaT', { unit: temperature.unit }), of: (h) => figure(h.deltaT, degrees, 1) },
    { name: t('hours.wind', { unit: wind.unit }), of: (h) => figure(h.wind, wind.shown, 1) },
    { name: t('hours.direction'), of: ({ direction }) => (direction === null ? null : f.compass(direction)) },
    { name: t('hours.rain', { unit: rain.unit }), of: (h) => figure(h.rain, rain.shown, rain.digits) },
    { name: t('hours.soil', { unit: temperature.unit }), of: (h) => figure(h.soil, temperature.shown, 1) },
  ]
  return (
    <Hours tabIndex={0} role="region" aria-label={t('hours.table')}>
      <table>
        <thead>
          <tr>
            <th scope="col">{t('import.hour')}</th>
            {hours.map(({ hour }) => (
              <th scope="col" key={hour}>
                {nameOf(hour)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows
            .filter(({ of }) => hours.some((hour) => of(hour) !== null))
            .map(({ name, of }) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {hours.map((hour) => (
                  <td key={hour.hour}>
                    <Figure>{of(hour) ?? '–'}</Figure>
                  </td>
                ))}
              </tr>
            ))}
          <tr>
            <th scope="row">{t('hours.leaves')}</th>
            {hours.map(({ hour, wet }) => (
              <td key={hour} data-wet={wet === true}>
                {wet === null ? t('hours.notKnown') : wet ? t('hours.wet') : t('hours.dry')}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </Hours>
  )
}
