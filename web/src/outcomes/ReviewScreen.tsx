import { endpoints, type EventSkill, type Outcome, type WatchForecast, type YearsOf } from '@bocado/contract'
import { Link, useSearchParams } from 'react-router'
import { useBand, useBlocks, useOutcomes, useRead } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { againstOtherYears, deedsOf, whatToChange, type Change } from '../band/review.js'
import { Button } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { Bullets, Empty, Heading, Line, Page, Small, Stack, Title } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { CarryOn } from '../site/CarryOn.js'
import { OwnWords } from './OwnWords.js'
import { ReviewWeather } from './ReviewWeather.js'
import { nextSeason } from './nextSeason.js'
import { verdictSentence } from './verdictWords.js'
import { pickedSays, trendSays } from './yearWords.js'
import '../messages/en/field.js'
import '../messages/en/known.js'
import '../messages/en/review.js'

const MINUTES_PER_HOUR = 60

/** A block's season on one page, to print: what came and why, what was done and did, what to change, and the next one begun from it. */
export function ReviewScreen() {
  const t = useText()
  const site = useSite()
  usePageTitle(t('review.page'))
  const [search, setSearch] = useSearchParams()
  const params = { params: { siteId: site.id }, input: {} }
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: outcomes } = useOutcomes(site.id, site.season.start)
  const { data: years } = useRead(endpoints.outcomes.years, params)
  const { data: skill } = useRead(endpoints.outcomes.skill, params)
  const { data: notes } = useRead(endpoints.outcomes.notes, { params: { siteId: site.id }, input: { season: site.season.start } })
  const { now } = useSeasonChoice()
  if (!notes || !band || !blocks || !outcomes || !years || !skill) return <Waiting />
  const watched = blocks.filter(({ id }) => band.watches.some(({ watch }) => watch.blockId === id))
  const block = watched.find(({ id }) => id === search.get('block')) ?? watched[0]
  const rows = band.watches.filter(({ watch }) => watch.blockId === block?.id)
  const own = outcomes.filter(({ watchId }) => rows.some(({ watch }) => watch.id === watchId))
  const here = skill.filter(({ blockId }) => blockId === block?.id)
  const next = nextSeason(site.season.start)
  const changes = whatToChange({ season: site.season.start, rows, outcomes: own, skill: here })
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{block ? t('review.title', { block: block.name, season: seasonName(site.season.start) }) : t('review.page')}</Title>
        <Line $gap={18} className="off-paper">
          {block ? (
            <>
              <Select
                label={t('review.block')}
                hideLabel
                placeholder={t('choose')}
                width="20ch"
                options={watched.map(({ id, name }) => ({ id, label: name }))}
                value={block.id}
                onChange={(id) => setSearch({ block: id }, { replace: true })}
              />
              <Button $plain onPress={() => window.print()}>
                {t('review.print')}
              </Button>
            </>
          ) : null}
          <Link to={`/sites/${site.id}/outcomes`}>{t('known.back')}</Link>
        </Line>
      </Line>
      {block ? (
        <>
          <Came
            rows={rows}
            lines={years.lines.filter(({ blockId }) => blockId === block.id)}
            stationId={rows[0]?.stationId ?? null}
            blockId={block.id}
          />
          <Done rows={rows} picked={years.picked.filter((one) => one.blockId === block.id && one.season === site.season.start)} />
          <Did outcomes={own} block={block.name} />
          <ToChange changes={changes} />
          <OwnWords
            key={`${block.id} ${site.season.start}`}
            note={notes.find(({ blockId }) => blockId === block.id)}
            blockId={block.id}
            season={site.season.start}
          />
          <Next rows={rows} skill={here} />
        </>
      ) : (
        <Empty>
          <p>{t('review.noBlocks')}</p>
        </Empty>
      )}
      <div className="off-paper">
        <Stack $gap={6}>
          {next <= now ? (
            <Line>
              <CarryOn from={site.season.start} season={next} />
            </Line>
          ) : (
            <Small>{t('carry.later', { season: seasonName(next) })}</Small>
          )}
          <Small>{t('carry.how')}</Small>
        </Stack>
      </div>
    </Page>
  )
}

function Came(p: { rows: readonly WatchForecast[]; lines: readonly YearsOf[]; stationId: string | null; blockId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  return (
    <Stack $gap={6}>
      <Heading>{t('review.came')}</Heading>
      {p.stationId ? <ReviewWeather stationId={p.stationId} blockId={p.blockId} /> : null}
      <Bullets>
        {p.rows.map(({ watch, organismName, winter }) => (
          <li key={watch.id}>
            {cameSays(
              organismName,
              p.lines.find(({ organismId }) => organismId === watch.organismId),
              site.season.start,
              t,
              f,
            )}
            {winter.map(({ what, then }) => ` ${t('review.winter', { what, then })}`)}
          </li>
        ))}
      </Bullets>
    </Stack>
  )
}

/** What came of one organism in a season, beside the other seasons. */
function cameSays(name: string, line: YearsOf | undefined, season: string, t: Say, f: Format): string {
  const year = line?.years.find((one) => one.season === season)
  if (!line || !year) return t('review.notCounted', { name })
  if (year.highest) {
    const beside = againstOtherYears(line, season)
    const counted = t('review.counted', {
      name,
      items: line.items,
      per100: f.number(year.highest.per100, 1),
      date: f.shortDate(year.highest.countedOn),
      over: year.daysOver ? f.number(year.daysOver) : 'none',
      times: beside ? `${f.number(beside.times, 1)} ×` : 'none',
      years: beside?.years ?? 0,
    })
    return year.check === null ? counted : `${counted} ${t('review.checkCame', { per100: f.number(year.check, 1) })}`
  }
  if (year.patches !== null)
    return t('review.stood', {
      name,
      patches: year.patches,
      plants: year.plants === null ? 'none' : f.number(year.plants),
      trend: trendSays(line.trend, t, f),
    })
  return t('review.notCounted', { name })
}

function Done({ rows, picked }: { rows: readonly WatchForecast[]; picked: readonly Parameters<typeof pickedSays>[0][] }) {
  const t = useText()
  const f = useFormat()
  const deeds = deedsOf(rows)
  const minutes = deeds.reduce((sum, deed) => sum + (deed.minutes ?? 0), 0)
  const bags = deeds.reduce((sum, deed) => sum + deed.bags, 0)
  const hours = (of: number | null): string => (of === null ? 'none' : f.number(of / MINUTES_PER_HOUR, 1))
  return (
    <Stack $gap={6}>
      <Heading>{t('review.done')}</Heading>
      {deeds.length === 0 ? (
        <p>{t('review.nothingDone')}</p>
      ) : (
        <>
          <Bullets>
            {deeds.map(({ id, day, name, organismName: organism, person, minutes: own }) => (
              <li key={id}>{t('review.deed', { date: f.date(day), name, organism, person, hours: hours(own) })}</li>
            ))}
          </Bullets>
          <p>{t('review.total', { count: deeds.length, hours: hours(minutes), bags })}</p>
        </>
      )}
      {picked.length > 0 ? <p>{t('review.picked', { all: picked.map((one) => pickedSays(one, t, f)).join('; ') })}</p> : null}
    </Stack>
  )
}

function Did({ outcomes, block }: { outcomes: readonly Outcome[]; block: string }) {
  const t = useText()
  const f = useFormat()
  const judged = outcomes.filter(({ comparison, isEarly }) => comparison !== null || isEarly)
  return (
    <Stack $gap={6}>
      <Heading>{t('review.worked')}</Heading>
      {judged.length === 0 ? (
        <p>{t('review.nothingJudged')}</p>
      ) : (
        <Bullets>
          {judged.map((one) => (
            <li key={one.treatmentId}>
              {t('review.outcome', {
                name: one.productName,
                date: f.date(one.treatedOn),
                says:
                  one.isEarly && one.judgeFrom !== null
                    ? t('review.early', { date: f.date(one.judgeFrom) })
                    : verdictSentence(one, block, t, f),
              })}
            </li>
          ))}
        </Bullets>
      )}
    </Stack>
  )
}

function ToChange({ changes }: { changes: readonly Change[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const says = (change: Change): string => {
    if (change.what === 'window-missed') return t('review.change.window-missed', { ...change, closes: f.date(change.closes) })
    if (change.what === 'forecast-off')
      return t('review.change.forecast-off', { ...change, days: f.number(Math.abs(change.days)), way: change.days > 0 ? 'late' : 'early' })
    if (change.what === 'leave-check') return t('review.change.leave-check', change)
    return t(`review.change.${change.what}`, { ...change, on: f.date(change.on) })
  }
  return (
    <Stack $gap={6}>
      <Heading>{t('review.change')}</Heading>
      {changes.length === 0 ? <p>{t('review.nothingToChange')}</p> : null}
      <Bullets>
        {changes.map((change, i) => (
          <li key={i}>
            {says(change)}{' '}
            {'watchId' in change ? (
              <Link className="off-paper" to={`/sites/${site.id}/windows?watch=${change.watchId}`}>
                {t('review.open')}
              </Link>
            ) : null}
          </li>
        ))}
      </Bullets>
    </Stack>
  )
}

function Next({ rows, skill }: { rows: readonly WatchForecast[]; skill: readonly EventSkill[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: ahead } = useRead(endpoints.outcomes.ahead, { params: { siteId: site.id }, input: { season: site.season.start } })
  if (!ahead) return <Waiting />
  const day = (index: number | null): string => f.shortDate(f.seasonDay(ahead.season, index ?? 0))
  const months = (all: readonly number[]): string => all.map((month) => f.month(`2000-${String(month).padStart(2, '0')}-01`)).join(', ')
  const seen = skill.map(({ organismName, name, event, seasons }) => {
    // By their place in the year, whichever year it was.
    const days = seasons.map((one) => `2000${one.day.slice(4)}`).sort()
    const [from, to] = [days[0] ?? '', days.at(-1) ?? '']
    const span = from === to ? f.shortDate(from) : f.span(from, to)
    return { key: `${organismName} ${event}`, says: t('review.seen', { name: organismName, event: name, span, count: days.length }) }
  })
  const coming = rows.flatMap(({ watch, organismName: name, usual }) => {
    const own = ahead.windows.filter(({ watchId }) => watchId === watch.id)
    // Dates where the model gives any, else the usual months.
    return own.length > 0
      ? own.map(({ generation, generationName, opens }) => ({
          key: `${watch.id} ${generation}`,
          says: t('review.opens', { name, generation: generationName, date: day(opens.p50), from: day(opens.p10), to: day(opens.p90) }),
        }))
      : usual.map((one) => ({
          key: `${watch.id} ${one.generation}`,
          says: t('review.usual', { name, generation: one.name, months: months(one.months) }),
        }))
  })
  if (seen.length + coming.length === 0) return null
  return (
    <Stack $gap={6}>
      <Heading>{t('review.next')}</Heading>
      <Bullets>
        {[...coming, ...seen].map(({ key, says }) => (
          <li key={key}>{says}</li>
        ))}
      </Bullets>
    </Stack>
  )
}
