import { Input, Label, NumberField as AriaNumberField } from 'react-aria-components'
import styled from 'styled-components'
import { Described, fieldStyle, type FieldProps } from './fields.js'
import { font } from './theme.js'

const StyledNumber = styled(AriaNumberField)`
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

/** A number with its unit behind it; empty is null. */
export function NumberField(
  p: FieldProps & { value: number | null; onChange: (value: number | null) => void; unit?: string; digits?: number; least?: number },
) {
  return (
    <StyledNumber
      value={p.value ?? NaN}
      onChange={(value) => p.onChange(Number.isNaN(value) ? null : value)}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      formatOptions={{ maximumFractionDigits: p.digits ?? 2, useGrouping: false }}
      {...(p.least === undefined ? {} : { minValue: p.least })}
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      <span className="with-unit">
        <Input />
        {p.unit ? <span>{p.unit}</span> : null}
      </span>
      <Described {...p} />
    </StyledNumber>
  )
}
