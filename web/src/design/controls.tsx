import { parseDate, type CalendarDate } from '@internationalized/date'
import type { ReactNode } from 'react'
import {
  Button as AriaButton,
  Checkbox as AriaCheckbox,
  ComboBox as AriaComboBox,
  DateField as AriaDateField,
  DateInput,
  DateSegment,
  FieldError,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  NumberField as AriaNumberField,
  Popover,
  SearchField as AriaSearchField,
  Select as AriaSelect,
  SelectValue,
  Text,
  TextArea,
  TextField as AriaTextField,
  ToggleButton,
  ToggleButtonGroup,
} from 'react-aria-components'
import styled, { css } from 'styled-components'
import { colour, font, PHONE, size } from './theme.js'

const control = css`
  min-height: 38px;
  padding: 6px 10px;
  border: 1px solid ${colour.inkSoft};
  border-radius: 4px;
  background: ${colour.white};
  color: ${colour.ink};
  @media ${PHONE} {
    min-height: 48px;
  }
`

export const Button = styled(AriaButton)<{ $plain?: boolean }>`
  ${control}
  padding: 6px 16px;
  font-weight: 600;
  cursor: pointer;
  background: ${({ $plain }) => ($plain ? 'transparent' : colour.ink)};
  color: ${({ $plain }) => ($plain ? colour.ink : colour.white)};
  border-color: ${({ $plain }) => ($plain ? colour.inkSoft : colour.ink)};
  &[data-hovered] {
    background: ${({ $plain }) => ($plain ? colour.white : colour.petrol)};
  }
  &[data-disabled] {
    opacity: 0.55;
    cursor: default;
  }
`

/** A button that reads as a link in running text. */
export const TextButton = styled(AriaButton)`
  border: 0;
  padding: 0;
  display: inline-flex;
  align-items: center;
  line-height: inherit;
  justify-self: start;
  text-align: left;
  background: none;
  color: ${colour.petrol};
  text-decoration: underline;
  text-underline-offset: 2px;
  cursor: pointer;
  @media ${PHONE} {
    min-height: 48px;
  }
`

const fieldStyle = css`
  max-width: 100%;
  display: grid;
  gap: 3px;
  align-content: start;
  .react-aria-Label,
  .label {
    font-size: ${size.small};
    font-weight: 600;
  }
  [slot='description'] {
    font-size: ${size.small};
    color: ${colour.inkSoft};
  }
  .react-aria-FieldError {
    font-size: ${size.small};
    font-weight: 600;
    color: ${colour.beet};
    max-width: 42ch;
  }
  input,
  textarea {
    ${control}
    width: 100%;
  }
  input[data-invalid],
  textarea[data-invalid] {
    border: 2px solid ${colour.beet};
  }
`

interface FieldProps {
  label: string
  error?: string | undefined
  hint?: string | undefined
  /** Width in characters; the whole line without it. */
  width?: string
}

const Described = ({ hint, error }: Pick<FieldProps, 'hint' | 'error'>): ReactNode => (
  <>
    {hint ? <Text slot="description">{hint}</Text> : null}
    <FieldError>{error}</FieldError>
  </>
)

const StyledText = styled(AriaTextField)`
  ${fieldStyle}
`

export function TextField(p: FieldProps & { value: string; onChange: (value: string) => void; rows?: number; autoFocus?: boolean }) {
  return (
    <StyledText
      value={p.value}
      onChange={p.onChange}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      {p.rows ? <TextArea rows={p.rows} /> : <Input autoFocus={p.autoFocus} />}
      <Described {...p} />
    </StyledText>
  )
}

const Options = styled(Popover)`
  background: ${colour.white};
  border: 1px solid ${colour.ink};
  border-radius: 4px;
  box-shadow: 0 6px 24px rgb(20 33 43 / 25%);
  min-width: var(--trigger-width);
  overflow: auto;
  max-height: 320px;
  .react-aria-ListBox {
    outline: none;
    padding: 4px;
  }
  .react-aria-ListBoxItem {
    padding: 7px 10px;
    border-radius: 3px;
    cursor: pointer;
    outline: none;
    &[data-focused],
    &[data-hovered] {
      background: ${colour.petrolSoft};
    }
    &[data-selected] {
      font-weight: 600;
      &::after {
        content: ' ✓' / '';
      }
    }
    @media ${PHONE} {
      min-height: 48px;
      display: flex;
      align-items: center;
    }
  }
`

export interface Option {
  id: string
  label: string
}

const StyledSuggest = styled(AriaComboBox)`
  ${fieldStyle}
`

/** A word of one's own, or one of those that are in use already, which are offered as one types. */
export function SuggestField(p: FieldProps & { value: string; onChange: (value: string) => void; words: readonly string[] }) {
  return (
    <StyledSuggest
      allowsCustomValue
      allowsEmptyCollection={false}
      menuTrigger="focus"
      inputValue={p.value}
      onInputChange={p.onChange}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      defaultItems={p.words.map((word) => ({ id: word, label: word }))}
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      <Input />
      <Described {...p} />
      <Options>
        <ListBox<Option>>{(option) => <ListBoxItem id={option.id}>{option.label}</ListBoxItem>}</ListBox>
      </Options>
    </StyledSuggest>
  )
}

const StyledSearch = styled(AriaSearchField)`
  input {
    ${control}
    width: 100%;
  }
  input::-webkit-search-cancel-button {
    cursor: pointer;
  }
`

/** Words to find something by; its label stands in the field until something is typed. */
export function SearchField(p: { label: string; width?: string; value: string; onChange: (value: string) => void }) {
  return (
    <StyledSearch aria-label={p.label} value={p.value} onChange={p.onChange} style={{ width: p.width }}>
      <Input placeholder={p.label} />
    </StyledSearch>
  )
}

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

/** A day, typed or stepped with the arrow keys; `YYYY-MM-DD` outside. */
export function DateField(p: FieldProps & { value: string | null; onChange: (value: string | null) => void }) {
  return (
    <StyledDate
      value={toDate(p.value)}
      onChange={(value) => p.onChange(value ? value.toString() : null)}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
    >
      <Label>{p.label}</Label>
      <DateInput>{(segment) => <DateSegment segment={segment} />}</DateInput>
      <Described {...p} />
    </StyledDate>
  )
}

const StyledSelect = styled(AriaSelect)`
  ${fieldStyle}
  > button {
    ${control}
    display: flex;
    gap: 8px;
    justify-content: space-between;
    align-items: center;
    text-align: left;
    cursor: pointer;
    width: 100%;
    &::after {
      content: '▾' / '';
      color: ${colour.inkSoft};
    }
  }
  &[data-invalid] > button {
    border: 2px solid ${colour.beet};
  }
`

export function Select(
  p: FieldProps & {
    options: readonly Option[]
    value: string | null
    onChange: (value: string) => void
    placeholder: string
    hideLabel?: boolean
    className?: string
  },
) {
  return (
    <StyledSelect
      value={p.value}
      onChange={(key) => {
        if (key !== null) p.onChange(String(key))
      }}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      placeholder={p.placeholder}
      style={{ width: p.width }}
      {...(p.hideLabel ? { 'aria-label': p.label } : {})}
      {...(p.className ? { className: p.className } : {})}
    >
      {p.hideLabel ? null : <Label>{p.label}</Label>}
      <AriaButton>
        <SelectValue />
      </AriaButton>
      <Described {...p} />
      <Options>
        <ListBox items={p.options}>{(option) => <ListBoxItem id={option.id}>{option.label}</ListBoxItem>}</ListBox>
      </Options>
    </StyledSelect>
  )
}

const StyledSwitch = styled(ToggleButtonGroup)`
  display: inline-flex;
  justify-self: start;
  flex-wrap: wrap;
  background: ${colour.ruleSoft};
  border-radius: 999px;
  button {
    border: 0;
    background: none;
    border-radius: 999px;
    padding: 5px 14px;
    min-height: 30px;
    font-size: ${size.small};
    cursor: pointer;
    &[data-selected] {
      background: ${colour.ink};
      color: ${colour.white};
    }
    @media ${PHONE} {
      min-height: 48px;
    }
  }
`

/** One of a few, side by side. */
export function Choice<T extends string>(p: {
  label: string
  options: readonly { id: T; label: string }[]
  value: T
  onChange: (value: T) => void
}) {
  return (
    <StyledSwitch
      aria-label={p.label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[p.value]}
      onSelectionChange={(keys) => {
        const [first] = keys
        if (first !== undefined) p.onChange(first as T)
      }}
    >
      {p.options.map(({ id, label }) => (
        <ToggleButton key={id} id={id}>
          {label}
        </ToggleButton>
      ))}
    </StyledSwitch>
  )
}

const StyledCheckbox = styled(AriaCheckbox)`
  display: inline-flex;
  gap: 8px;
  align-items: center;
  min-height: 38px;
  cursor: pointer;
  .box {
    width: 20px;
    height: 20px;
    border: 1px solid ${colour.inkSoft};
    border-radius: 3px;
    background: ${colour.white};
    display: grid;
    place-items: center;
    line-height: 1;
  }
  &[data-selected] .box::after {
    content: '✓' / '';
    font-weight: 700;
  }
  &[data-focus-visible] .box {
    outline: 3px solid ${colour.pollen};
  }
`

export function Checkbox(p: { label: string; value: boolean; onChange: (value: boolean) => void }) {
  return (
    <StyledCheckbox isSelected={p.value} onChange={p.onChange}>
      <span className="box" />
      {p.label}
    </StyledCheckbox>
  )
}
