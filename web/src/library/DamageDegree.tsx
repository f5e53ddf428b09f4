import { useId, useMemo } from 'react'
import styled from 'styled-components'
import { colour } from '../design/theme.js'
import { coverMarks, hitOfHundred, LEAF, leafMarks, OF_HUNDRED } from './damageMarks.js'

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

function OfHundred({ percent }: { percent: number }) {
  const hit = hitOfHundred(percent)
  return Array.from({ length: 100 }, (_, i) => {
    const [x, y] = [9 + (i % 10) * 9.1, 7 + Math.floor(i / 10) * 6.4]
    return <circle key={i} className={hit.has(i) ? 'hit' : 'plain'} cx={x} cy={y} r="2.6" />
  })
}

function OnLeaf({ drawing, percent }: { drawing: string; percent: number }) {
  const id = useId()
  const marks = useMemo(() => leafMarks(drawing, percent), [drawing, percent])
  return (
    <>
      <clipPath id={id}>
        <path d={LEAF} />
      </clipPath>
      <path className="plain" d={LEAF} />
      <g clipPath={`url(#${id})`}>
        {marks.map(({ x, y, r }) => (
          <circle key={`${x} ${y}`} className={drawing === 'leaf-chewed' ? 'gone' : 'hit'} cx={x} cy={y} r={r} />
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
  const tufts = useMemo(() => coverMarks(percent), [percent])
  return tufts.map(({ x, y, r }) => <circle key={`${x} ${y}`} className="hit" cx={x} cy={y} r={r} />)
}
