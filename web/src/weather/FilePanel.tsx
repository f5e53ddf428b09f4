import { endpoints, type ImportResult, type Station } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** Readings from files: the way in, and what came so far. */
export function FilePanel({ station }: { station: Station }) {
  const t = useText()
  const site = useSite()
  const { data: imports = [] } = useRead(endpoints.weather.imports, { params: { siteId: site.id }, input: {} })
  return (
    <Stack>
      <Heading>{t('weather.file')}</Heading>
      <p>{t('weather.fileText')}</p>
      <Line>
        <Link to={`/sites/${site.id}/weather/${station.id}/import`}>{t('weather.import')}</Link>
      </Line>
      <ImportList imports={imports.filter(({ stationId }) => stationId === station.id)} />
    </Stack>
  )
}

function ImportList({ imports }: { imports: readonly ImportResult[] }) {
  if (imports.length === 0) return null
  return (
    <Rows>
      {imports.map((result) => (
        <li key={result.id}>
          <ImportLine result={result} />
        </li>
      ))}
    </Rows>
  )
}

/** What an import brought, and the way to take it back as a whole. */
function ImportLine({ result }: { result: ImportResult }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useEntry(endpoints.weather.undoImport, {})
  const [asked, setAsked] = useState(false)
  const { id, fileName: name, undone } = result
  return (
    <>
      <b>{name}</b>{' '}
      <Small as="span">
        {t('import.by', { when: f.moment(result.importedAt), person: result.personName })}
        {undone ? `, ${t('import.undone', { person: undone.by, when: f.moment(undone.at) })}` : ''}
      </Small>
      <br />
      {t('import.counts', { new: result.new, changed: result.changed, unchanged: result.unchanged, rejected: result.rejected })}{' '}
      {result.rejected + result.unread > 0 ? (
        <a href={`/api/v1/sites/${site.id}/weather-imports/${id}/rejected.csv`} download>
          {t('import.rejectedFile')}
        </a>
      ) : null}{' '}
      {undone || asked ? null : (
        <TextButton aria-label={t('import.undoLabel', { name })} onPress={() => setAsked(true)}>
          {t('import.undo')}
        </TextButton>
      )}
      {asked && !undone ? (
        <Stack role="group" aria-label={t('import.undoLabel', { name })}>
          <Small>{t('import.undoAsk', { name })}</Small>
          <EntryEnd
            entry={undo}
            onSave={async () => {
              if (await undo.submit({ siteId: site.id, importId: id }, () => ({}))) setAsked(false)
            }}
            onCancel={() => setAsked(false)}
            words={t('import.undoGo')}
          />
        </Stack>
      ) : null}
    </>
  )
}
