import { weatherVariables, type FilePreview } from '@bocado/contract'
import styled from 'styled-components'
import { Figure, Small } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { readingWords } from './readingWords.js'

const Scroll = styled.div`
  overflow-x: auto;
  table {
    min-width: 560px;
    background: ${colour.sheet};
  }
  th,
  td {
    padding: 5px 14px;
    border-bottom: 1px solid ${colour.rule};
    text-align: right;
    white-space: nowrap;
  }
  th:nth-child(-n + 2),
  td:nth-child(-n + 2) {
    text-align: left;
  }
  .problem {
    color: ${colour.beet};
    text-align: left;
    white-space: normal;
    font-weight: 600;
  }
`

/** The first lines of a file as they would be stored, in the site's units and the station's standard time. */
export function UnderstoodRows({ preview }: { preview: FilePreview }) {
  const t = useText()
  const f = useFormat()
  const { columns } = preview.mapping
  const shown = weatherVariables.filter((v) => columns.some(({ variable }) => variable === v))
  const value = (variable: (typeof shown)[number], si: number): string =>
    variable === 'min' || variable === 'max' ? f.temperature(si) : readingWords(variable, si, f)
  return (
    <Scroll>
      <table>
        <caption style={{ textAlign: 'left' }}>
          <Small>{t('import.firstRows')}</Small>
        </caption>
        <thead>
          <tr>
            <th scope="col">{t('import.line')}</th>
            <th scope="col">{preview.mapping.interval === 'daily' ? t('import.day') : t('import.hour')}</th>
            {shown.map((variable) => (
              <th scope="col" key={variable}>
                {t(`variable.${variable}`)}
              </th>
            ))}
            <th scope="col">
              <span className="sr">{t('import.problem')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {preview.rows.map((row) => (
            <tr key={row.line}>
              <td>{row.line}</td>
              <td>
                <Figure>{row.at ?? ''}</Figure>
              </td>
              {shown.map((variable) => (
                <td key={variable}>
                  <Figure>{row.values[variable] === undefined ? '' : value(variable, row.values[variable])}</Figure>
                </td>
              ))}
              <td className="problem">{row.problem}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  )
}
