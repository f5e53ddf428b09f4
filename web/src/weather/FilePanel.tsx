import { endpoints, type ImportResult, type Station } from '@bocado/contract'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
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
  const t = useText()
  const f = useFormat()
  const site = useSite()
  if (imports.length === 0) return null
  return (
    <Rows>
      {imports.map((result) => (
        <li key={result.id}>
          <b>{result.fileName}</b>{' '}
          <Small as="span">{t('import.by', { when: f.moment(result.importedAt), person: result.personName })}</Small>
          <br />
          {t('import.counts', { new: result.new, changed: result.changed, unchanged: result.unchanged, rejected: result.rejected })}{' '}
          {result.rejected + result.unread > 0 ? (
            <a href={`/api/v1/sites/${site.id}/weather-imports/${result.id}/rejected.csv`} download>
              {t('import.rejectedFile')}
            </a>
          ) : null}
        </li>
      ))}
    </Rows>
  )
}
