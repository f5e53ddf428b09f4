import type { ReactNode } from 'react'
import { FieldError, Popover, Text } from 'react-aria-components'
import styled, { css } from 'styled-components'
import { control } from './buttons.js'
import { colour, PHONE, size } from './theme.js'

export const fieldStyle = css`
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

export interface FieldProps {
  label: string
  error?: string | undefined
  hint?: string | undefined
  /** Width in characters; the whole line without it. */
  width?: string
}

export const Described = ({ hint, error }: Pick<FieldProps, 'hint' | 'error'>): ReactNode => (
  <>
    {hint ? <Text slot="description">{hint}</Text> : null}
    <FieldError>{error}</FieldError>
  </>
)

export const Options = styled(Popover)`
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
