import type { LibraryEntry } from '@bocado/contract'
import { useState } from 'react'
import { TextButton } from '../design/buttons.js'
import { Line, PlainTable, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { Explained } from '../design/Explained.js'

/** The numbers of its model: what the library has, and what this site or block has in its place. */
export function LibraryNumbers({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const f = useFormat()
  const [open, setOpen] = useState(false)
  if (entry.monthsOnly) return null
  const nameOf = (path: string): string => {
    const [subject = '', ...rest] = path.split('.')
    const named =
      entry.generations.flatMap(({ events }) => events).find(({ id }) => id === subject)?.name ??
      entry.generations.find(({ id }) => id === subject)?.name ??
      t(`figures.within.${subject}` as Parameters<Say>[0])
    return t('figures.name', { subject: named, part: t(`figures.part.${rest.at(-1) ?? ''}` as Parameters<Say>[0]) })
  }
  return (
    <Stack>
      <Line>
        <TextButton onPress={() => setOpen(!open)} aria-expanded={open}>
          {t(open ? 'organism.hideNumbers' : 'organism.numbers', { count: entry.figures.length })}
        </TextButton>
      </Line>
      {open ? (
        <PlainTable data-testid="numbers">
          <thead>
            <tr>
              <th scope="col">{t('figures.column.name')}</th>
              <th scope="col">{t('figures.column.value')}</th>
              <th scope="col">{t('organism.inLibrary')}</th>
              <th scope="col">{t('figures.column.from')}</th>
            </tr>
          </thead>
          <tbody>
            {entry.figures.map((figure) => (
              <tr key={figure.path}>
                <th scope="row">
                  <Explained>{nameOf(figure.path)}</Explained>
                </th>
                <td>{f.figure(figure.value, figure.unit)}</td>
                <td>{figure.own ? f.figure(figure.own.libraryValue, figure.unit) : t('organism.same')}</td>
                <td>
                  {figure.own
                    ? figure.own.reason
                    : t('figures.from', {
                        confidence: t(`confidence.${figure.confidence}`),
                        region: figure.region,
                        source: figure.source.kind === 'common-knowledge' ? 'common' : figure.source.kind,
                        authors: figure.source.kind === 'paper' ? figure.source.authors : '',
                        year: figure.source.kind === 'paper' ? String(figure.source.year) : '',
                      })}
                </td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
      ) : null}
    </Stack>
  )
}
