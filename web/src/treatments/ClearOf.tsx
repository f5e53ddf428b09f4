import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Bound } from '../api/bindings.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Fields, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { LeftWords } from '../ground/KeptClear.js'
import { useClear, useNear } from '../ground/near.js'
import { useText } from '../messages/useText.js'
import '../messages/en/ground.js'

const Beside = styled.div`
  flex: 1 1 26ch;
  align-self: center;
`

/**
 * How far one kept from water, hives, neighbours and what is sensitive near the place: that ground was not treated. Nothing where nothing is
 * drawn there.
 */
export function ClearOf(p: {
  placeId: string
  /** Of the place; null where nobody has said. */
  placeHa: number | null
  /** The distance, as it is shown. */
  field: Bound<number | null>
  metres: number | null
  /** Hears how much ground is left, as soon as a distance is typed. */
  onLeft: (changes: { areaHa: number }) => void
}) {
  const t = useText()
  const f = useFormat()
  const { placeHa, onLeft, field } = p
  const near = useNear(p.placeId)
  const metres = readable(p.metres)
  const clear = useClear(p.placeId, near.length > 0 ? metres : null)
  /** What stands in a record that is corrected was said by whoever wrote it. */
  const [isTyped, setTyped] = useState(false)
  useEffect(() => {
    if (!isTyped || !clear || clear.wholeM2 === 0) return
    const ha = (clear.leftM2 / clear.wholeM2) * (placeHa ?? clear.wholeM2 / 10_000)
    onLeft({ areaHa: Number(ha.toPrecision(3)) })
  }, [isTyped, clear, placeHa, onLeft])
  if (near.length === 0) return null
  const { height } = f.measures
  return (
    <Fields>
      <NumberField
        label={t('record.clear')}
        width="14ch"
        digits={height.digits}
        unit={height.unit}
        hint={t('record.clearHint')}
        {...field}
        onChange={(value) => {
          setTyped(true)
          field.onChange(value)
        }}
      />
      <Beside>
        <Small>{t('drawn.near', { near: near.join(', ') })}</Small>
        {clear ? <LeftWords clear={clear} /> : null}
      </Beside>
    </Fields>
  )
}
