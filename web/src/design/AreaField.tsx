import { useState } from 'react'
import { useText } from '../messages/useText.js'
import { Select } from './controls.js'
import { NumberField } from './NumberField.js'
import { Line } from './text.js'
import { groundOf } from './units.js'
import { useFormat } from './useFormat.js'

/** An area that is kept in hectares; typed in the unit that fits it, large or small, so that 40 m² stay 40 m². */
export function AreaField(p: {
  label: string
  /** ha */
  value: number | null
  onChange: (ha: number | null) => void
  error?: string | undefined
  hint?: string
  /** A bed or pots: small from the start. */
  isSmall?: boolean
}) {
  const t = useText()
  const { measures } = useFormat()
  const [chosen, setChosen] = useState<'large' | 'small' | null>(null)
  const [firstValue] = useState(p.value)
  const unit = chosen ?? (groundOf(firstValue, measures).isSmall || (firstValue === null && p.isSmall) ? 'small' : 'large')
  const measure = unit === 'small' ? groundOf(0, measures) : { ...measures.area, isSmall: false }
  const { value, onChange } = p
  return (
    <Line style={{ alignItems: 'flex-start', flexWrap: 'nowrap', gap: 6 }}>
      <NumberField
        label={p.label}
        width="13ch"
        digits={unit === 'small' ? measure.digits : 4}
        value={value === null ? null : measure.shown(value)}
        onChange={(typed) => onChange(typed === null ? null : measure.stored(typed))}
        error={p.error}
        {...(p.hint === undefined ? {} : { hint: p.hint })}
      />
      <Select
        label={t('area.unit')}
        placeholder=""
        width="9ch"
        options={[
          { id: 'large', label: measures.area.unit },
          { id: 'small', label: measures.ground.unit },
        ]}
        value={unit}
        onChange={(id) => setChosen(id === 'small' ? 'small' : 'large')}
      />
    </Line>
  )
}
