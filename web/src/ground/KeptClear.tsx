import { endpoints, NEAR_M, type Geometry } from '@bocado/contract'
import { useEffect } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { QuantityField, readable } from '../design/NumberField.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
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
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.ground.keptClear, { params: { siteId: site.id, placeId }, input: { metres } })
  useEffect(() => {
    onLeft(data && data.from.length > 0 ? data.left : null)
    return () => onLeft(null)
  }, [data, onLeft])
  if (!data) return null
  const [left, whole] = [f.area(data.leftM2 / 10_000), f.area(data.wholeM2 / 10_000)]
  return (
    <Small role="status">
      {data.from.length === 0
        ? t('drawn.clearAll', { whole })
        : data.left === null
          ? t('drawn.clearNone')
          : t('drawn.clearLeft', { left, whole })}
    </Small>
  )
}
