import { endpoints, type Indicator, type NotebookLine } from '@bocado/contract'
import { writtenDay, type DayOrder } from '@bocado/core/time'
import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { useWrite } from '../api/hooks.js'
import { useDraft } from '../api/useDraft.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { RequestProblem } from '../api/client.js'
import { Button } from '../design/buttons.js'
import { Checkbox, TextField } from '../design/controls.js'
import { DayOrderChoice } from '../design/DayOrderChoice.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Heading, Line, PlainTable, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/bloom.js'
import '../messages/en/field.js'

/** A whole notebook at once: pasted or read from a file, shown as it is understood, and taken in only then. */
export function Notebook({ plants }: { plants: readonly Indicator[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [text, setText] = useState('')
  const [lines, setLines] = useState<readonly NotebookLine[] | null>(null)
  const [skipWrong, setSkipWrong] = useState(false)
  const [order, setOrder] = useState<DayOrder | null>(null)
  const [example, setExample] = useState<string | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const [taken, setTaken] = useState<string | null>(null)
  const preview = useWrite(endpoints.bloom.preview)
  const take = useWrite(endpoints.bloom.import)
  const params = { siteId: site.id }
  const { personId } = useWorkplace()
  const kept = useDraft(
    `${personId ?? ''} notebook ${site.id}`,
    text.trim() === '' ? undefined : { values: { text }, rowVersion: null },
    ({ values }) => setText((values as { text: string }).text),
  )
  const change = (typed: string): void => {
    setText(typed)
    setOrder(null)
    setExample(null)
    setLines(null)
    setTaken(null)
    setRefused(null)
  }
  const run = async (work: () => Promise<void>): Promise<void> => {
    setRefused(null)
    try {
      await work()
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      setRefused(error.problem.detail)
    }
  }
  const look = (by: DayOrder | null): Promise<void> =>
    run(async () => {
      const read = await preview.save({ params, input: { text, order: by } })
      const unclear = read.find(({ orElse }) => orElse !== null)?.text
      const day = unclear === undefined ? undefined : writtenDay(unclear)
      if (unclear !== undefined && day) setExample(unclear.slice(day.start, day.end))
      setLines(read)
    })
  const wrong = lines?.filter(({ problem, orElse }) => problem !== null && orElse === null).length ?? 0
  const isUnclear = lines?.some(({ orElse }) => orElse !== null) ?? false
  return (
    <Stack>
      <Heading>{t('notebook.title')}</Heading>
      <p>{t('notebook.how')}</p>
      <TextField label={t('notebook.text')} rows={8} width="100%" value={text} onChange={change} />
      <Line>
        <Button isDisabled={text.trim() === '' || preview.isBarred} onPress={() => void look(order)}>
          {t('notebook.preview')}
        </Button>
        <FileTrigger
          acceptedFileTypes={['text/csv', 'text/plain', '.csv', '.txt']}
          onSelect={(files) => void files?.[0]?.text().then(change)}
        >
          <Button $plain>{t('own.import')}</Button>
        </FileTrigger>
      </Line>
      <DraftNote
        entry={{
          draftSince: kept.since,
          discard: () => {
            change('')
            kept.drop()
          },
        }}
      />
      <FormError text={refused} />
      {taken ? <p>{taken}</p> : null}
      {example ? (
        <DayOrderChoice
          example={example}
          value={order}
          onChange={(by) => {
            setOrder(by)
            void look(by)
          }}
        />
      ) : null}
      {lines ? (
        <>
          <PlainTable data-testid="notebook-lines">
            <thead>
              <tr>
                <th scope="col">{t('notebook.line')}</th>
                <th scope="col">{t('bloom.plant')}</th>
                <th scope="col">{t('bloom.what')}</th>
                <th scope="col">{t('bloom.from')}</th>
                <th scope="col">{t('notebook.state')}</th>
              </tr>
            </thead>
            <tbody>
              {lines.slice(0, 300).map((line) => (
                <tr key={line.line}>
                  <td>
                    {line.line}: {line.text}
                  </td>
                  <td>{plants.find(({ id }) => id === line.plantId)?.name ?? '–'}</td>
                  <td>
                    {line.event ? t(`bloom.event.${line.event}`) : '–'} {line.notYet ? t('bloom.notYet') : ''}
                  </td>
                  <td>
                    {line.seenFrom
                      ? line.orElse
                        ? t('notebook.either', { one: f.withYear(line.seenFrom), other: f.withYear(line.orElse) })
                        : f.withYear(line.seenFrom)
                      : '–'}
                  </td>
                  <td>{line.orElse ? t('notebook.unclear') : (line.problem ?? t(line.known ? 'notebook.known' : 'notebook.fresh'))}</td>
                </tr>
              ))}
            </tbody>
          </PlainTable>
          {lines.length > 300 ? <Small>{t('bloom.more', { count: lines.length - 300 })}</Small> : null}
          {wrong > 0 ? <Checkbox label={t('notebook.skip', { count: wrong })} value={skipWrong} onChange={setSkipWrong} /> : null}
          <Line>
            <Button
              isDisabled={take.isBarred || isUnclear || (wrong > 0 && !skipWrong)}
              onPress={() =>
                void run(async () => {
                  const { added, known, skipped } = await take.save({ params, input: { text, skipWrong, order } })
                  setLines(null)
                  setText('')
                  setExample(null)
                  kept.drop()
                  setTaken(t('notebook.taken', { added, known, skipped }))
                })
              }
            >
              {t('notebook.take', { count: lines.filter(({ problem, known }) => problem === null && !known).length })}
            </Button>
          </Line>
        </>
      ) : null}
    </Stack>
  )
}
