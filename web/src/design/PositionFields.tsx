import { useState } from 'react'
import { Input, Label, TextField as AriaTextField } from 'react-aria-components'
import styled from 'styled-components'
import { useText } from '../messages/useText.js'
import { Described, fieldStyle, type FieldProps } from './fields.js'
import type { Bound } from '../api/bindings.js'
import { readCoordinate, type Axis } from './readCoordinate.js'
import { font } from './theme.js'

const Styled = styled(AriaTextField)`
  ${fieldStyle}
  input {
    font-family: ${font.figures};
  }
`

/**
 * Latitude or longitude in degrees, typed or pasted as it stands on a map: degrees and minutes, with letters, or both at once, which then
 * fill both fields. What cannot be read stays and says so; its value is then NaN, which no form takes.
 */
function CoordinateField(
  p: FieldProps & {
    axis: Axis
    value: number | null
    onChange: (value: number | null) => void
    onBoth: (pair: Record<Axis, number>) => void
  },
) {
  const t = useText()
  const [typed, setTyped] = useState<{ text: string; value: number | null } | null>(null)
  const isTyped = typed !== null && Object.is(typed.value, p.value)
  const wrong = isTyped && Number.isNaN(typed.value)
  const take = (text: string): void => {
    const found = text.trim() === '' ? null : readCoordinate(text, p.axis)
    const { latitude, longitude } = found ?? {}
    if (latitude !== undefined && longitude !== undefined) {
      setTyped(null)
      return p.onBoth({ latitude, longitude })
    }
    const value = found === null ? null : (found?.[p.axis] ?? NaN)
    setTyped({ text, value })
    return p.onChange(value)
  }
  return (
    <Styled
      value={isTyped ? typed.text : p.value === null || Number.isNaN(p.value) ? '' : String(Math.round(p.value * 1e5) / 1e5)}
      onChange={take}
      onBlur={() => (wrong ? undefined : setTyped(null))}
      isInvalid={wrong || p.error !== undefined}
      validationBehavior="aria"
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      <Input autoComplete="off" inputMode="text" />
      <Described {...p} error={wrong ? t('coordinate.wrong', { axis: p.axis }) : p.error} />
    </Styled>
  )
}

/** Where something lies: latitude and longitude beside each other. */
export function PositionFields({
  latitude,
  longitude,
  hint,
  onBoth,
}: {
  latitude: Bound<number | null>
  longitude: Bound<number | null>
  hint?: string
  /** Both came at once; without it each field takes its own. */
  onBoth?: (pair: Record<Axis, number>) => void
}) {
  const t = useText()
  const both = (pair: Record<Axis, number>): void => {
    if (onBoth) return onBoth(pair)
    latitude.onChange(pair.latitude)
    longitude.onChange(pair.longitude)
  }
  return (
    <>
      <CoordinateField
        axis="latitude"
        label={t('site.latitude')}
        width="18ch"
        hint={hint ?? t('site.latitudeHint')}
        onBoth={both}
        {...latitude}
      />
      <CoordinateField
        axis="longitude"
        label={t('site.longitude')}
        width="18ch"
        hint={t('site.longitudeHint')}
        onBoth={both}
        {...longitude}
      />
    </>
  )
}
