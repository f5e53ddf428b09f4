import { endpoints, type Block, type Organism, type Round, type Threshold, type WatchForecast } from '@bocado/contract'
import { memo, useDeferredValue, useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOrganisms } from '../api/hooks.js'
import { nameOf } from '../api/unsent.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { byUrgency } from '../band/urgency.js'
import { crossingOf } from '../band/crossing.js'
import { thresholdOf } from '../band/threshold.js'
import { windowSentence } from '../band/words.js'
import { Explained } from '../design/Explained.js'
import { TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { TwoSided, WithActions } from '../design/sections.js'
import { Empty, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour, PHONE } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { partLater } from '../shell/partLater.js'
import { Waiting } from '../shell/Waiting.js'
import { rowKeys } from '../design/rowKeys.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { AddCheckArea } from './AddCheckArea.js'
import { CountingRule } from './CountingRule.js'
import { enemyWords } from './enemyWords.js'
import { perWords } from './perWords.js'
import { ByHeight } from './HeightPart.js'
import { Strata } from './Strata.js'
import { Decided } from './Decided.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { FoundNothing } from './FoundNothing.js'
import { goesOnAt, heldCount } from './heldCount.js'
import { RoundsChart } from './RoundsChart.js'
import '../messages/en/count.js'
import '../messages/en/crops.js'
import '../messages/en/field.js'
import '../messages/en/threshold.js'
import '../messages/en/work.js'

const CountLink = styled(Link)`
  display: inline-flex;
  justify-self: start;
  align-items: center;
  min-height: 38px;
  padding: 6px 16px;
  border-radius: 4px;
  background: ${colour.ink};
  color: ${colour.white};
  font-weight: 600;
  text-decoration: none;
  @media ${PHONE} {
    min-height: 52px;
    width: 100%;
    justify-content: center;
    font-size: 18px;
  }
`

const ThresholdForm = partLater(async () => (await import('./ThresholdForm.js')).ThresholdForm)
const DecideForm = partLater(async () => (await import('./DecideForm.js')).DecideForm)

/** As far from each other as parts of a page are. */
const Watches = styled.div`
  display: grid;
  gap: 20px;
`

const FlagsPanel = partLater(async () => (await import('../flags/FlagsPanel.js')).FlagsPanel)

const TrapsPanel = partLater(async () => (await import('../traps/TrapsPanel.js')).TrapsPanel)

const WalkPanel = partLater(async () => (await import('./WalkPanel.js')).WalkPanel)

const PANELS = ['walk', 'counts', 'traps', 'flags'] as const

/** What to go and look at: counts of what is watched, traps, and flags where something stands that should not. */
export function ScoutingScreen() {
  const t = useText()
  const [search, setSearch] = useSearchParams()
  const { isPast } = useSeasonChoice()
  // What is over is not walked for any more.
  const panels = PANELS.filter((p) => p !== 'walk' || !isPast)
  const panel = panels.find((p) => p === search.get('panel')) ?? 'counts'
  usePageTitle(t('nav.scouting'), t(`scouting.panel.${panel}`))
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t('scouting.title')}</Title>
        <Choice
          label={t('scouting.panels')}
          options={panels.map((id) => ({ id, label: t(`scouting.panel.${id}`) }))}
          value={panel}
          onChange={(p) => setSearch({ panel: p }, { replace: true })}
        />
      </Line>
      {panel === 'walk' ? <WalkPanel /> : null}
      {panel === 'counts' ? <Counts /> : null}
      {panel === 'traps' ? <TrapsPanel /> : null}
      {panel === 'flags' ? <FlagsPanel /> : null}
    </Page>
  )
}

/** What to go and count, what was counted, and how it stands against the threshold. */
function Counts() {
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  if (!band || !blocks || !organisms) return <Waiting />
  return <CountList watches={band.watches} blocks={blocks} organisms={organisms} />
}

/** So many fill any screen; those below come a moment later. */
const IN_SIGHT = 4

interface CountListProps {
  watches: readonly WatchForecast[]
  blocks: readonly Block[]
  organisms: readonly Organism[]
}

function CountList({ watches, blocks, organisms }: CountListProps) {
  const t = useText()
  const site = useSite()
  const all = useMemo(() => [...watches].sort(byUrgency), [watches])
  const rows = useDeferredValue(all, all.slice(0, IN_SIGHT))
  return (
    <>
      {rows.length === 0 ? (
        <Empty>
          <p>{t('scouting.empty')}</p>
          <Link to={`/sites/${site.id}/windows`}>{t('scouting.toWindows')}</Link>
        </Empty>
      ) : null}
      <Watches data-rows onKeyDown={(event) => rowKeys(event)}>
        {rows.map((row) => {
          const organism = organisms.find(({ id }) => id === row.watch.organismId)
          const block = blocks.find(({ id }) => id === row.watch.blockId)
          return organism && block ? <WatchRounds key={row.watch.id} row={row} organism={organism} block={block} /> : null
        })}
      </Watches>
    </>
  )
}

const WatchRounds = memo(function WatchRounds({ row, organism, block }: { row: WatchForecast; organism: Organism; block: Block }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [adding, setAdding] = useState(false)
  /** The threshold is being changed: to what the line was moved to, or from what it is. */
  const [sets, setSets] = useState<{ to: number | null } | null>(null)
  const { sampling } = organism
  const items = perWords(sampling, t)
  const [held] = useState(() => heldCount(row.watch.id))
  const last = row.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  const threshold = thresholdOf(row.watch, organism)
  return (
    <TwoSided>
      <Stack>
        <Heading>
          {row.organismName} <Quiet style={{ fontSize: 15 }}>{block.name}</Quiet>
        </Heading>
        <p>{windowSentence(row, t, f)}</p>
        <p>
          {threshold === null ? (
            sampling.serves === 'outcome' ? (
              t('scouting.decideBy', { decision: sampling.decision ?? '' })
            ) : (
              t('scouting.noThreshold')
            )
          ) : threshold.from === 'every-one' ? (
            t('scouting.everyOne')
          ) : (
            <Explained>{t('scouting.threshold', { threshold: f.number(threshold.per100, 2), items })}</Explained>
          )}{' '}
          {threshold?.from === 'every-one' ? null : (
            <TextButton
              aria-label={t('actFrom.editNamed', { name: row.organismName, block: block.name })}
              onPress={() => setSets({ to: null })}
            >
              {t('actFrom.edit')}
            </TextButton>
          )}
        </p>
        {threshold?.from === 'own' && row.watch.threshold?.now?.stage ? (
          <Small>
            {t('actFrom.now', {
              sure: row.watch.threshold.now.sure ? 'yes' : 'no',
              stage: t(`crops.stage.${row.watch.threshold.now.stage}`),
              per100: f.number(threshold.per100, 2),
              items,
            })}
          </Small>
        ) : null}
        <Reached row={row} threshold={threshold} />
        {sets ? <ThresholdForm key={String(sets.to)} row={row} organism={organism} begins={sets.to} onDone={() => setSets(null)} /> : null}
        <CountingRule organism={organism} per100={threshold && threshold.from !== 'every-one' ? threshold.per100 : null} />
        <CountLink to={`/sites/${site.id}/scouting/${row.watch.id}/count`}>
          {held ? t('scouting.goOn', { unit: sampling.unit, number: goesOnAt(held) + 1, counted: goesOnAt(held) }) : t('scouting.count')}
        </CountLink>
        <UnsentHere of={(item) => item.input['watchId'] === row.watch.id && item.what === nameOf(endpoints.scouting.create)} />
        {held ? null : <FoundNothing watchId={row.watch.id} sampling={sampling} name={row.organismName} />}
        <Small>
          <Explained>
            {block.checkAreas.length > 0
              ? t('scouting.checks', { names: block.checkAreas.map(({ name }) => name).join(', ') })
              : t('scouting.noCheck')}
          </Explained>{' '}
          {adding ? null : <TextButton onPress={() => setAdding(true)}>{t('check.add')}</TextButton>}
        </Small>
        {adding ? <AddCheckArea block={block} onDone={() => setAdding(false)} /> : null}
      </Stack>
      <Stack>
        {row.rounds.length > 0 ? (
          <RoundsChart rounds={row.rounds} threshold={threshold} items={items} onThreshold={(to) => setSets({ to })} />
        ) : (
          <Small>{t('scouting.none')}</Small>
        )}
        <Decided row={row} />
        <Rows>
          {[...row.rounds].reverse().map((round) => (
            <RoundLine
              key={round.id}
              round={round}
              organism={organism}
              isLast={round.id === last?.id}
              canDecide={round.id === last?.id && !row.decision}
            />
          ))}
        </Rows>
      </Stack>
    </TwoSided>
  )
})

/** When what breeds on reaches its threshold, if it goes on as it was counted. */
function Reached({ row, threshold }: { row: WatchForecast; threshold: Threshold | null }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const reached = crossingOf(row, threshold, site.today)
  if (!reached) return null
  return (
    <p data-testid="reached">
      {t('actFrom.reached', {
        since: row.treatments.some(({ done }) => done) ? 'treated' : 'first',
        days: Math.max(1, Math.round(reached.doublingDays)),
        middle: f.date(reached.middle),
        from: f.shortDate(reached.from),
        until: reached.until === null ? 'later' : f.shortDate(reached.until),
      })}
    </p>
  )
}

function RoundLine({ round, organism, isLast, canDecide }: { round: Round; organism: Organism; isLast: boolean; canDecide: boolean }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const items = perWords({ ...organism.sampling, scale: round.scale }, t)
  const { crossed, verdict } = round
  const enemies = enemyWords(round.enemies, t)
  const [decides, setDecides] = useState(false)
  const isOver = canDecide && crossed && round.threshold?.from !== 'every-one'
  const isOpen = verdict === 'undecided' || verdict === 'too-few'
  return (
    <li>
      <WithActions>
        <span>
          {f.date(round.countedOn)}, {round.checkAreaName ?? t('count.inBlock')}: {f.number(round.per100, 1)}{' '}
          {t('scouting.per100', { items })}{' '}
          {round.threshold && round.threshold.from !== 'every-one' ? (
            <b style={{ color: isOpen ? colour.ink : crossed ? colour.beet : colour.petrol }}>
              {crossed ? t('scouting.over') : t('scouting.under')}
              {isOpen ? `, ${t(`scouting.verdict.${verdict}`)}` : ''}
            </b>
          ) : null}{' '}
          <Small as="span">
            {t('scouting.by', {
              count: round.units.length,
              unit: round.units.length === 1 ? round.unit.one : round.unit.many,
              minutes: round.minutes ?? 'none',
              taken: takenWords(round, t, f),
              person: round.personName,
            })}
            {round.scale === 'presence'
              ? `. ${t('scouting.byPresence', { share: f.percent(mean(round.effective)), units: round.unit.many })}`
              : ''}
            {enemies ? `. ${t('scouting.enemies', { enemies })}` : ''}
          </Small>
          {isLast && round.threshold ? (
            <Strata parts={round.strata} threshold={round.threshold} items={items} units={round.unit.many} />
          ) : null}
          {isLast ? <ByHeight parts={round.byHeight} items={items} /> : null}
        </span>
        <Line>
          {isOver && !decides ? <TextButton onPress={() => setDecides(true)}>{t('decide.open')}</TextButton> : null}
          <Link to={`/sites/${site.id}/scouting/${round.watchId}/count?round=${round.id}`}>{t('edit')}</Link>
          <RemoveButton
            remove={endpoints.scouting.remove}
            restore={endpoints.scouting.restore}
            params={{ siteId: site.id, roundId: round.id }}
            rowVersion={round.rowVersion}
            label={t('scouting.removeNamed', { date: f.date(round.countedOn) })}
            said={t('scouting.removed', { date: f.date(round.countedOn) })}
          />
        </Line>
      </WithActions>
      {isOver && decides ? <DecideForm round={round} onDone={() => setDecides(false)} /> : null}
    </li>
  )
}

const mean = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0) / all.length

/** What was taken on the walk, and how much of it an hour, where the walk was timed. */
function takenWords({ taken, minutes }: Round, t: Say, f: Format): string {
  if (!taken) return ''
  const what = t('scouting.taken', { amount: f.number(taken.amount, 1), unit: t(`taken.${taken.unit}`) })
  return `${minutes ? t('scouting.takenAnHour', { what, each: f.number((60 * taken.amount) / minutes, 0) }) : what}, `
}
