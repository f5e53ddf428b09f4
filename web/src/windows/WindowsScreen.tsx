import { endpoints, type Band, type WatchForecast } from '@bocado/contract'
import { Maximize2, Plus, ZoomIn, ZoomOut } from 'lucide-react'
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOrganisms, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useRangeControls } from '../band/range.js'
import { DerivedNote } from '../band/DerivedNote.js'
import { SeasonBand, usualRange, type AxisKind } from '../band/SeasonBand.js'
import { ghosts } from '../band/streams.js'
import { byUrgency, filtered, grouped, GROUPINGS, urgencyOf, type Group, type Grouping } from '../band/urgency.js'
import { groupWords } from '../band/groupWords.js'
import { windowSentence } from '../band/words.js'
import { Button } from '../design/buttons.js'
import { Checkbox, Choice, SearchField, Select } from '../design/controls.js'
import { Columns, Empty, Line, Page, Rows, Title } from '../design/text.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { useAsked } from '../shell/useAsked.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { groupOf, isShown, overThreshold, SHOWN } from './shown.js'
import { AddWatchLater, BandTableLater, FirstStepsLater, PhoneViewLater, PlanPanelLater } from './panelsLater.js'
import { usePlanning } from './usePlanning.js'
import { WatchDetail } from './WatchDetail.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  padding: 12px 20px;
  .right {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    gap: 10px 14px;
    align-items: center;
  }
  .phone {
    display: none;
  }
  @media ${PHONE} {
    .phone {
      display: inline-block;
      min-width: 52px;
      min-height: 48px;
    }
    padding: 12px 14px;
    .desk {
      display: none;
    }
  }
`
const Tools = styled(Head)`
  padding: 0 20px 10px;
  @media ${PHONE} {
    flex-wrap: nowrap;
    padding: 8px 14px 10px;
    > :not(.desk) {
      flex: 1 1 0;
      min-width: 0;
      width: auto !important;
    }
    input,
    button {
      min-height: 48px;
    }
  }
`
const Icons = styled.span`
  display: inline-flex;
  gap: 4px;
  button {
    padding: 6px 9px;
  }
`
const Sentences = styled(Rows)`
  display: none;
  @media ${PHONE} {
    display: block;
    margin: 0 14px;
  }
  button {
    border: 0;
    border-left: 5px solid transparent;
    background: none;
    text-align: left;
    padding: 6px 10px;
    width: 100%;
    min-height: 56px;
    &[aria-pressed='true'] {
      background: ${colour.white};
      border-left-color: ${colour.petrol};
    }
    b {
      display: block;
    }
  }
`

/** Where the first steps will stand, so that nothing moves when they come. */
const StepsPlace = styled.div`
  min-height: 45px;
`
const GroupName = styled.h2`
  display: none;
  @media ${PHONE} {
    display: block;
    padding: 10px 14px 6px;
    font-size: ${size.small};
    color: ${colour.inkSoft};
  }
`

/** Dragging a pin changes nothing of what is said of the watch. */
const Detail = memo(WatchDetail)

/** On a phone the band is a list of sentences, and one row. */
const PhoneRows = memo(function PhoneRows(p: {
  groups: readonly Group[]
  blockNames: ReadonlyMap<string, string>
  sentences: ReadonlyMap<string, string>
  selected: string
  onSelect: (watchId: string) => void
}) {
  const t = useText()
  return p.groups.map((group) => (
    <div key={group.id}>
      <GroupName>{groupWords(group, t)}</GroupName>
      <Sentences>
        {group.rows.map(({ watch, organismName }) => (
          <li key={watch.id}>
            <button aria-pressed={watch.id === p.selected} onClick={() => p.onSelect(watch.id)}>
              <b>
                {organismName}, {p.blockNames.get(watch.blockId)}
              </b>
              {p.sentences.get(watch.id)}
            </button>
          </li>
        ))}
      </Sentences>
    </div>
  ))
})

/** Closer, farther and whole, by button and key. */
function Zoom({ band, rows }: { band: Band; rows: readonly WatchForecast[] }) {
  const t = useText()
  const { show, now } = useRangeControls()
  const { days, todayIndex } = band.season
  const by = (factor: number): void => {
    const [from, to] = now() ?? usualRange(rows, days, todayIndex)
    const middle = todayIndex > from && todayIndex < to ? todayIndex : (from + to) / 2
    show([middle - (middle - from) / factor, middle + (to - middle) / factor], days)
  }
  useKeys({ '+': () => by(1.6), '-': () => by(1 / 1.6), '0': () => show(null, days) })
  return (
    <Icons>
      <Button $plain aria-label={t('band.zoomOut')} onPress={() => by(1 / 1.6)}>
        <ZoomOut size={16} aria-hidden />
      </Button>
      <Button $plain aria-label={t('band.zoomIn')} onPress={() => by(1.6)}>
        <ZoomIn size={16} aria-hidden />
      </Button>
      <Button $plain aria-label={t('band.whole')} onPress={() => show([0, days], days)}>
        <Maximize2 size={16} aria-hidden />
      </Button>
    </Icons>
  )
}

/** So many rows are drawn in the time of a blink. */
const AT_ONCE = 8
/** As many watches a garden has in view at once. */
const GARDEN_FEW = 7

/** The groups that start folded: what is past asks for nothing. */
const FOLDED: readonly string[] = ['past']

/** The season band with what it says about the chosen watch, and a treatment planned into its window. */
export function WindowsScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  // Drawn row by row where there is time between, so that the page answers meanwhile. A few rows stand at once when they first come.
  const newest = useBand(site.id, site.season.start).data
  const drawn = useDeferredValue(newest)
  const band = drawn ?? (newest && newest.watches.length <= AT_ONCE ? newest : undefined)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const [axis, setAxis] = useState<AxisKind>('days')
  const [isAsked, setAdding] = useState<boolean | undefined>()
  const stepsKey = `bocado.first-steps ${site.id}`
  const [stepsHidden, setStepsHidden] = useState(() => localStorage.getItem(stepsKey) !== null)
  useAsked('watch', () => setAdding(true))
  const [showPast, setShowPast] = useState(false)
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set())
  const by = (GROUPINGS as readonly string[]).includes(search.get('group') ?? '') ? (search.get('group') as Grouping) : 'urgency'
  const words = search.get('find') ?? ''
  const asTable = search.get('as') === 'table'
  const blockNames = useMemo(() => new Map((blocks ?? []).map(({ id, name }) => [id, name])), [blocks])
  const all = useMemo(() => (band ? [...band.watches].sort(byUrgency) : []), [band])
  const sentences = useMemo(() => new Map(all.map((row) => [row.watch.id, windowSentence(row, t, f)])), [all, t, f])
  const show = SHOWN.find((id) => id === search.get('show')) ?? 'all'
  const kept = useMemo(() => all.filter((row) => isShown(row, show, organisms, site.today)), [all, show, organisms, site.today])
  const rows = useMemo(
    () =>
      filtered(kept, words, (row) =>
        [
          row.organismName,
          row.scientificName,
          blockNames.get(row.watch.blockId),
          t(`watch.kind.${row.kind}` as Parameters<typeof t>[0]),
          sentences.get(row.watch.id),
          t(`band.group.${groupOf(row)}` as Parameters<typeof t>[0]),
          ...row.generations.map(({ name }) => name),
          overThreshold(row, organisms) ? t('band.show.over') : '',
          row.moved ? t('band.show.moved') : '',
        ].join(' '),
      ),
    [kept, words, blockNames, sentences, organisms, t],
  )
  const groups = useMemo(() => grouped(rows, by, blockNames), [rows, by, blockNames])
  // Where nothing is watched yet that is the one question.
  const adding = isAsked ?? (band !== undefined && all.length === 0 && (blocks ?? []).length > 0 && site.archivedAt === null)
  const selected = all.find(({ watch }) => watch.id === search.get('watch')) ?? rows[0] ?? all[0]
  const folded = useMemo(() => {
    const ids = new Set<string>(
      by === 'urgency' && words === '' ? FOLDED.filter((id) => groups.length > 1 && groups.some((g) => g.id === id)) : [],
    )
    // A group stays open while it holds the chosen watch.
    for (const group of groups) if (group.rows.some((row) => row === selected)) ids.delete(group.id)
    for (const id of toggled) if (!ids.delete(id)) ids.add(id)
    return ids
  }, [by, words, groups, toggled, selected])
  const planning = usePlanning(selected)
  usePageTitle(
    selected ? t('jump.watch', { organism: selected.organismName, block: blockNames.get(selected.watch.blockId) ?? '' }) : t('nav.windows'),
    [...(show === 'all' ? [] : [t(`band.show.${show}`)]), ...(words === '' ? [] : [`“${words}”`])].join(', '),
  )
  const { data: pastSeasons } = useRead(
    endpoints.watches.pastSeasons,
    { params: { siteId: site.id, watchId: selected?.watch.id ?? '' }, input: {} },
    showPast && selected !== undefined,
  )
  const past = useMemo(
    () => (showPast && selected && pastSeasons ? ghosts(selected, pastSeasons) : undefined),
    [showPast, selected, pastSeasons],
  )
  useKeys({ h: () => band?.heatAxis && setAxis((now) => (now === 'heat' ? 'days' : 'heat')) })

  const latest = useRef({ search, setSearch, planning })
  useEffect(() => {
    latest.current = { search, setSearch, planning }
  })
  // Both stay the same between renders, so that rows and tools need not be drawn again.
  const go = useCallback((changes: Readonly<Record<string, string | null>>): void => {
    const next = new URLSearchParams(latest.current.search)
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) next.delete(name)
      else next.set(name, value)
    }
    latest.current.setSearch(next, { replace: true })
  }, [])
  const fold = useCallback(
    (id: string) =>
      setToggled((before) => {
        const next = new Set(before)
        if (!next.delete(id)) next.add(id)
        return next
      }),
    [],
  )
  const select = useCallback(
    (watchId: string): void => {
      latest.current.planning.clear()
      go({ watch: watchId })
    },
    [go],
  )

  // A gardener with three beds sees three lines, and no tools to sort them.
  const few = site.kind === 'garden' ? GARDEN_FEW : 0
  const open = all.filter((row) => ['open', 'closing'].includes(urgencyOf(row))).length
  const takeUp = useCallback((key: string): void => latest.current.planning.setMeans(key), [])
  // A pin that is dragged draws none of this again.
  const head = useMemo(
    () =>
      band ? (
        <>
          <Head>
            <Title>{t('windows.title', { watches: all.length, open })}</Title>
            <DerivedNote />
            <span className="right">
              {all.length > 0 ? (
                <span className="desk">
                  <Choice
                    label={t('weather.view')}
                    options={(['picture', 'table'] as const).map((id) => ({ id, label: t(`view.${id}`) }))}
                    value={asTable ? 'table' : 'picture'}
                    onChange={(id) => go({ as: id === 'table' ? 'table' : null })}
                  />
                </span>
              ) : null}
              {band.heatAxis && !asTable ? (
                <span className="desk">
                  <Choice
                    label={t('band.axis')}
                    options={(['days', 'heat', 'own'] as const).map((id) => ({ id, label: t(`band.${id}`) }))}
                    value={axis}
                    onChange={setAxis}
                  />
                </span>
              ) : null}
              {all.length > 0 ? (
                <span className="phone">
                  <PhoneViewLater
                    asTable={asTable}
                    onTable={(now) => go({ as: now ? 'table' : null })}
                    by={by}
                    onGroup={(group) => go({ group: group === 'urgency' ? null : group })}
                    axis={band.heatAxis && !asTable ? axis : undefined}
                    onAxis={setAxis}
                    past={showPast}
                    onPast={setShowPast}
                  />
                </span>
              ) : null}
              <Button $plain onPress={() => setAdding(!adding)} aria-expanded={adding}>
                <Plus size={16} aria-hidden style={{ verticalAlign: '-3px' }} /> {t('watch.add')}
              </Button>
            </span>
          </Head>
          {all.length > few ? (
            <Tools>
              <SearchField label={t('band.find')} width="26ch" value={words} onChange={(find) => go({ find: find || null })} />
              <Select
                hideLabel
                label={t('band.show')}
                placeholder={t('choose')}
                width="24ch"
                options={SHOWN.map((id) => ({
                  id,
                  label: t('band.showOption', {
                    what: t(`band.show.${id}`),
                    rows: all.filter((row) => isShown(row, id, organisms, site.today)).length,
                  }),
                }))}
                value={show}
                onChange={(id) => go({ show: id === 'all' ? null : id })}
              />
              <span className="desk">
                <Choice
                  label={t('band.groupBy')}
                  options={GROUPINGS.map((id) => ({ id, label: t(`band.groupBy.${id}`) }))}
                  value={by}
                  onChange={(group) => go({ group: group === 'urgency' ? null : group })}
                />
              </span>
              {asTable ? null : (
                <span className="right desk">
                  <Checkbox label={t('band.past')} value={showPast} onChange={setShowPast} />
                  <Zoom band={band} rows={rows} />
                </span>
              )}
            </Tools>
          ) : null}
        </>
      ) : null,
    [band, all, few, rows, open, asTable, axis, adding, words, by, show, organisms, site.today, showPast, go, t],
  )

  // What is said of each watch stands without the list of organisms, which is long.
  if (!band || !blocks) return <Waiting />
  // Until somebody has looked, or something was seen, the site is new.
  const isNew = !all.some(({ rounds, seen }) => rounds.length > 0 || seen.length > 0)
  return (
    <main>
      {isNew && !stepsHidden ? (
        <StepsPlace className="off-paper">
          <FirstStepsLater
            band={band}
            onHide={() => {
              localStorage.setItem(stepsKey, 'hidden')
              setStepsHidden(true)
            }}
          />
        </StepsPlace>
      ) : null}
      {head}
      {adding && organisms ? (
        <AddWatchLater
          blocks={blocks}
          organisms={organisms}
          blockId={selected?.watch.blockId}
          onAdded={(id) => {
            setAdding(false)
            select(id)
          }}
          onCancel={() => setAdding(false)}
        />
      ) : null}
      {selected ? (
        <>
          {asTable ? null : (
            <PhoneRows groups={groups} blockNames={blockNames} sentences={sentences} selected={selected.watch.id} onSelect={select} />
          )}
          {rows.length === 0 ? (
            <Page as="div">
              <p>{words === '' ? t('band.nothingShown', { what: t(`band.show.${show}`) }) : t('band.nothingFound', { words })}</p>
            </Page>
          ) : asTable ? (
            <BandTableLater groups={groups} blockNames={blockNames} sentences={sentences} selected={selected.watch.id} onSelect={select} />
          ) : (
            <SeasonBand
              band={band}
              groups={groups}
              folded={folded}
              onFold={fold}
              blockNames={blockNames}
              sentences={sentences}
              axis={axis}
              selected={selected.watch.id}
              onSelect={select}
              draft={planning.draft}
              onPin={planning.onPin}
              past={past}
            />
          )}
          <Page as="div">
            {organisms ? (
              <Columns $left="1fr" $right="1fr">
                <Detail
                  key={selected.watch.id}
                  forecast={selected}
                  organism={organisms.find(({ id }) => id === selected.watch.organismId)}
                  blockName={blockNames.get(selected.watch.blockId) ?? ''}
                  onPlan={takeUp}
                />
                <PlanPanelLater key={`plan-${selected.watch.id}`} forecast={selected} planning={planning} />
              </Columns>
            ) : (
              <Waiting />
            )}
          </Page>
        </>
      ) : adding ? null : (
        <Page as="div">
          <Empty>
            <p>{t(blocks.length === 0 ? 'windows.emptyNoBlocks' : 'windows.empty')}</p>
            <Line>
              {blocks.length === 0 ? (
                <Link to={`/sites/${site.id}/site`}>{t('windows.toSite')}</Link>
              ) : (
                <Button onPress={() => setAdding(true)}>{t('watch.first')}</Button>
              )}
              <Link to={`/sites/${site.id}/weather`}>{t('windows.toWeather')}</Link>
            </Line>
          </Empty>
        </Page>
      )}
    </main>
  )
}
