import { SlidersHorizontal } from 'lucide-react'
import { Dialog, DialogTrigger } from 'react-aria-components'
import styled from 'styled-components'
import type { AxisKind } from '../band/SeasonBand.js'
import { SeasonStrip } from '../band/SeasonStrip.js'
import { GROUPINGS, type Grouping } from '../band/urgency.js'
import { Button } from '../design/buttons.js'
import { Checkbox, Choice } from '../design/controls.js'
import { Options } from '../design/fields.js'
import { useText } from '../messages/useText.js'
import '../messages/en/windows.js'

export interface PhoneViewProps {
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

/** How the windows are shown, where a desk's tools have no room: behind one button. */
export function PhoneView(p: PhoneViewProps) {
  const t = useText()
  return (
    <DialogTrigger>
      <Button $plain aria-label={t('phoneView.title')}>
        <SlidersHorizontal size={18} aria-hidden style={{ verticalAlign: '-4px' }} />
      </Button>
      <Options style={{ maxHeight: 'none' }}>
        <Dialog aria-label={t('phoneView.title')} style={{ outline: 'none' }}>
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
            <SeasonStrip whole={false} inside />
          </Views>
        </Dialog>
      </Options>
    </DialogTrigger>
  )
}
