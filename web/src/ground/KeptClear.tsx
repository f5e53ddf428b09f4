import { NEAR_M, type Geometry } from '@bocado/contract'
import { useEffect } from 'react'
import { QuantityField, readable } from '../design/NumberField.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useClear } from './near.js'
import '../messages/en/ground.js'

interface KeptClearProps {
  placeId: string
  /** m; null as long as none was typed. */
  metres: number | null
  onMetres: (metres: number | null) => void
  /** Hears what is left, to draw it. */
  onLeft: (left: Geometry | null) => void
}

/** How much of a place is left to treat where a distance is kept from what lies near it. */
export function KeptClear({ placeId, metres, onMetres, onLeft }: KeptClearProps) {
  const t = useText()
  const { measures } = useFormat()
  const typed = readable(metres)
  return (
    <>
      <QuantityField label={t('drawn.clear')} width="12ch" measure={measures.height} value={metres} onChange={onMetres} />
      {typed !== null && typed > 0 && typed <= NEAR_M ? <Left placeId={placeId} metres={typed} onLeft={onLeft} /> : null}
    </>
  )
}

function Left({ placeId, metres, onLeft }: { placeId: string; metres: number; onLeft: (left: Geometry | null) => void }) {
  const data = useClear(placeId, metres)
  useEffect(() => {
    onLeft(data && data.from.length > 0 ? data.left : null)
    return () => onLeft(null)
  }, [data, onLeft])
  return data ? <LeftWords clear={data} /> : null
}

/** How much is left, in words. */
export function LeftWords({ clear }: { clear: NonNullable<ReturnType<typeof useClear>> }) {
  const t = useText()
  const f = useFormat()
  const [left, whole] = [f.area(clear.leftM2 / 10_000), f.area(clear.wholeM2 / 10_000)]
  return (
    <Small role="status">
      {clear.from.length === 0
        ? t('drawn.clearAll', { whole })
        : clear.left === null
          ? t('drawn.clearNone')
          : t('drawn.clearLeft', { left, whole })}
    </Small>
  )
}
