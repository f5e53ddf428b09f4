import { SlidersHorizontal } from 'lucide-react'
import { Dialog, DialogTrigger } from 'react-aria-components'
import styled from 'styled-components'
import type { AxisKind } from '../band/SeasonBand.js'
import { SeasonStrip } from '../band/SeasonStrip.js'
import { GROUPINGS, type Grouping } from '../band/urgency.js'
import { Button } from '../design/buttons.js'
import { Checkbox, Choice } from '../design/controls.js'
import { Options } from '../design/fields.js'
import { PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/windows.js'

export interface ViewProps {
  asTable: boolean
  onTable: (asTable: boolean) => void
  by: Grouping
  onGroup: (by: Grouping) => void
  /** Undefined where there is only one. */
  axis: AxisKind | undefined
  onAxis: (axis: AxisKind) => void
  past: boolean
  onPast: (past: boolean) => void
}

const Views = styled.div`
  display: grid;
  gap: 12px;
  padding: 14px;
  width: min(360px, 92vw);
`

/** A phone has room for the sign only. */
const OnDesk = styled.span`
  @media ${PHONE} {
    display: none;
  }
`
/** The season in miniature stands under the bar on a desk, and here on a phone. */
const OnPhone = styled.div`
  display: none;
  @media ${PHONE} {
    display: block;
  }
`

/** How the windows are shown: behind one button. */
export function View(p: ViewProps) {
  const t = useText()
  return (
    <DialogTrigger>
      <Button $plain aria-label={t('band.view')}>
        <SlidersHorizontal size={18} aria-hidden style={{ verticalAlign: '-4px' }} /> <OnDesk>{t('band.view')}</OnDesk>
      </Button>
      <Options style={{ maxHeight: 'none' }}>
        <Dialog aria-label={t('band.view')} style={{ outline: 'none' }}>
          <Views>
            <Choice
              label={t('weather.view')}
              options={(['picture', 'table'] as const).map((id) => ({ id, label: t(`view.${id}`) }))}
              value={p.asTable ? 'table' : 'picture'}
              onChange={(id) => p.onTable(id === 'table')}
            />
            <Choice
              label={t('band.groupBy')}
              options={GROUPINGS.map((id) => ({ id, label: t(`band.groupBy.${id}`) }))}
              value={p.by}
              onChange={p.onGroup}
            />
            {p.axis ? (
              <Choice
                label={t('band.axis')}
                options={(['days', 'heat', 'own'] as const).map((id) => ({ id, label: t(`band.${id}`) }))}
                value={p.axis}
                onChange={p.onAxis}
              />
            ) : null}
            <Checkbox label={t('band.past')} value={p.past} onChange={p.onPast} />
            <OnPhone>
              <SeasonStrip whole={false} inside />
            </OnPhone>
          </Views>
        </Dialog>
      </Options>
    </DialogTrigger>
  )
}
