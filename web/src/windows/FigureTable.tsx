import styled from 'styled-components'
import { colour } from '../design/theme.js'

/** Figures of a watch in rows: what, when, how sure. */
export const FigureTable = styled.table`
  width: 100%;
  caption {
    text-align: left;
    font-weight: 600;
  }
  td,
  th {
    padding: 3px 10px 3px 0;
    text-align: left;
    font-weight: 400;
    vertical-align: top;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
  thead th {
    font-size: 13px;
    color: ${colour.inkSoft};
  }
  .right {
    text-align: right;
    white-space: nowrap;
  }
  .soft {
    font-size: 13px;
    color: ${colour.inkSoft};
  }
`
