import { Button as AriaButton } from 'react-aria-components'
import styled, { css } from 'styled-components'
import { colour, PHONE } from './theme.js'

/** What everything that is pressed or typed into has in common. */
export const control = css`
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
  &[data-disabled] {
    color: ${colour.inkSoft};
    text-decoration-style: dotted;
    cursor: default;
  }
  @media ${PHONE} {
    min-height: 48px;
  }
`
