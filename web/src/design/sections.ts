import styled from 'styled-components'
import { colour, PHONE } from './theme.js'

/** Part of a screen of its own: what is said on the left, its picture and list on the right; below each other on a phone. */
export const TwoSided = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 4fr);
  gap: 10px 32px;
  padding: 16px 0;
  border-top: 2px solid ${colour.ink};
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
  }
`

/** A record in words, with what can be done with it beside it. */
export const WithActions = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 12px;
  align-items: start;
`
