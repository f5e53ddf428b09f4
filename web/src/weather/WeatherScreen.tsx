import { endpoints, type Block, type Station } from '@bocado/contract'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { addressOf } from '../api/client.js'
import { useBlocks, useRead, useStations } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { useVisibleRange } from '../band/range.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Caution, Columns, Empty, Line, Page, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'
import { seasonName } from '../shell/screens.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { SeasonFacts } from './SeasonFacts.js'
import { SeasonPicture } from './SeasonPicture.js'
import { SeasonTable } from './SeasonTable.js'
import { StationHealth } from './StationHealth.js'
import '../messages/en/field.js'
import '../messages/en/weather.js'

const panels = later(() => import('./panels.js'))
const DayHours = partLater(async () => (await panels()).DayHours)
const DevicePanel = partLater(async () => (await panels()).DevicePanel)
const DoubtList = partLater(async () => (await panels()).DoubtList)
const FilePanel = partLater(async () => (await panels()).FilePanel)
const ForecastScore = partLater(async () => (await panels()).ForecastScore)
const HeatPanel = partLater(async () => (await panels()).HeatPanel)
const StationPanel = partLater(async () => (await panels()).StationPanel)
const TypeDays = partLater(async () => (await panels()).TypeDays)
const WetEvents = partLater(async () => (await panels()).WetEvents)

/** Weather of one station, or as it is at a block that follows it: the season, any day's hours, heat, doubts, forecasts, and how it comes in. */
export function WeatherScreen() {
  const t = useText()
  const site = useSite()
  const { data: stations } = useStations(site.id)
  const { data: blocks } = useBlocks(site.id)
  const [search, setSearch] = useSearchParams()
  const [adding, setAdding] = useState(false)
  const block = blocks?.find(({ id }) => id === search.get('block'))
  const asked = block?.follows?.stationId ?? search.get('station')
  const station = stations?.find(({ id }) => id === asked) ?? stations?.[0]
  usePageTitle(station?.name ?? t('nav.weather'), block?.name)
  if (!stations || !blocks) return <Waiting />
  const following = blocks.filter(({ follows }) => follows?.stationId === station?.id)
  const go = (changes: Record<string, string | null>): void => {
    const next = new URLSearchParams(search)
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) next.delete(name)
      else next.set(name, value)
    }
    setSearch(next, { replace: true })
  }
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>
          {station
            ? t(block ? 'weather.titleBlock' : 'weather.title', { station: station.name, block: block?.name ?? '' })
            : t('weather.none')}
        </Title>
        <Line>
          {stations.length > 1 && station ? (
            <Choice
              label={t('weather.station')}
              options={stations.map(({ id, name }) => ({ id, label: name }))}
              value={station.id}
              onChange={(id) => go({ station: id, block: null })}
            />
          ) : null}
          {following.length > 0 ? (
            <Select
              label={t('weather.as')}
              hideLabel
              placeholder={t('weather.asStation')}
              width="22ch"
              options={[
                { id: 'station', label: t('weather.asStation') },
                ...following.map(({ id, name }) => ({ id, label: t('weather.asBlock', { block: name }) })),
              ]}
              value={block?.id ?? 'station'}
              onChange={(id) => go({ block: id === 'station' ? null : id })}
            />
          ) : null}
          {station ? <TextButton onPress={() => setAdding(true)}>{t('station.add')}</TextButton> : null}
        </Line>
      </Line>
      {adding || !station ? <AddStation first={!station} onDone={() => setAdding(false)} /> : null}
      {station ? <StationWeather key={`${station.id}${block?.id}`} station={station} block={block} search={search} go={go} /> : null}
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
        <Button isDisabled={entry.isBarred} onPress={() => void entry.submit({ siteId: site.id }).then((station) => station && onDone())}>
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

/** True until something has been there once. */
function useFirst(isMissing: boolean): boolean {
  const [was, setWas] = useState(!isMissing)
  if (!was && !isMissing) setWas(true)
  return !was && isMissing
}

const PANELS = ['day', 'heat', 'wet', 'doubts', 'forecasts', 'readings', 'station'] as const
type Panel = (typeof PANELS)[number]

interface StationProps {
  station: Station
  block: Block | undefined
  search: URLSearchParams
  go: (changes: Record<string, string | null>) => void
}

function StationWeather({ station, block, search, go }: StationProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const season = search.get('season') ?? site.season.start
  const shared = useVisibleRange()
  const params = { siteId: site.id, stationId: station.id }
  const place = block ? { blockId: block.id } : {}
  const { data } = useRead(endpoints.weather.days, { params, input: { season, ...place } })
  const known = station.firstDay !== null
  const asked = search.get('panel') as Panel | null
  const panel: Panel = asked && PANELS.includes(asked) ? asked : known ? 'day' : 'readings'
  const end = data?.days.at(-1)?.day ?? site.season.end
  const wanted = search.get('day') ?? site.today
  const day = wanted >= season && wanted <= end ? wanted : season === site.season.start ? site.today : end
  const asTable = search.get('as') === 'table'
  const openDay = (next: string): void => go({ day: next, panel: 'day' })
  // What stands at first comes at once, so that nothing moves under somebody's eyes.
  const { data: hours } = useRead(endpoints.weather.hours, { params, input: { day, ...place } }, known && panel === 'day')
  const isFirst = useFirst(known && (!data || (panel === 'day' && !hours)))
  const offsets = block && (block.offsetMin !== 0 || block.offsetMax !== 0)
  const degrees = (c: number): string => {
    const shown = f.measures.temperature.shown(c) - f.measures.temperature.shown(0)
    return `${shown > 0 ? '+' : ''}${f.number(shown, 1)} ${f.measures.temperature.unit}`
  }
  const choices = (
    <Line>
      {data && data.seasons.length > 1 ? (
        <Select
          label={t('weather.season')}
          hideLabel
          placeholder={season}
          width="14ch"
          options={data.seasons.toReversed().map((start) => ({ id: start, label: seasonName(start) }))}
          value={season}
          onChange={(start) => go({ season: start === site.season.start ? null : start, day: null })}
        />
      ) : null}
      <Choice
        label={t('weather.view')}
        options={(['picture', 'table'] as const).map((id) => ({ id, label: t(`view.${id}`) }))}
        value={asTable ? 'table' : 'picture'}
        onChange={(id) => go({ as: id === 'table' ? 'table' : null })}
      />
    </Line>
  )
  const files = (
    <Line $gap={16}>
      <a href={csvOf(addressOf(endpoints.weather.days, { params, input: { season, ...place } }))} download>
        {t('weather.daysCsv')}
      </a>
      <a href={csvOf(addressOf(endpoints.weather.hours, { params, input: { from: season, to: end, ...place } as never }))} download>
        {t('weather.hoursCsv')}
      </a>
    </Line>
  )
  if (isFirst) return <Waiting />
  return (
    <>
      <StationHealth station={station} />
      {block ? (
        <p>
          {t('weather.follows', {
            block: block.name,
            station: station.name,
            how: block.follows?.how ?? 'first',
            km: f.number(block.follows?.km ?? 0, 1),
          })}{' '}
          {offsets ? t('weather.offset', { min: degrees(block.offsetMin), max: degrees(block.offsetMax) }) : t('weather.noOffset')}
        </p>
      ) : null}
      {known && data ? (
        <Stack>
          {asTable ? (
            <>
              <Line style={{ justifyContent: 'space-between' }}>
                {choices}
                {files}
              </Line>
              <SeasonTable {...data} today={site.today} onOpenDay={openDay} />
            </>
          ) : (
            <SeasonPicture
              key={season}
              {...data}
              today={site.today}
              onOpenDay={openDay}
              openDay={day}
              before={choices}
              behind={files}
              shared={season === site.season.start ? shared : undefined}
            />
          )}
          <SeasonFacts season={data} stationId={station.id} today={site.today} covered={block?.kind === 'tunnel' && !station.underCover} />
        </Stack>
      ) : null}
      <Choice
        label={t('weather.panels')}
        options={PANELS.filter((id) => (id === 'wet' ? block : known || id === 'readings' || id === 'station')).map((id) => ({
          id,
          label: t(`panel.${id}`),
        }))}
        value={panel}
        onChange={(id) => go({ panel: id })}
      />
      {panel === 'day' && known ? <DayHours stationId={station.id} blockId={block?.id} day={day} onDay={openDay} /> : null}
      {panel === 'heat' && known ? <HeatPanel key={season} station={station} blockId={block?.id} season={season} lastDay={end} /> : null}
      {panel === 'wet' && block ? <WetEvents block={block} season={season} /> : null}
      {panel === 'doubts' && known ? <DoubtList station={station} season={season} /> : null}
      {panel === 'forecasts' && known ? <ForecastScore stationId={station.id} /> : null}
      {panel === 'readings' ? (
        <Columns $left="1fr" $right="1fr">
          <FilePanel station={station} />
          <Stack $gap={28}>
            <DevicePanel station={station} />
            <TypeDays station={station} />
          </Stack>
        </Columns>
      ) : null}
      {panel === 'station' ? <StationPanel station={station} /> : null}
      {station.silent && panel !== 'readings' ? <Caution>{t('device.silent', { when: f.moment(station.lastHour ?? '') })}</Caution> : null}
    </>
  )
}

/** The file of values beside a read. */
const csvOf = (address: string): string => address.replace(/\?|$/, (mark) => `.csv${mark}`)
