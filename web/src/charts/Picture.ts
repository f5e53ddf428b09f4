import styled from 'styled-components'
import { colour, font } from '../design/theme.js'

/** Frame of every chart: as wide as its place, one size of type; `soft` words stand back, `value` words keep clear of lines. */
export const Picture = styled.svg`
  width: 100%;
  height: auto;
  text {
    font: 13px ${font.text};
    fill: ${colour.ink};
  }
  .soft {
    fill: ${colour.inkSoft};
  }
  .value {
    paint-order: stroke;
    stroke: ${colour.sheet};
    stroke-width: 5px;
    font-weight: 600;
  }
`
