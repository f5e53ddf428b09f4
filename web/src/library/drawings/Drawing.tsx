import styled from 'styled-components'
import { colour } from '../../design/theme.js'
import { animalDrawings } from './animals.js'
import { plantDrawings } from './plants.js'

const drawings = { ...animalDrawings, ...plantDrawings }

/** Names of everything that is drawn. */
export const drawn: readonly string[] = Object.keys(drawings)

const Field = styled.svg`
  display: block;
  width: 100%;
  max-width: 150px;
  height: auto;
  color: ${colour.ink};
  background: ${colour.sheet};
  border: 1px solid ${colour.rule};
  border-radius: 3px;
  > g {
    fill: none;
    stroke: currentColor;
    stroke-width: 1.5;
    stroke-linecap: round;
    stroke-linejoin: round;
  }
`

/** A line drawing by its name, said in words by `label`. */
export function Drawing({ name, label }: { name: string; label: string }) {
  return (
    <Field viewBox="0 0 100 72" role="img" aria-label={label}>
      <g>{drawings[name]}</g>
    </Field>
  )
}
