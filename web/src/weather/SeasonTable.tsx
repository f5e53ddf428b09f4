import styled from 'styled-components'
import { TextButton } from '../design/buttons.js'
import { Figure } from '../design/text.js'
import { colour, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { Season } from './SeasonPicture.js'

/** A table of figures that scrolls in its own frame, its head standing still. */
export const Figures = styled.div`
  overflow: auto;
  max-height: 420px;
  background: ${colour.sheet};
  border-block: 1px solid ${colour.rule};
  table {
    width: 100%;
  }
  th,
  td {
    padding: 3px 12px;
    text-align: right;
    white-space: nowrap;
    font-weight: 400;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
  th:first-child {
    text-align: left;
  }
  thead th {
    position: sticky;
    top: 0;
    background: ${colour.sheet};
    font-size: ${size.small};
    font-weight: 600;
    white-space: normal;
    vertical-align: bottom;
  }
`

/** The same season as a table, newest day first. */
export function SeasonTable({ days, today, onOpenDay }: Season & { today: string; onOpenDay: (day: string) => void }) {
  const t = useText()
  const f = useFormat()
  const { temperature, rain } = f.measures
  const value = (v: number | null, shown: (si: number) => number, digits: number): string => (v === null ? '–' : f.fixed(shown(v), digits))
  const same = (v: number): number => v
  const past = days.filter(({ day }) => day < today).reverse()
  return (
    <Figures tabIndex={0} role="region" aria-label={t('weather.table')}>
      <table>
        <thead>
          <tr>
            <th scope="col">{t('import.day')}</th>
            <th scope="col">{t('table.min', { unit: temperature.unit })}</th>
            <th scope="col">{t('table.max', { unit: temperature.unit })}</th>
            <th scope="col">{t('table.filled')}</th>
            <th scope="col">{t('table.rain', { unit: rain.unit })}</th>
            <th scope="col">{t('table.wet')}</th>
            <th scope="col">{t('table.wetUnknown')}</th>
            <th scope="col">{t('table.soil', { unit: temperature.unit })}</th>
            <th scope="col">{t('table.rootZone')}</th>
            <th scope="col">{t('table.surface')}</th>
            <th scope="col">{t('table.chill')}</th>
          </tr>
        </thead>
        <tbody>
          {past.map((d) => (
            <tr key={d.day}>
              <th scope="row">
                <TextButton onPress={() => onOpenDay(d.day)}>{f.date(d.day)}</TextButton>
              </th>
              <td>
                <Figure>{value(d.min, temperature.shown, 1)}</Figure>
              </td>
              <td>
                <Figure>{value(d.max, temperature.shown, 1)}</Figure>
              </td>
              <td>
                <Figure>{d.filled > 0 ? f.percent(d.filled) : ''}</Figure>
              </td>
              <td>
                <Figure>{value(d.rain, rain.shown, rain.digits)}</Figure>
              </td>
              <td>
                <Figure>{value(d.wet, same, 0)}</Figure>
              </td>
              <td>
                <Figure>{d.wetUnknown > 0 ? f.number(d.wetUnknown) : ''}</Figure>
              </td>
              <td>
                <Figure>{value(d.soil, temperature.shown, 1)}</Figure>
              </td>
              <td>
                <Figure>{d.rootZone === null ? '–' : f.percent(d.rootZone)}</Figure>
              </td>
              <td>
                <Figure>{d.surface === null ? '–' : f.percent(d.surface)}</Figure>
              </td>
              <td>
                <Figure>{value(d.chill, same, 0)}</Figure>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Figures>
  )
}
