import type { ReactNode } from 'react'

/* Line drawings of plants and of what is seen on them; the same field and ink as those of animals. */

const SOLID = 'currentColor'

const leafShape = 'M14 40q24 -28 66 -12q8 4 10 12q-2 8 -10 12q-42 16 -66 -12z'
const leaf = (more: ReactNode = null, vein = true): ReactNode => (
  <>
    <path d={leafShape} />
    {vein ? <path d="M4 40h84" /> : null}
    {more}
  </>
)
/** A leaf that was rubbed between fingers. */
const crushed: ReactNode = <path d="M10 50q16 -22 40 -14q26 -8 40 8q-12 24 -42 18q-26 6 -38 -12zM26 48l10 -6 6 8 10 -8 8 8 10 -8 8 6" />
const dots = (places: readonly [number, number][], r = 2.4): ReactNode =>
  places.map(([x, y]) => <circle key={`${x} ${y}`} cx={x} cy={y} r={r} fill={SOLID} />)
const spotted = (more: ReactNode): ReactNode => (
  <>
    <path d={leafShape} opacity=".35" />
    {more}
  </>
)
const stem = (more: ReactNode = null): ReactNode => (
  <>
    <path d="M42 4v64M58 4v64" />
    {more}
  </>
)
const section = (shape: ReactNode, more: ReactNode = null): ReactNode => (
  <>
    <path d="M18 6v60M34 6v60" opacity=".45" />
    {shape}
    {more}
  </>
)
const shoot = (more: ReactNode): ReactNode => (
  <>
    <path d="M50 70V12" />
    {more}
  </>
)
const pair = (y: number, size = 22): ReactNode => (
  <path
    key={y}
    d={`M50 ${y}q-${size * 0.6} -12 -${size} -2q${size * 0.4} 12 ${size} 2M50 ${y}q${size * 0.6} -12 ${size} -2q-${size * 0.4} 12 -${size} 2`}
  />
)
const one = (y: number, left: boolean): ReactNode => {
  const s = left ? -1 : 1
  return <path key={y} d={`M50 ${y}q${s * 14} -12 ${s * 24} -2q${s * -10} 12 ${s * -24} 2`} />
}
const petals = (n: number, from: number, to: number, width: number): ReactNode =>
  Array.from({ length: n }, (_, i) => (
    <ellipse key={i} cx="50" cy={38 - (from + to) / 2} rx={width} ry={(to - from) / 2} transform={`rotate(${(360 * i) / n} 50 38)`} />
  ))
/** Heads filled where they are coloured, open where they are white. */
const umbel = (rays: number, spread: number, more: ReactNode = null, head = 'none'): ReactNode => (
  <>
    <path d="M50 70V44" />
    {Array.from({ length: rays }, (_, i) => {
      const x = 50 - spread + (2 * spread * i) / (rays - 1)
      const y = 20 + Math.abs(x - 50) * 0.22
      return (
        <g key={i}>
          <path d={`M50 44L${x} ${y}`} />
          <circle cx={x} cy={y - 3} r="3.4" fill={head} />
        </g>
      )
    })}
    {more}
  </>
)
const grass = (more: ReactNode): ReactNode => (
  <>
    <path d="M46 70V30M54 70V30M54 32q6 -20 34 -26M46 40q2 -30 40 -38" />
    {more}
  </>
)
const head = (more: ReactNode): ReactNode => (
  <>
    <path d="M50 70V30" />
    {more}
  </>
)
const root = (more: ReactNode): ReactNode => (
  <>
    <path d="M8 18h84" strokeDasharray="3 3" opacity=".6" />
    <path d="M50 18q-10 -10 -18 -12M50 18q10 -10 18 -12M50 18V4" />
    {more}
  </>
)
const fruit = (more: ReactNode): ReactNode => (
  <>
    <path d="M50 16q-30 -8 -30 22q4 28 30 28t30 -28q0 -30 -30 -22zM50 16q0 -8 6 -12" />
    {more}
  </>
)
const bed = (missing: readonly number[], more: ReactNode = null): ReactNode => (
  <>
    {Array.from({ length: 20 }, (_, i) => {
      const x = 12 + (i % 5) * 19
      const y = 12 + Math.floor(i / 5) * 17
      return missing.includes(i) ? (
        <path key={i} d={`M${x - 3} ${y - 3}l6 6M${x + 3} ${y - 3}l-6 6`} opacity=".6" />
      ) : (
        <circle key={i} cx={x} cy={y} r="5" />
      )
    })}
    {more}
  </>
)

export const plantDrawings: Readonly<Record<string, ReactNode>> = {
  // leaves
  'leaf-plain': leaf(),
  'leaf-smooth': leaf(<path d="M30 40q8 -8 14 -12M46 40q8 -8 14 -13M62 40q6 -6 10 -10M30 40q8 8 14 12M46 40q8 8 14 13" opacity=".6" />),
  'leaf-toothed': (
    <path d="M12 40l8 -9 2 4 8 -9 2 4 10 -8 2 4 10 -5 2 4 10 -1 2 4 8 3 2 4q2 5 -4 9l-4 5 -8 2 -2 4 -10 0 -2 3 -12 -5 -2 4 -10 -7 -2 3 -8 -8zM4 40h80" />
  ),
  'leaf-lobed': (
    <path d="M6 40h80M12 40q4 -12 14 -8l-2 -14q12 -2 14 12l6 -16q12 4 8 18l12 -10q6 10 -4 16l14 -2q-2 10 -8 12q8 0 8 8l-14 0q8 8 0 12l-12 -8q4 14 -8 16l-6 -14q-4 14 -14 10l4 -14q-12 2 -12 -6" />
  ),
  'leaf-heart': <path d="M50 66q-34 -16 -34 -38q4 -18 20 -16q10 2 14 12q4 -10 14 -12q16 -2 20 16q0 22 -34 38zM50 24v40" />,
  'leaf-flat-base': <path d="M50 62V6M24 52h52q4 -22 -26 -46q-30 24 -26 46zM50 44l16 -12M50 44l-16 -12M50 62v8" />,
  'leaf-curved-veins': leaf(<path d="M22 40q20 -14 56 -2M26 40q24 -8 56 0M22 40q20 14 56 2M26 40q24 8 56 0" />),
  'leaf-mealy': leaf(
    dots(
      [
        [28, 34],
        [36, 44],
        [44, 32],
        [52, 46],
        [60, 34],
        [68, 42],
        [46, 40],
        [34, 38],
        [62, 46],
      ],
      1.6,
    ),
  ),
  'leaf-notched': <path d="M50 68v-10M50 58q-28 -8 -22 -34q6 -14 22 -8q16 -6 22 8q6 26 -22 34zM50 58V18M44 16l6 7 6 -7" />,
  'leaf-spoon': <path d="M50 70q-4 -20 -16 -30q-8 -26 16 -30q24 4 16 30q-12 10 -16 30z" fill={SOLID} fillOpacity=".15" />,
  'leaf-three': <path d="M50 70V46M50 46q-16 -16 0 -38q16 22 0 38M50 46q-22 4 -38 -8q14 -20 38 8M50 46q22 4 38 -8q-14 -20 -38 8" />,
  'leaf-five': (
    <path d="M50 70V44M50 44q-12 -16 0 -38q12 22 0 38M50 44q-22 -4 -32 -24q22 0 32 24M50 44q22 -4 32 -24q-22 0 -32 24M50 44q-20 12 -38 6q12 -16 38 -6M50 44q20 12 38 6q-12 -16 -38 -6" />
  ),
  'leaf-compound': shoot([pair(20), pair(34), pair(48), pair(62)]),
  'leaf-gland': shoot([
    pair(20),
    pair(38),
    pair(56),
    <g key="g">
      {dots(
        [
          [42, 18],
          [58, 18],
          [42, 36],
          [58, 36],
          [42, 54],
          [58, 54],
        ],
        2.6,
      )}
    </g>,
  ]),
  'leaf-opposite': shoot([pair(22), pair(42), pair(60)]),
  'leaf-alternate': shoot([one(18, true), one(30, false), one(42, true), one(54, false)]),
  'leaf-whorled': shoot([pair(24), pair(50), <path key="w" d="M50 24q-6 -12 0 -20q6 8 0 20M50 50q-6 12 0 18q6 -6 0 -18" />]),
  'leaf-clasping': shoot(<path d="M20 24q30 -18 60 0q-30 18 -60 0M24 48q26 -14 52 0q-26 14 -52 0" />),
  'leaf-cupped': <path d="M50 70V40M50 40q-30 -2 -26 -28q20 2 26 22q6 -20 26 -22q4 26 -26 28" />,
  'leaf-blister': leaf(<path d="M34 34q6 -12 14 0zM54 36q6 -12 14 0zM40 50q6 8 12 0z" fill={SOLID} fillOpacity=".25" />),
  'leaf-interveinal': leaf(
    <path
      d="M28 38q8 -10 14 -10l-6 10zM46 38q8 -12 14 -12l-6 12zM64 38q4 -8 8 -8l-2 8zM30 43q8 8 14 9l-6 -9zM48 43q8 10 14 10l-6 -10z"
      fill={SOLID}
      fillOpacity=".3"
    />,
  ),
  'leaf-rolled': <path d="M14 28q36 -16 72 0v16q-36 16 -72 0zM14 28q10 8 0 16M30 22q6 14 0 28M62 20q6 16 0 32" />,
  'leaf-flap': leaf(<path d="M52 30q20 -10 24 6q-6 12 -20 6q-6 -4 -4 -12zM52 30q8 6 4 12" fill={SOLID} fillOpacity=".2" />),
  rosette: (
    <>
      {petals(8, 6, 32, 6)}
      <circle cx="50" cy="38" r="4" fill={SOLID} />
    </>
  ),
  'stipule-fringed': (
    <path d="M50 70V6M50 40q-10 -6 -14 -20M50 40q10 -6 14 -20M38 26l-7 -3M36 22l-7 -3M40 30l-7 -2M62 26l7 -3M64 22l7 -3M60 30l7 -2M36 18l-5 -4M64 18l5 -4" />
  ),
  'stipule-plain': <path d="M50 70V6M50 40q-10 -6 -14 -20M50 40q10 -6 14 -20" />,
  // grasses
  'grass-ligule': grass(<path d="M54 32q-6 -8 -12 -2q0 8 4 8" fill={SOLID} fillOpacity=".3" />),
  'grass-no-ligule': grass(<path d="M30 24l12 8M30 24l2 8M30 24l8 0" opacity=".8" />),
  'grass-hairy': grass(
    <path d="M46 66l-6 -3M46 60l-6 -3M46 54l-6 -3M46 48l-6 -3M54 66l6 -3M54 60l6 -3M54 54l6 -3M54 48l6 -3M62 20l-2 -6M70 14l-2 -6M78 10l-2 -6" />,
  ),
  'grass-auricle': grass(<path d="M46 34q-12 2 -8 10q4 2 8 -4M54 34q12 2 8 10q-4 2 -8 -4" strokeWidth="2.4" />),
  'grass-fingers': head(<path d="M50 30q-20 -10 -26 -24M50 30q-8 -14 -10 -26M50 30q8 -14 10 -26M50 30q20 -10 26 -24" strokeWidth="2.4" />),
  'grass-spike': head(
    <path d="M50 34V6M50 32l-7 -4M50 32l7 -4M50 25l-7 -4M50 25l7 -4M50 18l-7 -4M50 18l7 -4M50 11l-5 -4M50 11l5 -4" strokeWidth="2.2" />,
  ),
  'grass-drooping': head(<path d="M50 34q0 -24 26 -22M60 18q6 4 6 14M68 13q8 6 8 18M76 12q8 8 8 22M54 26q4 6 2 14" />),
  'sedge-triangle': section(<path d="M68 16l22 40h-44z" />),
  'reed-sheath': <path d="M44 4v64M56 4v64M44 22l12 6M44 44l12 6M42 24q-6 10 2 20M58 48q6 10 -2 18M46 8v10M50 30v10M54 52v12" />,
  'reed-bare': <path d="M44 4v64M56 4v64M44 22h12M44 46h12M50 26v18" opacity=".9" />,
  // stems
  'stem-plain': stem(),
  'bark-plain': stem(<path d="M46 14h4M50 30h4M46 48h5" />),
  'bark-orange': stem(<path d="M44 20l12 6v24l-12 -6z" fill={SOLID} fillOpacity=".4" />),
  'bark-pores': stem(
    dots(
      [
        [46, 12],
        [53, 20],
        [47, 30],
        [54, 38],
        [46, 48],
        [53, 58],
      ],
      1.8,
    ),
  ),
  'bark-strips': stem(<path d="M44 6q-10 20 -14 24M47 16q-2 22 -8 34M53 10q4 24 12 30M56 34q2 16 8 24M50 30v30" strokeWidth="1.6" />),
  'pith-white': section(
    <>
      <circle cx="68" cy="36" r="20" />
      <circle cx="68" cy="36" r="9" />
    </>,
  ),
  'pith-brown': section(
    <>
      <circle cx="68" cy="36" r="20" />
      <circle cx="68" cy="36" r="9" fill={SOLID} fillOpacity=".7" />
    </>,
  ),
  'stem-round': section(<circle cx="68" cy="36" r="20" />),
  'stem-square': section(<path d="M50 18h36v36h-36z" />),
  'stem-angled': section(<path d="M68 12l22 16l-8 26h-28l-8 -26z" />, <path d="M26 20l8 -6M26 44l8 -6" strokeWidth="2" />),
  'stem-flat': section(<ellipse cx="68" cy="36" rx="24" ry="8" />),
  'stem-hollow': section(
    <>
      <circle cx="68" cy="36" r="20" />
      <circle cx="68" cy="36" r="12" />
    </>,
    <path d="M18 24h16M18 48h16" />,
  ),
  'stem-grooved': section(<path d="M68 16l6 6 8 -2 0 8 8 4 -6 6 4 8 -8 2 -2 8 -8 -4 -8 6 -4 -8 -8 0 0 -8 -8 -4 6 -6 -2 -8 8 0 2 -8z" />),
  'stem-ridged': section(<path d="M68 14l8 14 14 4 -8 12 2 14 -16 -6 -16 6 2 -14 -8 -12 14 -4z" />),
  'stem-blotched-hairs': stem(
    <>
      <path d="M42 12l-8 -3M42 24l-8 -3M42 36l-8 -3M42 48l-8 -3M42 60l-8 -3M58 12l8 -3M58 24l8 -3M58 36l8 -3M58 48l8 -3M58 60l8 -3" />
      {dots(
        [
          [47, 14],
          [53, 26],
          [46, 36],
          [54, 46],
          [48, 58],
        ],
        3.6,
      )}
    </>,
  ),
  'stem-ridged-hairs': stem(
    <path d="M42 12l-8 -3M42 24l-8 -3M42 36l-8 -3M42 48l-8 -3M42 60l-8 -3M58 12l8 -3M58 24l8 -3M58 36l8 -3M58 48l8 -3M58 60l8 -3M47 4v64M53 4v64" />,
  ),
  'stem-purple-spots': stem(
    dots(
      [
        [47, 12],
        [54, 20],
        [46, 30],
        [53, 40],
        [48, 50],
        [54, 60],
      ],
      3,
    ),
  ),
  'stem-hair-line': stem(<path d="M50 8l-4 -3M50 16l-4 -3M50 24l-4 -3M50 32l-4 -3M50 40l-4 -3M50 48l-4 -3M50 56l-4 -3M50 64l-4 -3" />),
  'stem-winged': stem(<path d="M42 8l-12 6 12 6M42 28l-12 6 12 6M42 48l-12 6 12 6M58 8l12 6 -12 6M58 28l12 6 -12 6M58 48l12 6 -12 6" />),
  'stem-woody': stem(<path d="M46 8v20M52 12v24M48 40v22M54 46v18M42 30q8 4 16 0" opacity=".7" />),
  'stem-sheath': stem(<path d="M40 26q10 -8 20 0v18q-10 6 -20 0z" fill={SOLID} fillOpacity=".2" />),
  'stem-streaks': stem(<path d="M46 10v18M54 24v20M47 46v16" strokeWidth="4" />),
  'stem-fleshy': (
    <path d="M10 40q20 -14 80 -4M10 50q30 2 80 -2M30 36q-2 -16 10 -18q8 8 0 18M54 34q0 -16 12 -16q6 10 -4 17M44 50q-2 12 8 16q8 -6 2 -16" />
  ),
  'stem-swollen': <path d="M44 4v14q-14 18 0 38v14M56 4v14q14 18 0 38v14M44 30q6 4 12 0M42 40q8 4 16 0" />,
  'stem-spiral': stem(
    <path d="M40 24q12 -6 20 2M40 34q12 -6 20 2M40 44q12 -6 20 2M42 4q-6 26 -2 30t2 34M58 4q6 26 2 30t-2 34" strokeWidth="2.2" />,
  ),
  'stem-frass': stem(
    <>
      <circle cx="50" cy="34" r="5" fill={SOLID} />
      {dots(
        [
          [46, 44],
          [52, 46],
          [44, 50],
          [56, 52],
          [48, 56],
          [38, 60],
          [60, 60],
          [52, 62],
        ],
        2.2,
      )}
    </>,
  ),
  'stem-cut': <path d="M4 56h92M46 56v-12l8 -4v16M20 40l36 -24M56 16q10 -8 16 -2M40 28q-4 -12 4 -18" />,
  'stem-rasped': <path d="M4 40h92M46 40V8M54 40V8M46 40v24M54 40v20M46 52q6 2 4 10M24 30q10 4 18 -2M60 34q14 6 28 0" />,
  'girdle-two': stem(<path d="M40 28h20M40 38h20" strokeWidth="3" strokeDasharray="2 2" />),
  'girdle-one': stem(<path d="M40 32h20" strokeWidth="4" />),
  'gall-corky': (
    <path d="M44 4v18q-18 6 -14 24q10 10 14 6v18M56 4v18q18 6 14 24q-10 10 -14 6v18M36 32l6 4M46 30l4 6M56 34l6 -4M38 44l6 -2M52 46l8 2" />
  ),
  'thorn-straight': stem(<path d="M58 30l22 -4l-22 12M42 54l-22 -4l22 12" />),
  'thorn-branched': stem(<path d="M58 30l24 -8M66 28l4 -14M66 28l8 10M42 52l-24 -8M34 50l-4 -14M34 50l-8 10" />),
  tendril: stem(<path d="M58 36q16 -14 24 -4q4 12 -6 12t-6 -10q6 -6 10 0" />),
  'sap-clear': stem(<path d="M38 34h24M58 36q10 10 4 16q-8 2 -8 -6q0 -6 4 -10" />),
  'stem-creeping': (
    <path d="M6 46q22 -6 44 0t44 0M28 44v-18q-8 -2 -10 -8q10 -2 10 8q0 -10 10 -8q-2 8 -10 8M72 46v-18q-8 -2 -10 -8q10 -2 10 8q0 -10 10 -8q-2 8 -10 8M28 44l-6 16M28 44v18M28 44l6 16M72 46l-6 16M72 46v18M72 46l6 16" />
  ),
  'leaf-scent': (
    <>
      {crushed}
      <path d="M34 26q-6 -6 0 -11t0 -11M50 24q-6 -6 0 -11t0 -11M66 26q-6 -6 0 -11t0 -11" />
    </>
  ),
  'leaf-scentless': crushed,
  'milk-sap': stem(<path d="M38 34h24M58 36q10 10 4 16q-8 2 -8 -6q0 -6 4 -10" fill={SOLID} fillOpacity=".5" />),
  'berry-axils': shoot(
    <>
      {dots(
        [
          [42, 22],
          [58, 34],
          [42, 46],
          [58, 58],
        ],
        4.4,
      )}
      {one(18, false)}
      {one(42, true)}
    </>,
  ),
  'berry-tip': shoot(
    <>
      {dots(
        [
          [44, 10],
          [56, 10],
          [50, 6],
          [46, 18],
          [54, 18],
        ],
        4.4,
      )}
      {one(40, false)}
      {one(56, true)}
    </>,
  ),
  // roots
  'root-tap': root(<path d="M44 18q4 30 6 50q2 -20 6 -50M48 40l-10 6M52 46l10 8" />),
  'root-tap-red': root(<path d="M44 18q4 30 6 50q2 -20 6 -50z" fill={SOLID} fillOpacity=".5" />),
  'root-fibrous': root(<path d="M50 18q-14 14 -22 44M50 18q-6 20 -10 48M50 18v50M50 18q6 20 10 48M50 18q14 14 22 44" />),
  'root-rhizome': root(
    <path d="M8 44h84M50 18v26M22 44v-14l-6 -8M78 44v-14l6 -8M30 44l-4 12M44 44l2 12M62 44l-2 12M72 44l4 12M36 40v8M56 40v8" />,
  ),
  'root-tubers': root(
    <path d="M50 18l-24 24M50 18l-6 30M50 18l8 30M50 18l26 24M26 42q-10 6 -4 16q10 -2 4 -16M44 48q-8 8 0 18q8 -8 0 -18M58 48q-6 10 2 18q8 -8 -2 -18M76 42q-4 10 4 16q8 -8 -4 -16" />,
  ),
  'root-chain': root(<path d="M50 18v14M44 32h12v8h-12zM50 40v6M44 46h12v8h-12zM50 54v4M44 58h12v8h-12z" />),
  'root-s': root(<path d="M50 18q18 6 8 18t-10 14q-4 8 2 18" strokeWidth="4" />),
  'root-mined': root(<path d="M40 18q4 34 10 50q6 -16 10 -50zM44 28q6 4 2 10t6 10M56 30q-4 8 0 14" strokeWidth="1.8" />),
  'root-holes': root(
    <>
      <path d="M40 18q4 34 10 50q6 -16 10 -50z" />
      {dots(
        [
          [46, 32],
          [54, 42],
          [49, 54],
        ],
        3,
      )}
    </>,
  ),
  'root-spots': root(
    <>
      <path d="M40 18q4 34 10 50q6 -16 10 -50z" />
      <path d="M44 30h6v3h-6zM50 44h5v3h-5zM47 54h4v2h-4z" fill={SOLID} />
    </>,
  ),
  'root-clubbed': root(<path d="M46 18q-18 14 -14 34q14 8 18 -8q4 18 20 12q6 -22 -16 -38" />),
  // flowers and fruit
  'flower-star': (
    <>
      {petals(10, 6, 24, 2.6)}
      <circle cx="50" cy="38" r="4" />
    </>
  ),
  'flower-many-petals': (
    <>
      {petals(9, 6, 30, 4.5)}
      <circle cx="50" cy="38" r="5" />
    </>
  ),
  'flower-five': (
    <>
      {petals(5, 5, 30, 10)}
      <circle cx="50" cy="38" r="5" />
    </>
  ),
  'flower-four': (
    <>
      {petals(4, 5, 30, 10)}
      <circle cx="50" cy="38" r="5" />
    </>
  ),
  'flower-spike': head(
    <>
      {[10, 18, 26, 34, 42, 50].map((y) => (
        <path key={y} d={`M50 ${y + 4}l-12 -4 4 -4zM50 ${y + 4}l12 -4 -4 -4z`} />
      ))}
    </>,
  ),
  'flower-helmet': <path d="M22 40q4 -28 34 -28q22 2 22 20q-8 12 -26 12q-6 16 -22 16q-10 -6 -8 -20zM78 32q12 6 10 16q-6 -2 -10 -8" />,
  'flower-trumpet': <path d="M50 70V52M50 52q-8 -14 -34 -34q34 -16 68 0q-26 20 -34 34zM50 20v30M46 66l-6 -3M54 66l6 -3" />,
  'flower-trumpet-bracts': (
    <path d="M50 70V58M50 52q-8 -14 -34 -34q34 -16 68 0q-26 20 -34 34zM50 58q-16 -4 -12 -22q8 8 12 22q4 -14 12 -22q4 18 -12 22" />
  ),
  'flower-umbel': umbel(7, 34, null, SOLID),
  'flower-umbel-white': umbel(11, 42),
  'flower-umbel-small': umbel(5, 22, <path d="M50 44l-8 4M50 44l8 4" />),
  'flower-umbel-bracts': umbel(7, 30, <path d="M50 44l-18 10M50 44l18 10M40 50l-2 8M60 50l2 8" />),
  'flower-pea': (
    <path d="M50 70V54M50 54q-24 -2 -22 -28q4 -16 22 -16t22 16q2 26 -22 28zM50 12v20M38 54q0 -18 12 -20q12 2 12 20q-12 8 -24 0z" />
  ),
  'flower-thrips': (
    <>
      {petals(5, 5, 30, 10)}
      <path d="M44 34l6 3M52 40l6 3M48 44l4 4" strokeWidth="3" />
    </>
  ),
  'pod-heart': <path d="M50 62q-30 -18 -26 -36q10 -8 26 4q16 -12 26 -4q4 18 -26 36zM50 30v32M50 62v8" />,
  'pod-flat': <path d="M20 38a30 24 0 1 0 60 0a30 24 0 1 0 -60 0M36 38a14 12 0 1 0 28 0a14 12 0 1 0 -28 0M46 14l4 8 4 -8" />,
  'fruit-rotten': fruit(<path d="M50 30q20 -4 26 10q-2 22 -24 24q-14 -14 -2 -34z" fill={SOLID} fillOpacity=".35" />),
  'fruit-end': fruit(<ellipse cx="50" cy="58" rx="14" ry="7" fill={SOLID} fillOpacity=".6" />),
  'entry-frass': fruit(
    <>
      <circle cx="58" cy="40" r="4" fill={SOLID} />
      {dots(
        [
          [64, 46],
          [60, 50],
          [66, 52],
          [56, 48],
          [62, 56],
        ],
        2,
      )}
    </>,
  ),
  'scar-crescent': fruit(<path d="M42 34q8 14 20 4q-8 6 -20 -4" strokeWidth="2.4" fill={SOLID} />),
  'webbed-berries': (
    <path d="M28 20a12 12 0 1 0 .1 0M52 18a12 12 0 1 0 .1 0M40 42a12 12 0 1 0 .1 0M64 40a12 12 0 1 0 .1 0M20 28l56 26M24 54l48 -34M34 18l20 46M68 22l-36 34" />
  ),
  // spots and signs
  'spot-plain': spotted(<ellipse cx="52" cy="40" rx="12" ry="9" fill={SOLID} fillOpacity=".3" />),
  'spot-ring': spotted(
    <path d="M36 40a16 12 0 1 0 32 0a16 12 0 1 0 -32 0M42 40a10 8 0 1 0 20 0a10 8 0 1 0 -20 0M48 40a4 3 0 1 0 8 0a4 3 0 1 0 -8 0" />,
  ),
  'spot-fringe': spotted(
    <>
      <ellipse cx="52" cy="40" rx="13" ry="9" fill={SOLID} fillOpacity=".4" />
      <path d="M39 40l-6 1M42 34l-5 -4M52 31v-6M62 34l5 -4M65 40l6 1M62 46l5 4M52 49v6M42 46l-5 4" />
    </>,
  ),
  'spot-dots': spotted(
    <>
      {dots(
        [
          [36, 36],
          [46, 44],
          [56, 34],
          [64, 44],
          [50, 38],
        ],
        4,
      )}
    </>,
  ),
  powder: leaf(<path d="M26 34q8 -6 14 0t14 0 14 0M30 46q8 -6 14 0t14 0M40 30l2 4M54 28l2 4M48 48l2 4M62 38l2 4M34 40l2 4" opacity=".7" />),
  'down-below': leaf(<path d="M30 46v8M36 48v8M42 50v8M48 51v8M54 51v8M60 50v8M66 48v8M40 32h24" opacity=".8" />),
  stippling: leaf(
    dots(
      [
        [26, 36],
        [32, 44],
        [38, 32],
        [44, 42],
        [50, 30],
        [54, 46],
        [60, 34],
        [66, 42],
        [72, 34],
        [48, 36],
        [36, 38],
        [62, 48],
      ],
      1.4,
    ),
  ),
  'silver-streaks': leaf(<path d="M24 34h12M40 30h14M58 32h14M28 46h16M50 48h16" strokeWidth="3" opacity=".5" />),
  'tip-scorch': leaf(<path d="M66 22q22 6 24 18q-2 12 -24 18q6 -18 0 -36z" fill={SOLID} fillOpacity=".5" />),
  'leafminer-blotch': leaf(<path d="M34 32q20 -8 26 4q-6 12 -26 6z" fill={SOLID} fillOpacity=".25" strokeDasharray="3 2" />),
  'leafminer-serpentine': leaf(<path d="M24 38q8 -10 14 0t12 2 12 -6 14 4" strokeWidth="3" opacity=".6" />),
  'holes-shot': leaf(
    <>
      {[
        [30, 36],
        [40, 46],
        [48, 32],
        [58, 44],
        [66, 34],
        [52, 50],
      ].map(([x, y]) => (
        <circle key={x} cx={x} cy={y} r="2.6" />
      ))}
    </>,
  ),
  'holes-ragged': leaf(<path d="M30 34l8 -4 6 6 -4 6 -8 -2zM54 42l10 -2 6 6 -8 6 -8 -4zM20 52q10 6 24 4" />),
  'ooze-shepherd': <path d="M30 70V34q2 -26 24 -22q14 6 8 18M30 46l-12 -8M30 56l12 -6M62 30q-2 8 2 10q4 -4 -2 -10" strokeWidth="2.2" />,
  'tip-straight': <path d="M50 70V8M50 30l-14 -10M50 44l14 -10M50 16l8 -8" />,
  'mould-grey': fruit(<path d="M40 20l-2 -10M48 18v-12M58 20l4 -10M66 26l8 -8M34 28l-8 -6M72 36l10 -4" strokeDasharray="2 2" />),
  'mould-pins': fruit(
    <>
      {[
        [38, 12],
        [48, 8],
        [58, 10],
        [68, 16],
      ].map(([x = 0, y = 0]) => (
        <g key={x}>
          <path d={`M${x} ${y}L${x} ${y + 12}`} />
          <circle cx={x} cy={y} r="2.6" fill={SOLID} />
        </g>
      ))}
    </>,
  ),
  'bud-fat': <path d="M50 70V54M50 54q-20 -4 -14 -24q6 -12 14 -12t14 12q6 20 -14 24zM42 50q4 -6 0 -12M50 52v-14M58 50q-4 -6 0 -12" />,
  'bud-long': <path d="M50 70V54M50 54q-10 -8 -8 -28q2 -16 8 -22q6 6 8 22q2 20 -8 28zM50 8v42" />,
  'bud-twisted': (
    <path d="M50 70V44q-12 -6 -6 -16q10 -4 8 8q-8 0 -4 -10M50 44q20 -2 18 -20q-10 -6 -10 6M50 44q-24 0 -26 -22M44 50h12M46 54h8" />
  ),
  'bud-blind': <path d="M50 70V40M50 40q-22 2 -28 -24M50 40q22 2 28 -24M44 40a6 4 0 1 0 12 0a6 4 0 1 0 -12 0" />,
  'slime-trail': leaf(<path d="M24 44q8 -10 16 -2t16 -2t20 0" strokeWidth="3.5" opacity=".55" />),
  'frass-chimney': <path d="M20 70l30 -34M80 70L50 36V4M42 44l-6 -8q4 -6 8 0l2 4M58 42l4 -8q6 0 4 8z" fill={SOLID} fillOpacity=".4" />,
  'missing-plants': bed([6, 7, 8, 9]),
  'patch-spreading': bed([6, 7, 11, 12, 13]),
  'patch-strip': bed([0, 5, 10, 15, 1, 6, 11, 16]),
  'seedling-dead': (
    <path d="M4 52h92M24 52V34M24 34q-10 -8 -14 0M24 34q10 -8 14 0M54 52q4 -10 18 -6M72 46q8 -4 10 2M72 46q6 6 12 4M46 60l6 4M60 58l4 6" />
  ),
}
