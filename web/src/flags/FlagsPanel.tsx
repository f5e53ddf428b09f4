import { endpoints, type Flag, type ResponseOf, type Search } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useFlags, useOrganisms, useRead, useShapes } from '../api/hooks.js'
import { addressOf } from '../api/client.js'
import { nameOf } from '../api/unsent.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice, Select } from '../design/controls.js'
import { Caution, Columns, Empty, Heading, Line, PlainTable, Rows, Small, Stack } from '../design/text.js'
import { PHONE } from '../design/theme.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { useAsked } from '../shell/useAsked.js'
import { Waiting } from '../shell/Waiting.js'
import { FlagForm } from './FlagForm.js'
import { FlagLine } from './FlagLine.js'
import { namesFirst } from './named.js'
import { PublicFinds } from './PublicFinds.js'
import { Searches } from './Searches.js'
import { SearchForm } from './SearchForm.js'
import { NONE } from './seen.js'
import '../messages/en/field.js'
import '../messages/en/flags.js'
import '../messages/en/plots.js'
import '../messages/en/triage.js'
import '../messages/en/work.js'

const SecondLooks = partLater(async () => (await import('./SecondLooks.js')).SecondLooks)
const PatchesFirst = partLater(async () => (await import('./PatchesFirst.js')).PatchesFirst)
const FlagsMap = partLater(async () => (await import('./FlagsMap.js')).FlagsMap)

/** On a phone the list comes first; the map when it is asked for. */
const MapSide = styled.div<{ $open: boolean }>`
  @media ${PHONE} {
    ${({ $open }) => ($open ? '' : 'display: none;')}
  }
`
const OnPhone = styled(TextButton)`
  @media not ${PHONE} {
    display: none;
  }
`

const FILTERS = ['all', 'due', 'up', 'none'] as const
type Filter = (typeof FILTERS)[number]

const isNone = ({ state }: Flag): boolean => state === 'none-standing' || state === 'gone'
const fits = (flag: Flag, filter: Filter, today: string): boolean =>
  filter === 'all' || (filter === 'due' ? flag.dueOn !== null && flag.dueOn <= today : filter === 'up' ? !isNone(flag) : isNone(flag))

/** What is due first, then what stands, then what has none, each by its number. */
const byNeed =
  (today: string) =>
  (a: Flag, b: Flag): number => {
    const rank = (flag: Flag): number => (fits(flag, 'due', today) ? 0 : !isNone(flag) ? 1 : flag.state === 'gone' ? 3 : 2)
    return rank(a) - rank(b) || a.number - b.number
  }

const FIRST = 20
/** Of fewer patches nobody has to choose. */
const FEWEST_TO_CHOOSE = 2
const EVERYTHING = 'everything'

/** Patches that were flagged, on the map and in a list, with what is due, and the searches for them. */
export function FlagsPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const { isPast: isPastSeason } = useSeasonChoice()
  const on = search.get('on') ?? (isPastSeason ? site.season.end : undefined)
  const { data } = useFlags(site.id, on)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  // Without a server nobody waits for what others sent.
  const { data: finds = [] } = useRead(endpoints.finds.inbox, { params: { siteId: site.id }, input: {} })
  const { data: band } = useBand(site.id, site.season.start)
  const { data: shapes = [] } = useShapes(site.id)
  // Somebody who counts somewhere saw something else there.
  const newAt = search.get('new')
  const [doing, setDoing] = useState<'flag' | 'search' | null>(newAt ? 'flag' : null)
  const [filter, setFilter] = useState<Filter>('all')
  const [of, setOf] = useState(EVERYTHING)
  const [most, setMost] = useState(FIRST)
  const [way, setWay] = useState<Search | null>(null)
  const [isMapOpen, setMapOpen] = useState(false)
  useAsked('flag', () => setDoing('flag'))
  useAsked('search', () => setDoing('search'))
  if (!data || !blocks || !organisms || !band) return <Waiting />
  const isPast = on !== undefined
  const chosen = search.get('flag')
  const choose = (id: string | null): void =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before)
        if (id === null) next.delete('flag')
        else next.set('flag', id)
        return next
      },
      { replace: true },
    )
  const names = namesFirst(organisms, band.watches, data.flags)
  const flagged = [...new Set(data.flags.map(({ organismId }) => organismId ?? NONE))]
  const own = data.flags.filter((flag) => of === EVERYTHING || (flag.organismId ?? NONE) === of)
  const shown = own.filter((flag) => fits(flag, filter, site.today) || flag.id === chosen).sort(byNeed(site.today))
  const at = shown.findIndex(({ id }) => id === chosen)
  const first = data.flags.at(-1)
  const begins = {
    organismId: of !== EVERYTHING && of !== NONE ? of : newAt ? NONE : (first?.organismId ?? NONE),
    placeId: newAt ?? first?.placeId ?? (blocks.length === 1 ? (blocks[0]?.id ?? null) : null),
  }
  const due = data.flags.filter((flag) => fits(flag, 'due', site.today)).length
  const middle = site.latitude === null || site.longitude === null ? null : { latitude: site.latitude, longitude: site.longitude }
  const hasMap = shapes.length > 0 || data.flags.some(({ position }) => position !== null)
  return (
    <Stack $gap={18}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>
          {due > 0 && !isPast ? t('flags.titleDue', { count: data.flags.length, due }) : t('flags.title', { count: data.flags.length })}
        </Heading>
        {isPast ? null : (
          <Line>
            <Button onPress={() => setDoing('flag')}>{t('flags.add')}</Button>
            <Button $plain onPress={() => setDoing('search')}>
              {t('flags.search')}
            </Button>
          </Line>
        )}
      </Line>
      {data.smaller.map(({ organismId, organismName, passes }) => (
        <Caution key={organismId}>{t('flags.smaller', { name: organismName, dates: passes.map(f.shortDate).join(', ') })}</Caution>
      ))}
      {isPast ? null : <PublicFinds finds={finds} blocks={blocks} organisms={names} />}
      {doing === 'flag' ? <FlagForm blocks={blocks} organisms={names} begins={begins} onDone={() => setDoing(null)} /> : null}
      {doing === 'search' ? (
        <SearchForm
          blocks={blocks}
          organisms={names}
          begins={{ ...begins, organismId: begins.organismId === NONE ? null : begins.organismId }}
          onDone={() => setDoing(null)}
        />
      ) : null}
      <UnsentHere of={({ what }) => what === nameOf(endpoints.flags.add)} />
      {data.flags.length === 0 && data.searches.length === 0 && !isPast ? (
        <Empty>
          <p>{t('flags.none')}</p>
          <Link to={`/sites/${site.id}/scouting/plots`}>{t('plots.open')}</Link>
        </Empty>
      ) : (
        <>
          <Line $gap={16}>
            <Choice
              label={t('flags.filter')}
              options={FILTERS.map((id) => ({ id, label: t(`flags.filter.${id}`) }))}
              value={filter}
              onChange={setFilter}
            />
            {flagged.length > 1 ? (
              <Select
                hideLabel
                label={t('flags.ofWhat')}
                placeholder=""
                width="min(24ch, 44vw)"
                options={[
                  { id: EVERYTHING, label: t('flags.everything') },
                  ...flagged.map((id) => ({ id, label: organisms.find((one) => one.id === id)?.name ?? t('flags.unnamed') })),
                ]}
                value={of}
                onChange={setOf}
              />
            ) : null}
            {isPastSeason ? null : <AsOf years={data.years} on={on} />}
          </Line>
          <Columns $left="7fr" $right="5fr">
            <Stack>
              {isPast || own.filter((flag) => !isNone(flag)).length < FEWEST_TO_CHOOSE ? null : (
                <Unfold title={t('triage.title')}>
                  <PatchesFirst flags={own} onChoose={choose} />
                </Unfold>
              )}
              {shown.length === 0 ? <Small>{t('flags.noneSuch')}</Small> : null}
              <Rows>
                {shown.slice(0, Math.max(most, at + 1)).map((flag) => (
                  <li key={flag.id}>
                    <FlagLine
                      flag={flag}
                      blocks={blocks}
                      organisms={names}
                      isChosen={flag.id === chosen}
                      onChoose={choose}
                      isPast={isPast}
                    />
                  </li>
                ))}
              </Rows>
              {shown.length > Math.max(most, at + 1) ? (
                <TextButton onPress={() => setMost(most + 50)}>
                  {t('flags.moreFlags', { count: shown.length - Math.max(most, at + 1) })}
                </TextButton>
              ) : null}
            </Stack>
            <Stack $gap={18}>
              {hasMap ? (
                <>
                  <OnPhone aria-expanded={isMapOpen} onPress={() => setMapOpen(!isMapOpen)}>
                    {t('flags.showMap')}
                  </OnPhone>
                  <MapSide $open={isMapOpen}>
                    <Stack $gap={6}>
                      <FlagsMap
                        key={String(isMapOpen)}
                        name={t('flags.map', { site: site.name })}
                        shapes={shapes}
                        flags={shown}
                        chosen={chosen}
                        onChoose={choose}
                        search={way}
                        middle={middle}
                        isMetric={site.units === 'metric'}
                      />
                      <Small>
                        {t('flags.legend')} {way ? t('flags.legendTrack') : ''}
                      </Small>
                    </Stack>
                  </MapSide>
                </>
              ) : null}
              <Searches
                searches={data.searches.filter(({ organismIds }) => of === EVERYTHING || organismIds.includes(of))}
                shown={way}
                onShow={(one) => {
                  setWay(one)
                  setMapOpen(one !== null)
                }}
                isPast={isPast}
              />
              <Years years={data.years.filter(({ organismId }) => of === EVERYTHING || organismId === of)} named={of === EVERYTHING} />
              <a href={addressOf(endpoints.flags.list, { params: { siteId: site.id }, input: {} }).concat('.csv')}>{t('flags.csv')}</a>
              <Link to={`/sites/${site.id}/scouting/plots`}>{t('plots.open')}</Link>
              <SecondLooks data={data} blocks={blocks} organisms={names} isPast={isPast} />
            </Stack>
          </Columns>
        </>
      )}
    </Stack>
  )
}

type YearLines = ResponseOf<typeof endpoints.flags.list>['years']

/** From which day it is looked at: today, or the end of a season before. */
function AsOf({ years, on }: { years: YearLines; on: string | undefined }) {
  const t = useText()
  const site = useSite()
  const [, setSearch] = useSearchParams()
  const [known, setKnown] = useState<readonly string[]>([])
  const seen = [...new Set([...known, ...years.map(({ season }) => season)])].sort().reverse()
  // As of an earlier year the later ones are not known; they stay to be chosen.
  if (seen.length > known.length) setKnown(seen)
  const past = seen.filter((season) => season < site.season.start)
  if (past.length === 0) return null
  const endOf = (season: string): string =>
    new Date(Date.UTC(Number(season.slice(0, 4)) + 1, Number(season.slice(5, 7)) - 1, 0)).toISOString().slice(0, 10)
  return (
    <Select
      hideLabel
      label={t('flags.asOf')}
      placeholder=""
      width="min(22ch, 44vw)"
      options={[
        { id: 'today', label: t('flags.today') },
        ...past.map((season) => ({ id: endOf(season), label: t('flags.endOf', { year: endOf(season).slice(0, 4) }) })),
      ]}
      value={on ?? 'today'}
      onChange={(id) =>
        setSearch(
          (before) => {
            const next = new URLSearchParams(before)
            if (id === 'today') next.delete('on')
            else next.set('on', id)
            return next
          },
          { replace: true },
        )
      }
    />
  )
}

/** What stood in each year. */
function Years({ years, named }: { years: YearLines; named: boolean }) {
  const t = useText()
  const f = useFormat()
  const { data: organisms = [] } = useOrganisms()
  if (new Set(years.map(({ season }) => season)).size < 2) return null
  return (
    <Stack>
      <Heading>{t('flags.years')}</Heading>
      <PlainTable>
        <thead>
          <tr>
            <th>{t('flags.year')}</th>
            {named ? <th>{t('flags.what')}</th> : null}
            <th>{t('flags.yearStanding')}</th>
            <th>{t('flags.yearClean')}</th>
            <th>{t('flags.yearArea')}</th>
            <th>{t('flags.yearMinutes')}</th>
          </tr>
        </thead>
        <tbody>
          {years.map((year) => (
            <tr key={`${year.organismId} ${year.season}`}>
              <td>{year.season.slice(0, 4)}</td>
              {named ? <td>{organisms.find(({ id }) => id === year.organismId)?.name ?? year.organismId}</td> : null}
              <td>{f.number(year.standing)}</td>
              <td>{f.number(year.clean)}</td>
              <td>{year.areaM2 === null ? '–' : f.area(year.areaM2 / 10_000)}</td>
              <td>{year.minutes === 0 ? '–' : t('flags.searchMinutes', { minutes: year.minutes })}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Stack>
  )
}
