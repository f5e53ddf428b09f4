import { endpoints, type ImportResult, type Station } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useRead, useStations } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, Choice, TextButton, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Columns, Empty, Heading, Line, Page, Rows, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { DevicePanel } from './DevicePanel.js'
import { FaultList } from './FaultList.js'
import { HeatPanel } from './HeatPanel.js'
import { SeasonChart } from './SeasonChart.js'
import { TypeDays } from './TypeDays.js'

/** Weather of one station: the season against the range of past ones, and how readings come in. */
export function WeatherScreen() {
  const t = useText()
  const site = useSite()
  const { data: stations } = useStations(site.id)
  const [search, setSearch] = useSearchParams()
  const [adding, setAdding] = useState(false)
  if (!stations) return <Waiting />
  const station = stations.find(({ id }) => id === search.get('station')) ?? stations[0]
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{station ? t('weather.title', { station: station.name }) : t('weather.none')}</Title>
        <Line>
          {stations.length > 1 && station ? (
            <Choice
              label={t('weather.station')}
              options={stations.map(({ id, name }) => ({ id, label: name }))}
              value={station.id}
              onChange={(id) => setSearch({ station: id }, { replace: true })}
            />
          ) : null}
          {station ? <TextButton onPress={() => setAdding(true)}>{t('station.add')}</TextButton> : null}
        </Line>
      </Line>
      {adding || !station ? <AddStation first={!station} onDone={() => setAdding(false)} /> : null}
      {station ? <StationWeather key={station.id} station={station} /> : null}
    </Page>
  )
}

function AddStation({ first, onDone }: { first: boolean; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.weather.addStation, { name: '' })
  return (
    <Empty>
      <p>{first ? t('weather.first') : t('station.explain')}</p>
      <Line>
        <TextField
          label={t('station.name')}
          width="24ch"
          value={entry.values.name}
          onChange={(name) => entry.set({ name })}
          error={entry.errors['name']}
        />
        <Button isDisabled={entry.isSaving} onPress={() => void entry.submit({ siteId: site.id }).then((station) => station && onDone())}>
          {t('station.add')}
        </Button>
        {first ? null : (
          <Button $plain onPress={onDone}>
            {t('cancel')}
          </Button>
        )}
      </Line>
      <FormError text={entry.general} />
    </Empty>
  )
}

function StationWeather({ station }: { station: Station }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.weather.days, {
    params: { siteId: site.id, stationId: station.id },
    input: { season: site.season.start },
  })
  const { data: imports = [] } = useRead(endpoints.weather.imports, { params: { siteId: site.id }, input: {} })
  const known = station.firstDay !== null && station.lastDay !== null
  return (
    <>
      <p>
        {known
          ? t('weather.extent', {
              hours: station.hours,
              days: station.typedDays,
              first: f.withYear(station.firstDay ?? ''),
              last: f.withYear(station.lastDay ?? ''),
            })
          : t('weather.noReadings')}{' '}
        {t('weather.standardTime', { offset: offsetWords(station.utcOffsetMinutes) })}
      </p>
      {known && data ? <SeasonChart {...data} today={site.today} /> : null}
      {known ? <HeatPanel station={station} /> : null}
      {known ? <FaultList station={station} /> : null}
      <Columns $left="1fr" $right="1fr">
        <Stack>
          <Heading>{t('weather.file')}</Heading>
          <p>{t('weather.fileText')}</p>
          <Line>
            <Link to={`/sites/${site.id}/weather/${station.id}/import`}>{t('weather.import')}</Link>
          </Line>
          <ImportList imports={imports.filter(({ stationId }) => stationId === station.id)} />
        </Stack>
        <Stack $gap={28}>
          <DevicePanel station={station} />
          <TypeDays station={station} />
        </Stack>
      </Columns>
    </>
  )
}

function offsetWords(minutes: number): string {
  const sign = minutes < 0 ? '−' : '+'
  const held = Math.abs(minutes)
  return `UTC${sign}${Math.floor(held / 60)}${held % 60 ? `:${String(held % 60).padStart(2, '0')}` : ''}`
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
          {result.rejected > 0 ? (
            <a href={`/api/v1/sites/${site.id}/weather-imports/${result.id}/rejected.csv`} download>
              {t('import.rejectedFile')}
            </a>
          ) : null}
        </li>
      ))}
    </Rows>
  )
}
