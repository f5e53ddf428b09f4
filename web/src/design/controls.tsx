import type { ReactNode } from 'react'
import {
  Button as AriaButton,
  Checkbox as AriaCheckbox,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  SearchField as AriaSearchField,
  Select as AriaSelect,
  SelectValue,
  TextArea,
  TextField as AriaTextField,
  ToggleButton,
  ToggleButtonGroup,
} from 'react-aria-components'
import styled from 'styled-components'
import { control } from './buttons.js'
import { Described, fieldStyle, Options, type FieldProps, type Option } from './fields.js'
import { colour, PHONE, size } from './theme.js'

const StyledText = styled(AriaTextField)`
  ${fieldStyle}
`

export function TextField(
  p: FieldProps & {
    value: string
    onChange: (value: string) => void
    rows?: number
    autoFocus?: boolean
    /** What browsers and password managers fill in by; a password is not shown as it is typed. */
    autoComplete?: 'username' | 'current-password' | 'new-password' | 'name' | 'email'
    /** A code of so many digits: not shown, and typed on the keys of numbers. */
    digits?: number
  },
) {
  return (
    <StyledText
      value={p.value}
      onChange={p.digits === undefined ? p.onChange : (typed) => p.onChange(typed.replace(/\D/g, '').slice(0, p.digits))}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      style={{ width: p.width }}
      {...(p.digits === undefined ? {} : { inputMode: 'numeric' as const, autoComplete: 'off' })}
      type={p.digits !== undefined || p.autoComplete?.endsWith('password') ? 'password' : 'text'}
      {...(p.autoComplete ? { autoComplete: p.autoComplete } : {})}
    >
      <Label>{p.label}</Label>
      {p.rows ? <TextArea rows={p.rows} /> : <Input autoFocus={p.autoFocus} />}
      <Described {...p} />
    </StyledText>
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
  &[data-disabled] {
    opacity: 0.6;
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
    isDisabled?: boolean
  },
) {
  return (
    <StyledSelect
      value={p.value}
      onChange={(key) => {
        if (key !== null) p.onChange(String(key))
      }}
      isInvalid={p.error !== undefined}
      // What has nothing to choose from yet cannot be opened, and says so.
      isDisabled={p.isDisabled === true || p.options.length === 0}
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
    flex: none;
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

export function Checkbox(p: { label: ReactNode; value: boolean; onChange: (value: boolean) => void; isDisabled?: boolean }) {
  return (
    <StyledCheckbox isDisabled={p.isDisabled ?? false} isSelected={p.value} onChange={p.onChange}>
      <span className="box" />
      {p.label}
    </StyledCheckbox>
  )
}

const StyledPicks = styled(ListBox)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(34ch, 100%), 1fr));
  gap: 0 18px;
  outline: none;
  .react-aria-ListBoxItem {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 38px;
    padding: 2px 4px;
    border-radius: 4px;
    outline: none;
    cursor: pointer;
    @media ${PHONE} {
      min-height: 48px;
    }
    &::before {
      content: '' / '';
      flex: none;
      width: 20px;
      height: 20px;
      border: 1px solid ${colour.inkSoft};
      border-radius: 3px;
      background: ${colour.white};
      display: grid;
      place-items: center;
      line-height: 1;
      font-weight: 700;
    }
    &[data-selected]::before {
      content: '✓' / '';
    }
    &[data-focus-visible] {
      outline: 3px solid ${colour.pollen};
    }
  }
`

/** Any number of many: one stop for the keyboard, with arrows, letters and space inside. */
export function Picks(p: {
  label: string
  options: readonly { id: string; text: string; more: ReactNode }[]
  value: readonly string[]
  onChange: (value: readonly string[]) => void
}) {
  return (
    <StyledPicks
      aria-label={p.label}
      layout="grid"
      selectionMode="multiple"
      selectedKeys={p.value}
      onSelectionChange={(keys) => p.onChange(keys === 'all' ? p.options.map(({ id }) => id) : [...keys].map(String))}
    >
      {p.options.map(({ id, text, more }) => (
        <ListBoxItem key={id} id={id} textValue={text}>
          <span>
            {text} {more}
          </span>
        </ListBoxItem>
      ))}
    </StyledPicks>
  )
}
