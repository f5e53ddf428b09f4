import type { Band, Organism, WatchForecast } from '@bocado/contract'
import { Maximize2, Plus, ZoomIn, ZoomOut } from 'lucide-react'
import { memo } from 'react'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { DerivedNote } from '../band/DerivedNote.js'
import { useRangeControls } from '../band/range.js'
import { usualRange, type AxisKind } from '../band/SeasonBand.js'
import { urgencyOf } from '../band/urgency.js'
import { Button } from '../design/buttons.js'
import { SearchField, Select } from '../design/controls.js'
import { Title } from '../design/text.js'
import { PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { ViewLater } from './panelsLater.js'
import { isShown, SHOWN } from './shown.js'
import type { WindowsView } from './useWindowsView.js'
import '../messages/en/field.js'
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
    gap: 10px;
    align-items: center;
  }
  .view {
    display: inline-block;
    min-width: 96px;
    min-height: 38px;
  }
  @media ${PHONE} {
    .view {
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

/** As many watches a garden has in view at once. */
const GARDEN_FEW = 7

interface HeadProps {
  band: Band
  organisms: Organism[] | undefined
  view: Pick<WindowsView, 'all' | 'rows' | 'words' | 'show' | 'by' | 'asTable' | 'go'>
  axis: AxisKind
  onAxis: (axis: AxisKind) => void
  past: boolean
  onPast: (past: boolean) => void
  adding: boolean
  onAdding: (adding: boolean) => void
}

/** How many windows stand open, what is shown of them, and the way to watch something else. A pin that is dragged draws none of it again. */
export const WindowsHead = memo(function WindowsHead(p: HeadProps) {
  const { band, organisms, axis, adding } = p
  const { all, rows, words, show, by, asTable, go } = p.view
  const t = useText()
  const site = useSite()
  // A gardener with three beds sees three lines, and no tools to sort them.
  const few = site.kind === 'garden' ? GARDEN_FEW : 0
  const open = all.filter((row) => ['open', 'closing'].includes(urgencyOf(row))).length
  return (
    <>
      <Head>
        <Title>{t('windows.title', { watches: all.length, open })}</Title>
        <DerivedNote />
        <span className="right">
          {all.length > 0 ? (
            <span className="view">
              <ViewLater
                asTable={asTable}
                onTable={(now) => go({ as: now ? 'table' : null })}
                by={by}
                onGroup={(group) => go({ group: group === 'urgency' ? null : group })}
                axis={band.heatAxis && !asTable ? axis : undefined}
                onAxis={p.onAxis}
                past={p.past}
                onPast={p.onPast}
              />
            </span>
          ) : null}
          <Button $plain onPress={() => p.onAdding(!adding)} aria-expanded={adding}>
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
          {asTable ? null : (
            <span className="right desk">
              <Zoom band={band} rows={rows} />
            </span>
          )}
        </Tools>
      ) : null}
    </>
  )
})
