import type { Label } from '@bocado/contract'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import type { Bound } from '../api/bindings.js'
import { NumberField, readable } from '../design/NumberField.js'
import { productMeans } from '../band/means.js'
import { keptClearBy, ruledMeans } from '../band/rules.js'
import { TextButton } from '../design/buttons.js'
import { Fields, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { LeftWords } from '../ground/KeptClear.js'
import { useClear, useNear } from '../ground/near.js'
import { useRulesAt } from '../windows/useRulesAt.js'
import { useText } from '../messages/useText.js'
import { useMethods } from '../windows/useShelfFor.js'
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
  /** What was used, and on which day: rules and its label may ask for a distance. */
  label: Label
  day: string
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
  const rules = useRulesAt(p.placeId)
  const { data: methods = [] } = useMethods()
  const { height } = f.measures
  if (near.length === 0) return null
  const asked = keptClearBy(rules, ruledMeans(productMeans({ ...p.label, shared: false }), methods), p.label.bufferM, p.day)
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
        {asked !== null && (metres === null || metres < asked) ? (
          <TextButton
            onPress={() => {
              setTyped(true)
              field.onChange(height.shown(asked))
            }}
          >
            {t('record.clearAsked', { away: f.height(asked) })}
          </TextButton>
        ) : null}
        {clear ? <LeftWords clear={clear} /> : null}
      </Beside>
    </Fields>
  )
}
