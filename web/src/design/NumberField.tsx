import { useState, type KeyboardEvent } from 'react'
import { Input, Label, TextField as AriaTextField } from 'react-aria-components'
import { useIntl } from 'react-intl'
import styled from 'styled-components'
import { useText } from '../messages/useText.js'
import { Described, fieldStyle, type FieldProps } from './fields.js'
import { readNumber } from './readNumber.js'
import { font } from './theme.js'
import type { Measure } from './units.js'

const StyledNumber = styled(AriaTextField)`
  ${fieldStyle}
  .with-unit {
    display: flex;
    align-items: center;
    gap: 6px;
  }
  input {
    font-family: ${font.figures};
  }
`

/**
 * A number with its unit behind it, typed with a point or a comma; empty is null. What cannot be read stays as it was typed and says why;
 * its value is then NaN, which no form takes.
 */
export function NumberField(
  p: FieldProps & { value: number | null; onChange: (value: number | null) => void; unit?: string; digits?: number; least?: number },
) {
  const t = useText()
  const { locale } = useIntl()
  const [typed, setTyped] = useState<{ text: string; value: number | null } | null>(null)
  const shown = (value: number | null): string =>
    value === null || !Number.isFinite(value)
      ? ''
      : new Intl.NumberFormat(locale, { maximumFractionDigits: p.digits ?? 2, useGrouping: false }).format(value)
  // What is typed stands until the value becomes another one from elsewhere.
  const isTyped = typed !== null && Object.is(typed.value, p.value)
  const read = isTyped ? readNumber(typed.text, p.unit) : undefined
  const problem = read && 'problem' in read ? t(`number.${read.problem}`, { text: typed?.text.trim() ?? '' }) : undefined
  const take = (text: string): void => {
    const now = readNumber(text, p.unit)
    const value = 'value' in now ? now.value : NaN
    setTyped({ text, value })
    p.onChange(value)
  }
  const step = (event: KeyboardEvent): void => {
    const by = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
    if (by === 0 || Number.isNaN(p.value)) return
    event.preventDefault()
    const next = (p.value ?? 0) + by
    setTyped(null)
    p.onChange(p.least === undefined ? next : Math.max(p.least, next))
  }
  return (
    <StyledNumber
      value={isTyped ? typed.text : shown(p.value)}
      onChange={take}
      onBlur={() => (problem === undefined ? setTyped(null) : undefined)}
      isInvalid={p.error !== undefined || problem !== undefined}
      validationBehavior="aria"
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      <span className="with-unit">
        <Input inputMode={p.digits === 0 && p.least !== undefined ? 'numeric' : 'decimal'} autoComplete="off" onKeyDown={step} />
        {p.unit ? <span>{p.unit}</span> : null}
      </span>
      <Described {...p} error={problem ?? p.error} />
    </StyledNumber>
  )
}

/** A quantity that is kept in SI, shown and typed in the unit of the site. */
export function QuantityField({
  measure,
  value,
  onChange,
  ...p
}: Omit<Parameters<typeof NumberField>[0], 'unit' | 'digits'> & { measure: Measure }) {
  return (
    <NumberField
      {...p}
      unit={measure.unit}
      digits={measure.digits}
      value={value === null ? null : measure.shown(value)}
      onChange={(typed) => onChange(typed === null ? null : measure.stored(typed))}
    />
  )
}

/** A number that something is computed from while it is typed: what cannot be read counts as nothing. */
export const readable = (value: number | null): number | null => (value === null || Number.isNaN(value) ? null : value)
