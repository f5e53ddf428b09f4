/** Our own stage silhouettes, drawn in a box of 24 by 16 around its centre. */
const SHAPES: Readonly<Record<string, string>> = {
  egg: 'M-4.5,0a4.5,5.5 0 1,0 9,0a4.5,5.5 0 1,0 -9,0z',
  'young-larva': 'M-6,2.5c1.2,-5 3.4,-5 4,-0.6c0.6,-4.4 3.2,-4.4 3.9,0c0.7,-4.4 3.4,-3.9 4.1,0.6z',
  larva: 'M-10,3c0.5,-7 4,-8 5.2,-2c0.9,-6 4.4,-6.4 5,0c0.8,-6.4 4.3,-6 5,0c1,-5.4 4.4,-4.6 4.8,2z',
  pupa: 'M-9,0c2.5,-5.5 10,-6.6 15.5,-2.2l2.5,2.2l-2.5,2.2c-5.5,4.4 -13,3.3 -15.5,-2.2z',
  adult: 'M0,6l-1.2,-5l-9.8,-5.2c3.6,-2.4 8.4,-1 11,2.4c2.6,-3.4 7.4,-4.8 11,-2.4l-9.8,5.2z',
  nymph:
    'M-4.6,0a4.6,3.6 0 1,0 9.2,0a4.6,3.6 0 1,0 -9.2,0zM-8,-4.6l3.6,2.2l-0.5,0.9l-3.6,-2.2zM-9,-0.5h3.6v1h-3.6zM-8,4.6l3.6,-2.2l-0.5,-0.9l-3.6,2.2zM8,-4.6l-3.6,2.2l0.5,0.9l3.6,-2.2zM9,-0.5h-3.6v1h3.6zM8,4.6l-3.6,-2.2l0.5,-0.9l3.6,2.2z',
  mite: 'M-4.4,0.5a4.4,4 0 1,0 8.8,0a4.4,4 0 1,0 -8.8,0zM-3.6,-2l-3,-3.4l0.8,-0.6l3,3.4zM3.6,-2l3,-3.4l-0.8,-0.6l-3,3.4zM-4.6,0l-4,-1.2l0.3,-1l4,1.2zM4.6,0l4,-1.2l-0.3,-1l-4,1.2zM-4.4,2.4l-3.8,2.2l0.5,0.9l3.8,-2.2zM4.4,2.4l3.8,2.2l-0.5,0.9l-3.8,-2.2z',
  slug: 'M-10.5,4c3,-1 5,-3 6.6,-5c3,-3.6 8,-3.4 11,-1.6l1.2,-4l0.9,0.2l-0.6,3.6l2,-2.6l0.8,0.6l-1.4,3.4c0.8,2.4 -0.4,5.4 -3.6,5.4z',
  spore:
    'M-6.5,1a2.6,2.6 0 1,0 5.2,0a2.6,2.6 0 1,0 -5.2,0zM-0.8,-3.4a2.2,2.2 0 1,0 4.4,0a2.2,2.2 0 1,0 -4.4,0zM1.6,3a2.9,2.9 0 1,0 5.8,0a2.9,2.9 0 1,0 -5.8,0z',
  lesion:
    'M0,-7.5c6,1.4 8.4,5 8.4,7.5c-2.4,4.4 -6,6.6 -8.4,7.5c-2.4,-0.9 -6,-3.1 -8.4,-7.5c0,-2.5 2.4,-6.1 8.4,-7.5zM-2.4,-1.6a2,2 0 1,0 4,0a2,2 0 1,0 -4,0zM1.4,3a1.4,1.4 0 1,0 2.8,0a1.4,1.4 0 1,0 -2.8,0z',
  seedling: 'M-0.7,7v-7c-5.4,0.6 -8,-2 -8.4,-5c4.6,-0.6 7.6,0.8 8.6,3.4h1c1,-2.6 4,-4 8.6,-3.4c-0.4,3 -3,5.6 -8.4,5v7z',
  rosette:
    'M0,4.6c-3,2 -8,2.2 -11,-0.2c2.6,-2 5.6,-2.4 8,-1.6c-2.6,-1.8 -5,-4.4 -5,-7.4c3.4,0.6 5.8,2.8 7,5.4c-0.4,-2.8 -0.2,-5.6 1,-7.8c1.2,2.2 1.4,5 1,7.8c1.2,-2.6 3.6,-4.8 7,-5.4c0,3 -2.4,5.6 -5,7.4c2.4,-0.8 5.4,-0.4 8,1.6c-3,2.4 -8,2.2 -11,0.2z',
  bolt: 'M-0.8,7.6v-5.4c-3.2,1.2 -6,0.6 -7.4,-1.6c2.6,-1.6 5.6,-1 7.4,0.4v-4c-2.2,0.6 -4.2,0 -5,-1.6c2,-1 3.8,-0.6 5,0.4l0.8,-3.4l0.8,3.4c1.2,-1 3,-1.4 5,-0.4c-0.8,1.6 -2.8,2.2 -5,1.6v4c1.8,-1.4 4.8,-2 7.4,-0.4c-1.4,2.2 -4.2,2.8 -7.4,1.6v5.4z',
  flower:
    'M0,-1.8c-1.8,-2.2 -1.6,-4.8 0,-6c1.6,1.2 1.8,3.8 0,6c2,-2 4.6,-2 6,-0.6c-1,1.8 -3.4,2.4 -6,0.6c2.6,0.8 4,2.8 3.4,4.8c-2,0.2 -3.6,-1.8 -3.4,-4.8c0.2,3 -1.4,5 -3.4,4.8c-0.6,-2 0.8,-4 3.4,-4.8c-2.6,1.8 -5,1.2 -6,-0.6c1.4,-1.4 4,-1.4 6,0.6zM-0.6,3.6h1.2v4.2h-1.2z',
  pod: 'M-9.5,-3.2c6,-2.2 14,-1 19,4.4c-7,3.6 -15,2.2 -19,-4.4zM-5,-1.6a1.1,1.1 0 1,0 2.2,0a1.1,1.1 0 1,0 -2.2,0zM-0.6,-0.6a1.1,1.1 0 1,0 2.2,0a1.1,1.1 0 1,0 -2.2,0zM3.6,0.6a1,1 0 1,0 2,0a1,1 0 1,0 -2,0z',
  tuber: 'M-8.6,0.6c0.4,-4.6 5,-6.2 9,-4.8c4.6,-1 8.6,1.4 8.2,5c-1,4.4 -6.2,5.6 -9.4,4.2c-3.6,1.4 -8,0.2 -7.8,-4.4z',
  shed: 'M-7,-2a2,1.4 0 1,0 4,0a2,1.4 0 1,0 -4,0zM-1,3.2a2,1.4 0 1,0 4,0a2,1.4 0 1,0 -4,0zM3.4,-3.4a2,1.4 0 1,0 4,0a2,1.4 0 1,0 -4,0z',
}

/**
 * Fill of a stage by its silhouette, in one hue from the first to the last: from egg to adult, from spore to lesion, from seedling
 * to seed.
 */
export const STAGE_FILL: Readonly<Record<string, string>> = {
  egg: 'var(--stage-1)',
  spore: 'var(--stage-1)',
  seedling: 'var(--stage-1)',
  nymph: 'var(--stage-2)',
  mite: 'var(--stage-2)',
  rosette: 'var(--stage-2)',
  tuber: 'var(--stage-still)',
  'young-larva': 'var(--stage-3)',
  bolt: 'var(--stage-3)',
  larva: 'var(--stage-4)',
  slug: 'var(--stage-4)',
  lesion: 'var(--stage-4)',
  flower: 'var(--stage-4)',
  pupa: 'var(--stage-5)',
  pod: 'var(--stage-5)',
  adult: 'var(--stage-6)',
  shed: 'var(--stage-6)',
}

const LATE = new Set(['larva', 'slug', 'lesion', 'flower', 'pupa', 'pod', 'adult', 'shed'])

export const stageFill = (silhouette: string): string => STAGE_FILL[silhouette] ?? 'var(--stage-3)'
/** Colour of a silhouette on its own stage's fill. */
export const onStageFill = (silhouette: string): string => (LATE.has(silhouette) ? '#ffffff' : 'var(--stage-6)')

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
      fillRule="evenodd"
      stroke={stroke ?? 'none'}
      strokeWidth={1 / scale}
    />
  )
}
