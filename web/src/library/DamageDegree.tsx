import { useId } from 'react'
import styled from 'styled-components'
import { colour } from '../design/theme.js'

const Field = styled.svg`
  display: block;
  width: 100%;
  max-width: 120px;
  height: auto;
  background: ${colour.sheet};
  border: 1px solid ${colour.rule};
  border-radius: 3px;
  .plain {
    fill: ${colour.petrolSoft};
    stroke: ${colour.ink};
    stroke-width: 1;
  }
  .hit {
    fill: ${colour.ink};
    stroke: ${colour.ink};
    stroke-width: 1;
  }
  .gone {
    fill: ${colour.sheet};
    stroke: ${colour.ink};
    stroke-width: 0.8;
  }
`

const LEAF = 'M6 40q28 -38 74 -18q12 8 16 18q-4 10 -16 18q-46 20 -74 -18z'
/** Share of the field below that lies inside the leaf, so that marks cover the per cent that is said. */
const LEAF_AREA = 3050
/** Everything of a hundred, in ten rows of ten. */
const OF_HUNDRED = new Set(['fruit-entries', 'fruit-rot', 'fruit-spots', 'missing-plants', 'shoot-tips', 'stem-tunnels'])

/** A sequence that fills an area evenly and looks like chance (Halton 1960). */
function halton(index: number, base: number): number {
  let [result, f, i] = [0, 1, index]
  while (i > 0) {
    f /= base
    result += f * (i % base)
    i = Math.floor(i / base)
  }
  return result
}

/** Which of a hundred are hit, as if by chance: the same ones stay hit at a higher degree. */
const order = Array.from({ length: 100 }, (_, i) => i).sort((a, b) => ((((a * 7919) % 101) * 97) % 103) - ((((b * 7919) % 101) * 97) % 103))

function OfHundred({ percent }: { percent: number }) {
  const hit = new Set(order.slice(0, Math.round(percent)))
  return Array.from({ length: 100 }, (_, i) => {
    const [x, y] = [9 + (i % 10) * 9.1, 7 + Math.floor(i / 10) * 6.4]
    return <circle key={i} className={hit.has(i) ? 'hit' : 'plain'} cx={x} cy={y} r="2.6" />
  })
}

const MARKS: Readonly<Record<string, number>> = {
  'leaf-chewed': 9,
  'leaf-mined': 5,
  'leaf-curled': 6,
  'leaf-stippled': 90,
  'leaf-powder': 14,
  'leaf-sooty': 16,
}

function OnLeaf({ drawing, percent }: { drawing: string; percent: number }) {
  const id = useId()
  const marks = MARKS[drawing] ?? 18
  const radius = Math.sqrt((LEAF_AREA * percent) / 100 / marks / Math.PI)
  const places: [number, number][] = []
  for (let i = 1; places.length < marks; i++) {
    const [x, y] = [8 + halton(i, 2) * 86, 10 + halton(i, 3) * 60]
    // Inside the leaf, near enough.
    if (((x - 50) / 44) ** 2 + ((y - 40) / 25) ** 2 < 1) places.push([x, y])
  }
  return (
    <>
      <clipPath id={id}>
        <path d={LEAF} />
      </clipPath>
      <path className="plain" d={LEAF} />
      <g clipPath={`url(#${id})`}>
        {places.map(([x, y]) => (
          <circle key={`${x} ${y}`} className={drawing === 'leaf-chewed' ? 'gone' : 'hit'} cx={x} cy={y} r={radius} />
        ))}
      </g>
    </>
  )
}

/** A degree of damage as a picture: so many of a hundred, or so much of a leaf or of the ground. */
export function DamageDegree({ drawing, percent, label }: { drawing: string; percent: number; label: string }) {
  return (
    <Field viewBox="0 0 100 74" role="img" aria-label={label}>
      {OF_HUNDRED.has(drawing) ? (
        <OfHundred percent={percent} />
      ) : drawing === 'cover' ? (
        <Cover percent={percent} />
      ) : (
        <OnLeaf drawing={drawing} percent={percent} />
      )}
    </Field>
  )
}

/** Ground that is covered: tufts that together take so much of the square. */
function Cover({ percent }: { percent: number }) {
  const tufts = 22
  const radius = Math.sqrt((100 * 74 * percent) / 100 / tufts / Math.PI)
  return Array.from({ length: tufts }, (_, i) => (
    <circle key={i} className="hit" cx={100 * halton(i + 1, 2)} cy={74 * halton(i + 1, 3)} r={radius} />
  ))
}
