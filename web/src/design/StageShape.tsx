/** Our own stage silhouettes, drawn in a box of 24 by 16 around its centre. */
const SHAPES: Readonly<Record<string, string>> = {
  egg: 'M-4.5,0a4.5,5.5 0 1,0 9,0a4.5,5.5 0 1,0 -9,0z',
  'young-larva': 'M-6,2.5c1.2,-5 3.4,-5 4,-0.6c0.6,-4.4 3.2,-4.4 3.9,0c0.7,-4.4 3.4,-3.9 4.1,0.6z',
  larva: 'M-10,3c0.5,-7 4,-8 5.2,-2c0.9,-6 4.4,-6.4 5,0c0.8,-6.4 4.3,-6 5,0c1,-5.4 4.4,-4.6 4.8,2z',
  pupa: 'M-9,0c2.5,-5.5 10,-6.6 15.5,-2.2l2.5,2.2l-2.5,2.2c-5.5,4.4 -13,3.3 -15.5,-2.2z',
  adult: 'M0,6l-1.2,-5l-9.8,-5.2c3.6,-2.4 8.4,-1 11,2.4c2.6,-3.4 7.4,-4.8 11,-2.4l-9.8,5.2z',
  nymph: 'M-5,0a5,4 0 1,0 10,0a5,4 0 1,0 -10,0zM-7,-4l3,2M-8,0h3M-7,4l3,-2M7,-4l-3,2M8,0h-3M7,4l-3,-2',
  shed: 'M-2,-5l4,0l-1,5l1,5l-4,0l1,-5z',
}

export function StageShape({
  shape,
  x = 0,
  y = 0,
  scale = 1,
  fill,
  stroke,
}: {
  shape: string
  x?: number
  y?: number
  scale?: number
  fill: string
  stroke?: string
}) {
  return (
    <path
      d={SHAPES[shape] ?? SHAPES['egg']}
      transform={`translate(${x},${y}) scale(${scale})`}
      fill={fill}
      stroke={stroke ?? 'none'}
      strokeWidth={1 / scale}
    />
  )
}
