import type { KeyboardEvent } from 'react'
import styled from 'styled-components'
import { rowKeys } from './rowKeys.js'
import { colour, font, PHONE, size } from './theme.js'

export const Title = styled.h1`
  font-size: ${size.title};
`
export const Heading = styled.h2`
  font-size: ${size.large};
  &::first-letter {
    text-transform: uppercase;
  }
`
export const Small = styled.p`
  font-size: ${size.small};
  color: ${colour.inkSoft};
  &::first-letter {
    text-transform: uppercase;
  }
`
export const Figure = styled.span`
  font-family: ${font.figures};
`
export const Quiet = styled.span`
  color: ${colour.inkSoft};
`

/** The working area of a screen. */
export const Page = styled.main`
  padding: 20px;
  max-width: 1320px;
  margin: 0 auto;
  display: grid;
  gap: 20px;
  @media ${PHONE} {
    padding: 14px 14px 92px;
  }
`

/** Side by side on a desk, one below the other on a phone. */
export const Columns = styled.div<{ $left?: string; $right?: string }>`
  display: grid;
  gap: 28px;
  align-items: start;
  grid-template-columns: minmax(0, ${({ $left }) => $left ?? '1fr'}) minmax(0, ${({ $right }) => $right ?? '1fr'});
  @media (max-width: 960px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
export const Stack = styled.div<{ $gap?: number }>`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: ${({ $gap }) => $gap ?? 12}px;
  align-content: start;
`
export const Line = styled.div<{ $gap?: number }>`
  display: flex;
  flex-wrap: wrap;
  gap: ${({ $gap }) => $gap ?? 10}px;
  align-items: end;
  > a {
    display: inline-flex;
    align-items: center;
    @media ${PHONE} {
      min-height: 48px;
    }
  }
`

/** Fields side by side, their labels on one line whatever stands below them. */
export const Fields = styled(Line)`
  align-items: start;
`

/** A run of rows divided by rules, without boxes. */
export const Rows = styled.ul.attrs({ onKeyDown: (event: KeyboardEvent<HTMLElement>) => rowKeys(event) })`
  list-style: none;
  margin: 0;
  padding: 0;
  border-top: 1px solid ${colour.rule};
  > li {
    border-bottom: 1px solid ${colour.rule};
    padding: 10px 0;
  }
`

/** A caution that is always shown: an edge and a word, not only a colour. */
export const Caution = styled.p`
  border-left: 4px solid ${colour.beet};
  padding: 2px 0 2px 10px;
  font-size: ${size.small};
  color: ${colour.ink};
`

export const Sheet = styled.section`
  background: ${colour.sheet};
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  padding: 16px;
`

export const Empty = styled.div`
  background: ${colour.sheet};
  border: 1px dashed ${colour.rule};
  border-radius: 4px;
  padding: 24px;
  display: grid;
  gap: 10px;
  justify-items: start;
`

/** Rows and columns with nothing around them. */
export const PlainTable = styled.table.attrs({
  onKeyDown: (event: KeyboardEvent<HTMLElement>) => rowKeys(event, (table) => [...table.querySelectorAll('tbody > tr')]),
})`
  width: 100%;
  td,
  th {
    padding: 4px 10px 4px 0;
    text-align: left;
    font-weight: 400;
    vertical-align: top;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
  thead th {
    font-size: ${size.small};
    color: ${colour.inkSoft};
  }
`

/** A list of which each item may begin with what it is about. */
export const Bullets = styled.ul`
  margin: 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
  b {
    display: inline-block;
    &::first-letter {
      text-transform: uppercase;
    }
  }
`
