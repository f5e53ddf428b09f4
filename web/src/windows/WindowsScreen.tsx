import { endpoints, type WatchForecast } from '@bocado/contract'
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState, type ComponentProps } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOrganisms, useRead } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { SeasonBand, type AxisKind } from '../band/SeasonBand.js'
import { ghosts } from '../band/streams.js'
import { Button } from '../design/buttons.js'
import { Empty, Line, Page } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { partLater } from '../shell/partLater.js'
import { useAsked } from '../shell/useAsked.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { Decision } from './Decision.js'
import { FirstStepsHere } from './FirstStepsHere.js'
import { AddWatchLater, BandTableLater, HourBoardLater } from './panelsLater.js'
import { PhoneRows } from './PhoneRows.js'
import { boardHeight } from './boardHeight.js'
import { usePlanning, type Planning } from './usePlanning.js'
import { chosenOf, useOffered, useShelfFor } from './useShelfFor.js'
import { useWindowsView } from './useWindowsView.js'
import { WindowsHead } from './WindowsHead.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

/** From here on the decision has its place beside the rows; below it stands under them. */
const BESIDE = 'screen and (min-width: 1100px)'

/** Rows and what is decided about the chosen one, both in view. */
const Split = styled.div`
  @media ${BESIDE} {
    display: grid;
    grid-template-columns: minmax(0, 1fr) clamp(420px, 34vw, 560px);
    align-items: start;
  }
`
const Beside = styled.aside`
  @media ${BESIDE} {
    position: sticky;
    top: 0;
    max-height: 100vh;
    overflow-y: auto;
    background: ${colour.sheet};
    border-left: 1px solid ${colour.rule};
  }
`

/** Where the first steps will stand, so that nothing moves when they come. */
/** Dragging a pin changes nothing of the head. */
const Chosen = memo(Decision)

/** So many rows are drawn in the time of a blink. */
const AT_ONCE = 8

/** The season band with what is decided about the chosen watch beside it. */
export function WindowsScreen() {
  const t = useText()
  const site = useSite()
  // Drawn row by row where there is time between, so that the page answers meanwhile. A few rows stand at once when they first come.
  const newest = useBand(site.id, site.season.start).data
  const drawn = useDeferredValue(newest)
  const band = drawn ?? (newest && newest.watches.length <= AT_ONCE ? newest : undefined)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const view = useWindowsView(band, blocks, organisms)
  const { all, rows, groups, selected, sentences, blockNames, words, show, asTable, go } = view
  const [axis, setAxis] = useState<AxisKind>('days')
  const [isAsked, setAdding] = useState<boolean | undefined>()
  useAsked('watch', () => setAdding(true))
  const [showPast, setShowPast] = useState(false)
  // Where nothing is watched yet that is the one question.
  const adding = isAsked ?? (band !== undefined && all.length === 0 && (blocks ?? []).length > 0 && site.archivedAt === null)
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

  const latest = useRef(planning)
  useEffect(() => {
    latest.current = planning
  })
  const select = useCallback(
    (watchId: string): void => {
      latest.current.clear()
      go({ watch: watchId })
    },
    [go],
  )

  const under = useUnder(selected, planning)

  // The newest season before this one of which anything is kept.
  const before = site.seasons.find((season) => season < site.season.start)
  // What is said of each watch stands without the list of organisms, which is long.
  if (!band || !blocks) return <Waiting />
  const chosen = { blockNames, sentences, selected: selected?.watch.id ?? '', onSelect: select }
  return (
    <main>
      <FirstStepsHere band={band} />
      <Split>
        <div>
          <WindowsHead
            band={band}
            organisms={organisms}
            view={view}
            axis={axis}
            onAxis={setAxis}
            past={showPast}
            onPast={setShowPast}
            adding={adding}
            onAdding={setAdding}
          />
          {/* A new season: what was watched in the one before stands again at one press. */}
          {band.watches.length === 0 && blocks.length > 0 && before ? (
            <Page as="div">
              <Line>
                <CarryOn from={before} season={site.season.start} />
              </Line>
            </Page>
          ) : null}
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
          {selected && !asTable ? <PhoneRows groups={groups} {...chosen} /> : null}
          {!selected ? null : rows.length === 0 ? (
            <Page as="div">
              <p>{words === '' ? t('band.nothingShown', { what: t(`band.show.${show}`) }) : t('band.nothingFound', { words })}</p>
            </Page>
          ) : asTable ? (
            <BandTableLater groups={groups} {...chosen} />
          ) : (
            <SeasonBand
              band={band}
              groups={groups}
              folded={view.folded}
              onFold={view.fold}
              axis={axis}
              {...chosen}
              sentences={view.short}
              draft={planning.draft}
              onPin={planning.onPin}
              past={past}
              under={under}
            />
          )}
        </div>
        {selected ? (
          <Beside>
            <Chosen
              key={selected.watch.id}
              forecast={selected}
              organism={organisms?.find(({ id }) => id === selected.watch.organismId)}
              blockName={blockNames.get(selected.watch.blockId) ?? ''}
              planning={planning}
            />
          </Beside>
        ) : null}
      </Split>
      {selected || adding ? null : <NothingWatched noBlocks={blocks.length === 0} onAdd={() => setAdding(true)} />}
    </main>
  )
}

const CarryOn = partLater(async () => (await import('../site/CarryOn.js')).CarryOn)

function NothingWatched({ noBlocks, onAdd }: { noBlocks: boolean; onAdd: () => void }) {
  const t = useText()
  const site = useSite()
  return (
    <Page as="div">
      <Empty>
        <p>{t(noBlocks ? 'windows.emptyNoBlocks' : 'windows.empty')}</p>
        <Line>
          {noBlocks ? (
            <Link to={`/sites/${site.id}/site`}>{t('windows.toSite')}</Link>
          ) : (
            <Button onPress={onAdd}>{t('watch.first')}</Button>
          )}
          <Link to={`/sites/${site.id}/weather`}>{t('windows.toWeather')}</Link>
        </Line>
      </Empty>
    </Page>
  )
}

/** The hours of what is chosen, under the chosen row; nothing in a past season, and nothing before it is known what can be done. */
function useUnder(selected: WatchForecast | undefined, planning: Planning): ComponentProps<typeof SeasonBand>['under'] {
  const { isPast } = useSeasonChoice()
  const watch = selected?.watch
  const shelf = useShelfFor({ organismId: watch?.organismId ?? '', blockId: watch?.blockId ?? '' })
  const offered = useOffered(shelf)
  const means = selected && chosenOf(offered, selected, planning)?.means
  return useMemo(
    () =>
      selected && !isPast && (!shelf.known || means)
        ? {
            height: boardHeight,
            draw: (size) => (means ? <HourBoardLater forecast={selected} means={means} {...size} /> : null),
          }
        : undefined,
    [selected, isPast, shelf.known, means],
  )
}
