import { useState } from 'react'
import { parseDate, toCalendarDate, type CalendarDate } from '@internationalized/date'
import { DateField as AriaDateField, DateInput, DateSegment, Label } from 'react-aria-components'
import styled from 'styled-components'
import { control } from './buttons.js'
import { Described, fieldStyle, type FieldProps } from './fields.js'
import { colour, font } from './theme.js'

const StyledDate = styled(AriaDateField)`
  ${fieldStyle}
  .react-aria-DateInput {
    ${control}
    display: inline-flex;
    align-items: center;
    width: max-content;
    font-family: ${font.figures};
  }
  &[data-invalid] .react-aria-DateInput {
    border: 2px solid ${colour.beet};
  }
  .react-aria-DateSegment {
    padding: 1px 2px;
    border-radius: 2px;
    outline: none;
    &[data-focused] {
      background: ${colour.petrol};
      color: ${colour.white};
    }
    &[data-placeholder] {
      color: ${colour.inkSoft};
    }
  }
`

const toDate = (value: string | null): CalendarDate | null => {
  try {
    return value ? parseDate(value) : null
  } catch {
    return null
  }
}

/** Before this a year is still being typed, digit by digit. */
const FIRST_YEAR = 1000
/** Two digits of a year are of this century. */
const meant = (typed: CalendarDate): CalendarDate => (typed.year < 100 ? typed.set({ year: 2000 + typed.year }) : typed)

/** A day, typed or stepped with the arrow keys; `YYYY-MM-DD` outside, where a year is told once it is whole. */
export function DateField(p: FieldProps & { value: string | null; onChange: (value: string | null) => void }) {
  // As long as somebody types it is theirs: what follows from one digit may come after the next.
  const [typing, setTyping] = useState<CalendarDate | null>(null)
  return (
    <StyledDate
      value={typing ?? toDate(p.value)}
      onChange={(value) => {
        const typed = value && toCalendarDate(value)
        setTyping(typed)
        if (!typed) p.onChange(null)
        else if (typed.year >= FIRST_YEAR) p.onChange(typed.toString())
      }}
      onBlur={() => {
        if (typing && typing.year < FIRST_YEAR) p.onChange(meant(typing).toString())
        setTyping(null)
      }}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
    >
      <Label>{p.label}</Label>
      <DateInput>{(segment) => <DateSegment segment={segment} />}</DateInput>
      <Described {...p} />
    </StyledDate>
  )
}
