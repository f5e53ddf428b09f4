import type { FilePreview, ImportProgress, ImportResult, WeatherMapping, Written } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { DropZone, FileTrigger, ProgressBar, type FileDropItem } from 'react-aria-components'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { RequestProblem } from '../api/client.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Heading, Line, Page, Rows, Sheet, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { importFile, previewFile } from './importFile.js'
import { MappingFields } from './MappingFields.js'
import { UnderstoodRows } from './UnderstoodRows.js'
import '../messages/en/field.js'
import '../messages/en/import.js'
import '../messages/en/weather.js'

const Drop = styled(DropZone)`
  border: 2px dashed ${colour.rule};
  border-radius: 4px;
  background: ${colour.sheet};
  padding: 36px;
  display: grid;
  gap: 12px;
  justify-items: center;
  &[data-drop-target] {
    border-color: ${colour.petrol};
    background: ${colour.petrolSoft};
  }
`
const Progress = styled(ProgressBar)`
  display: grid;
  gap: 6px;
  .track {
    height: 14px;
    border: 1px solid ${colour.ink};
    border-radius: 3px;
    overflow: hidden;
  }
  .fill {
    height: 100%;
    background: ${colour.petrol};
  }
`

/** Brings a weather file in: choose it, see how it is understood, change what is wrong, import all of it or nothing. */
export function ImportScreen() {
  const t = useText()
  usePageTitle(t('import.title'))
  const site = useSite()
  const client = useQueryClient()
  const { stationId = '' } = useParams()
  const [file, setFile] = useState<File | null>(null)
  const [preview, setPreview] = useState<FilePreview | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [waiting, setWaiting] = useState<readonly File[]>([])
  const [progress, setProgress] = useState<ImportProgress | null>(null)
  const [result, setResult] = useState<ImportResult | null>(null)

  const asked = useRef(0)

  const look = async (chosen: File, mapping?: WeatherMapping, written?: Written): Promise<void> => {
    setProblem(null)
    const turn = ++asked.current
    // A change shows at once, so that the next one builds on it; how it is understood follows. Answers overtaken are dropped.
    if (mapping) setPreview((before) => before && { ...before, mapping })
    else if (written) setPreview((before) => before && { ...before, mapping: { ...before.mapping, ...written } as WeatherMapping })
    try {
      const seen = await previewFile(site.id, stationId, chosen, { mapping, written })
      if (turn === asked.current) setPreview(seen)
    } catch (error) {
      if (turn === asked.current) setProblem(wordsOf(error, t('offline')))
    }
  }
  const choose = ([chosen, ...more]: readonly File[]): void => {
    if (!chosen) return
    setFile(chosen)
    setWaiting(more)
    setPreview(null)
    setResult(null)
    void look(chosen)
  }
  const bringIn = async (): Promise<void> => {
    if (!file || !preview) return
    setProblem(null)
    setProgress({ phase: 'reading', share: 0 })
    try {
      setResult(await importFile({ siteId: site.id, stationId }, file, preview.mapping, setProgress))
      await client.invalidateQueries()
    } catch (error) {
      setProblem(wordsOf(error, t('offline')))
    } finally {
      setProgress(null)
    }
  }
  // Leaving in the middle would not stop the server, but the result would go unseen.
  useEffect(() => {
    if (!progress) return undefined
    const hold = (event: BeforeUnloadEvent): void => event.preventDefault()
    window.addEventListener('beforeunload', hold)
    return () => window.removeEventListener('beforeunload', hold)
  }, [progress])

  return (
    <Page>
      <Title>{file ? t('import.titleFile', { name: file.name }) : t('import.title')}</Title>
      {file && preview ? null : (
        <Drop
          onDrop={(event) => {
            const dropped = event.items.filter((i): i is FileDropItem => i.kind === 'file')
            void Promise.all(dropped.map((item) => item.getFile())).then(choose)
          }}
        >
          <p>{t('import.drop')}</p>
          <FileTrigger allowsMultiple onSelect={(files) => choose([...(files ?? [])])}>
            <Button>{t('import.choose')}</Button>
          </FileTrigger>
          <Small>{t('import.kinds')}</Small>
        </Drop>
      )}
      <FormError text={problem} />
      {result ? (
        <Result
          result={result}
          next={waiting[0]?.name}
          left={waiting.length}
          onNext={() => choose(waiting)}
          onAnother={() => setFile(null)}
        />
      ) : preview && file ? (
        <>
          <Sheet>
            <Stack $gap={16}>
              <Heading>{t('import.understood')}</Heading>
              <MappingFields
                preview={preview}
                onChange={(mapping) => void look(file, mapping)}
                onWritten={(written) => void look(file, undefined, written)}
              />
              {preview.questions.map(({ field, message }) => (
                <FormError key={field} text={message} />
              ))}
              {preview.mapping.unitsChecked || preview.questions.some(({ field }) => field === 'units') ? (
                <Checkbox
                  label={t('import.unitsChecked')}
                  value={preview.mapping.unitsChecked ?? false}
                  onChange={(unitsChecked) => void look(file, { ...preview.mapping, unitsChecked })}
                />
              ) : null}
            </Stack>
          </Sheet>
          <UnderstoodRows preview={preview} />
          {progress ? (
            <Progress value={100 * progress.share} aria-label={t(`import.${progress.phase}`)}>
              {({ percentage }) => (
                <>
                  <span>{t(`import.${progress.phase}`)}</span>
                  <div className="track">
                    <div className="fill" style={{ width: `${percentage ?? 0}%` }} />
                  </div>
                </>
              )}
            </Progress>
          ) : (
            <Line>
              <Button isDisabled={preview.questions.length > 0} onPress={() => void bringIn()}>
                {t('import.go')}
              </Button>
              <TextButton
                onPress={() => {
                  setFile(null)
                  setPreview(null)
                }}
              >
                {t('import.other')}
              </TextButton>
            </Line>
          )}
        </>
      ) : null}
      <Link to={`/sites/${site.id}/weather?station=${stationId}`}>{t('import.back')}</Link>
    </Page>
  )
}

const wordsOf = (error: unknown, offline: string): string => (error instanceof RequestProblem ? error.problem.detail : offline)

interface ResultProps {
  result: ImportResult
  /** The next of several files that were chosen, and how many are left with it. */
  next: string | undefined
  left: number
  onNext: () => void
  onAnother: () => void
}

function Result({ result, next, left, onNext, onAnother }: ResultProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  return (
    <Sheet role="status">
      <Stack>
        <Heading>{t('import.done', { name: result.fileName })}</Heading>
        <Rows>
          <li>
            {t('import.new', {
              count: result.new,
              first: result.first ? f.withYear(result.first) : '',
              last: result.last ? f.withYear(result.last) : '',
            })}
          </li>
          <li>{t('import.changed', { count: result.changed })}</li>
          <li>{t('import.unchanged', { count: result.unchanged })}</li>
          <li>
            {t('import.rejected', { count: result.rejected })} {result.unread > 0 ? t('import.unread', { count: result.unread }) : ''}{' '}
            {result.rejected + result.unread > 0 ? (
              <a href={`/api/v1/sites/${site.id}/weather-imports/${result.id}/rejected.csv`} download>
                {t('import.rejectedFile')}
              </a>
            ) : null}
          </li>
          {result.repeated > 0 ? <li>{t('import.repeated', { count: result.repeated })}</li> : null}
          {result.typedHold > 0 ? <li>{t('import.typedHold', { count: result.typedHold })}</li> : null}
          {result.readingsPerHour > 1 ? <li>{t('import.averaged', { count: result.readingsPerHour })}</li> : null}
        </Rows>
        <Line>
          {next === undefined ? null : <Button onPress={onNext}>{t('import.next', { name: next, left })}</Button>}
          <Link to={`/sites/${site.id}/windows`}>{t('import.toWindows')}</Link>
          <TextButton onPress={onAnother}>{t('import.another')}</TextButton>
        </Line>
      </Stack>
    </Sheet>
  )
}
