import type { ReactNode } from 'react'

/*
 * Line drawings of animals, each in a field of 100 by 72, drawn with the ink of the text around it. A drawing shows the one
 * character that it stands for; everything else is left plain.
 */

const SOLID = 'currentColor'

function caterpillar(more: ReactNode = null, head: ReactNode = <circle cx="86" cy="40" r="7" />): ReactNode {
  return (
    <>
      <path d="M14 44 q0 -10 10 -10 h56 v14 h-56 q-10 0 -10 -4z" />
      <path d="M26 34v14M38 34v14M50 34v14M62 34v14M74 34v14" opacity=".45" />
      <path d="M32 48v5M44 48v5M56 48v5M20 48v4M72 48l2 6M78 48l2 6" />
      {head}
      {more}
    </>
  )
}

function beetle(back: ReactNode, more: ReactNode = null, ry = 20): ReactNode {
  return (
    <>
      <ellipse cx="50" cy="42" rx="17" ry={ry} />
      <path d={`M50 ${42 - ry}V${42 + ry}`} />
      <path d="M38 24q12 -12 24 0" />
      <circle cx="50" cy="16" r="5" />
      <path d="M46 12l-8 -7M54 12l8 -7M34 34l-12 -5M33 44l-13 2M36 54l-11 8M66 34l12 -5M67 44l13 2M64 54l11 8" />
      {back}
      {more}
    </>
  )
}

function bug(body: ReactNode, more: ReactNode = null): ReactNode {
  return (
    <>
      {body}
      <circle cx="50" cy="13" r="5" />
      <path d="M46 10l-9 -7M54 10l9 -7M37 30l-13 -7M36 40l-15 3M63 30l13 -7M64 40l15 3" />
      {more}
    </>
  )
}
const narrow = <path d="M50 18q12 6 13 24q-2 20 -13 24q-11 -4 -13 -24q1 -18 13 -24zM44 26l6 12 6 -12" />

function grub(more: ReactNode): ReactNode {
  return (
    <>
      <path d="M30 22q-16 22 4 38q24 12 40 -8q6 -12 -4 -16q-10 14 -24 8q-12 -8 -4 -20z" />
      <circle cx="70" cy="32" r="7" fill={SOLID} />
      {more}
    </>
  )
}

function fly(wings: ReactNode): ReactNode {
  return (
    <>
      <ellipse cx="50" cy="46" rx="8" ry="16" />
      <circle cx="50" cy="24" r="7" />
      <path d="M44 32q-30 -6 -34 12q14 12 32 0M56 32q30 -6 34 12q-14 12 -32 0" />
      <path d="M43 52l-12 10M57 52l12 10" />
      {wings}
    </>
  )
}

function aphid(more: ReactNode = null, head: ReactNode = <path d="M44 20l-6 -14M56 20l6 -14" />): ReactNode {
  return (
    <>
      <path d="M50 18q20 8 16 32q-6 14 -16 14t-16 -14q-4 -24 16 -32z" />
      <path d="M38 52l-6 12M62 52l6 12M36 34l-14 -4M34 44l-14 4M64 34l14 -4M66 44l14 4" />
      {head}
      {more}
    </>
  )
}

function mite(more: ReactNode = null, body: ReactNode = <ellipse cx="50" cy="38" rx="18" ry="22" />): ReactNode {
  return (
    <>
      {body}
      <path d="M36 26l-16 -8M33 34l-18 0M34 46l-16 8M40 56l-10 10M64 26l16 -8M67 34l18 0M66 46l16 8M60 56l10 10" />
      {more}
    </>
  )
}

function thrips(more: ReactNode = null): ReactNode {
  return (
    <>
      <path d="M12 38q10 -8 20 -7h44q10 4 12 7q-2 3 -12 7h-44q-10 1 -20 -7z" />
      <circle cx="20" cy="35" r="2" fill={SOLID} />
      <path d="M34 31q20 -16 46 -12M34 45q20 16 46 12M40 29l4 -4M50 25l4 -5M60 22l4 -6M40 47l4 4M50 51l4 5M60 54l4 6M12 34l-8 -6M12 42l-8 6" />
      {more}
    </>
  )
}

const moth = (wings: ReactNode): ReactNode => (
  <>
    <ellipse cx="50" cy="38" rx="6" ry="22" />
    <path d="M47 16l-10 -10M53 16l10 -10" />
    {wings}
  </>
)

const dots = (places: readonly [number, number][], r = 2.4): ReactNode =>
  places.map(([x, y]) => <circle key={`${x} ${y}`} cx={x} cy={y} r={r} fill={SOLID} />)

export const animalDrawings: Readonly<Record<string, ReactNode>> = {
  'caterpillar-plain': caterpillar(),
  'caterpillar-small': caterpillar(<path d="M14 40l-8 -26M30 34l2 -4M44 34l2 -4M60 34l2 -4" strokeDasharray="2 2" />),
  'caterpillar-comb': caterpillar(<path d="M14 36l-6 -6M12 38l-8 -4M11 41l-8 -1M11 44l-8 2M12 47l-6 5" strokeWidth="2.4" />),
  'caterpillar-banded': caterpillar(
    <path d="M20 34v14M32 34v14M44 34v14M56 34v14M68 34v14" strokeWidth="6" opacity=".75" />,
    <circle cx="86" cy="40" r="7" fill={SOLID} />,
  ),
  'caterpillar-dotted': caterpillar(
    dots(
      [
        [22, 38],
        [34, 38],
        [46, 38],
        [58, 38],
        [70, 38],
        [28, 43],
        [40, 43],
        [52, 43],
        [64, 43],
      ],
      1.8,
    ),
  ),
  'caterpillar-striped': caterpillar(
    <path d="M16 38h64M15 41h65M16 45h64M28 34l1 -4M42 34l1 -4M56 34l1 -4M70 34l1 -4" strokeWidth="1.6" />,
  ),
  'caterpillar-y-head': caterpillar(
    <path d="M16 40h56" />,
    <path d="M82 27a13 13 0 1 0 .1 0zM82 29v10l-7 10M82 39l7 10" strokeWidth="2" />,
  ),
  'caterpillar-horned-v': caterpillar(<path d="M16 36q-6 -8 -4 -20M28 37l5 7 5 -7M42 37l5 7 5 -7M56 37l5 7 5 -7" strokeWidth="2" />),
  'caterpillar-horned-lines': caterpillar(
    <path d="M16 36q-8 -6 -10 -18M26 46l8 -11M38 46l8 -11M50 46l8 -11M62 46l8 -11" strokeWidth="2" />,
  ),
  'caterpillar-hairy-stripe': caterpillar(
    <path d="M16 41h64M22 34l-4 -10M34 34l-2 -12M46 34v-12M58 34l2 -12M70 34l4 -10M26 48l-4 12M46 48v12M66 48l4 12" />,
  ),
  'caterpillar-hairy-dots': caterpillar(
    <>
      {dots([
        [24, 38],
        [34, 38],
        [44, 38],
        [54, 38],
        [64, 38],
        [24, 44],
        [34, 44],
        [44, 44],
        [54, 44],
        [64, 44],
      ])}
      <path d="M22 34l-6 -12M38 34l-2 -12M54 34l2 -12M70 34l6 -12M30 48l-4 12M60 48l4 12" />
    </>,
  ),
  'caterpillar-looping': (
    <>
      <path d="M12 52q14 2 20 -14q6 -20 20 -20t20 20q6 14 14 12" strokeWidth="9" opacity=".25" />
      <path d="M12 52q14 2 20 -14q6 -20 20 -20t20 20q6 14 14 12M12 52v6M20 50v8M80 50v8" />
      <circle cx="88" cy="49" r="5" />
    </>
  ),
  'caterpillar-curled': (
    <>
      <path d="M66 22q-28 -14 -38 12q-2 26 24 28q22 -2 20 -22q-8 -10 -18 0" strokeWidth="10" opacity=".25" />
      <path d="M66 22q-28 -14 -38 12q-2 26 24 28q22 -2 20 -22q-8 -10 -18 0" />
    </>
  ),
  'grub-legless': grub(null),
  'grub-c-shaped': grub(<path d="M58 48l2 10M50 48l-2 10M66 44l6 8" />),
  'grub-v': grub(<path d="M24 40l5 8 5 -8" strokeWidth="2.4" />),
  maggot: <path d="M12 40q34 -16 66 -10q10 2 10 10q0 8 -10 10q-32 6 -66 -10zM30 34v12M46 31v18M62 29v21" />,
  'maggots-many': (
    <path d="M10 24q18 -8 32 -4q4 4 0 8q-16 6 -32 -4zM46 44q18 -8 32 -4q4 4 0 8q-16 6 -32 -4zM18 56q18 -8 32 -4q4 4 0 8q-16 6 -32 -4zM54 18q18 -8 32 -4q4 4 0 8q-16 6 -32 -4z" />
  ),
  'larva-blackhead': (
    <>
      <path d="M14 40q30 -12 58 -8q8 4 8 8t-8 8q-28 4 -58 -8z" />
      <circle cx="84" cy="40" r="5" fill={SOLID} />
    </>
  ),
  'larva-lemon': <path d="M26 38q10 -9 24 -9t24 9q-10 9 -24 9t-24 -9zM40 31v14M50 29v18M60 31v14" />,
  'larva-humped': (
    <>
      <path d="M16 52q4 -32 34 -32q28 0 30 30q-32 8 -64 2z" />
      <circle cx="84" cy="48" r="6" fill={SOLID} />
      {dots([
        [28, 40],
        [38, 34],
        [50, 32],
        [62, 36],
        [32, 48],
        [44, 44],
        [58, 46],
      ])}
    </>
  ),
  'larva-slug': <path d="M12 48q8 -16 38 -16t34 12q0 8 -10 8h-58q-6 -1 -4 -4zM28 34v18M42 32v20M56 32v20M80 40a4 4 0 1 0 .1 0" />,
  slug: (
    <path d="M8 52q14 -2 24 -14q12 -12 30 -8q14 2 24 -4M86 26l4 -12M80 26l0 -12M86 26q8 4 4 14q-6 12 -24 12h-58M34 38q12 -8 22 0q-10 10 -22 4" />
  ),
  'slug-spotted': (
    <>
      <path d="M8 52q14 -2 24 -14q12 -12 30 -8q14 2 24 -4M86 26l4 -12M80 26l0 -12M86 26q8 4 4 14q-6 12 -24 12h-58" />
      {dots(
        [
          [40, 36],
          [50, 33],
          [60, 35],
          [46, 43],
          [56, 43],
          [30, 46],
          [36, 49],
          [68, 44],
        ],
        2.6,
      )}
    </>
  ),
  'lady-beetle-larva': (
    <path d="M20 36q26 -16 56 0q-30 18 -56 0zM34 30v14M48 28v17M62 30v14M34 44l-6 14M48 45l0 14M62 44l6 14M34 30l-6 -14M48 28v-14M62 30l6 -14M78 36a5 5 0 1 0 .1 0" />
  ),
  wireworm: <path d="M8 34h74q10 2 10 5t-10 5h-74zM22 34v10M36 34v10M50 34v10M64 34v10M78 34v10" />,
  'beetle-plain': beetle(null),
  'beetle-stripes': beetle(<path d="M41 27v30M50 23v38M59 27v30" strokeWidth="4" />),
  'beetle-stripes-ten': beetle(<path d="M37 32v20M41 27v30M45 24v36M55 24v36M59 27v30M63 32v20" strokeWidth="2.2" />),
  'beetle-wavy': beetle(<path d="M40 28q4 6 0 12t0 14M60 28q-4 6 0 12t0 14" strokeWidth="4" />),
  'beetle-spots': beetle(
    dots(
      [
        [42, 32],
        [58, 32],
        [40, 44],
        [60, 44],
        [44, 55],
        [56, 55],
      ],
      3.2,
    ),
  ),
  'beetle-patches': beetle(<path d="M38 30h8v8h-8zM54 30h8v8h-8zM37 42h9v7h-9zM54 42h9v7h-9zM41 53h6v5h-6zM53 53h6v5h-6z" fill={SOLID} />),
  'beetle-tufts': beetle(
    dots(
      [
        [31, 34],
        [31, 41],
        [32, 48],
        [35, 55],
        [69, 34],
        [69, 41],
        [68, 48],
        [65, 55],
        [46, 64],
        [54, 64],
      ],
      2.6,
    ),
  ),
  'beetle-metallic': beetle(<path d="M40 30q6 10 2 24M60 30q-6 10 -2 24" opacity=".5" />),
  'beetle-flea': beetle(null, <path d="M36 54q-16 0 -14 14M64 54q16 0 14 14" strokeWidth="4" />, 14),
  'beetle-snout': beetle(
    <>
      <path d="M44 28v26M56 28v26" strokeDasharray="2 3" />
      {dots(
        [
          [42, 40],
          [58, 46],
          [45, 52],
        ],
        1.8,
      )}
    </>,
    <path d="M50 14v-10M50 6l-9 -2M50 6l9 -2" strokeWidth="2.4" />,
  ),
  'beetle-snout-small': (
    <g transform="translate(25 20) scale(.5)">{beetle(null, <path d="M50 14v-10M50 6l-9 -2M50 6l9 -2" strokeWidth="3" />)}</g>
  ),
  'bug-narrow': bug(narrow, <path d="M40 56l-16 10M60 56l16 10" />),
  'bug-leaf-legs': bug(narrow, <path d="M40 54l-12 2q-8 2 -6 12q8 -2 8 -10M60 54l12 2q8 2 6 12q-8 -2 -8 -10" />),
  'bug-shield': bug(<path d="M26 28h48l-6 20l-18 18l-18 -18zM40 28l10 18l10 -18" />, <path d="M40 58l-12 8M60 58l12 8" />),
  'bug-assassin': bug(
    <path d="M50 18q8 8 6 20q10 8 0 26h-12q-10 -18 0 -26q-2 -12 6 -20z" />,
    <path d="M50 12q10 -4 8 8M40 56l-16 10M60 56l16 10" strokeWidth="2.2" />,
  ),
  aphid: aphid(),
  'aphid-inward': aphid(null, <path d="M44 20l3 4M56 20l-3 4M44 18l-6 -14M56 18l6 -14" strokeWidth="2" />),
  'aphid-outward': aphid(null, <path d="M44 20l-4 -3M56 20l4 -3M42 16l-6 -12M58 16l6 -12" strokeWidth="2" />),
  'aphid-mummy': <path d="M50 14q24 4 22 26q-4 22 -22 22t-22 -22q-2 -22 22 -26zM56 50a5 5 0 1 0 .1 0" />,
  'aphid-waxy': aphid(<path d="M40 30l3 3M52 28l3 3M44 42l3 3M56 44l3 3M48 54l3 3M60 34l3 3" strokeWidth="2" />),
  'aphid-woolly': aphid(<path d="M50 62q-24 8 -28 -8M56 60q22 6 26 -10M44 58q-18 10 -24 2M50 24q-26 -4 -30 10M54 24q24 -4 30 8" />),
  psyllid: <path d="M50 14q24 6 22 28q-4 20 -22 20t-22 -20q-2 -22 22 -28zM34 32q-14 4 -12 18l12 -4M66 32q14 4 12 18l-12 -4M42 26h16" />,
  'psyllid-adult': fly(<path d="M18 36q10 8 22 6M82 36q-10 8 -22 6M46 60l-10 8M54 60l10 8" />),
  whitefly: <path d="M50 16q-30 6 -34 40q20 6 34 -6q14 12 34 6q-4 -34 -34 -40zM50 16v34M46 14l-6 -8M54 14l6 -8" />,
  'whitefly-tent': <path d="M46 16q-24 14 -24 44q14 0 24 -10zM54 16q24 14 24 44q-14 0 -24 -10zM48 14l-6 -8M52 14l6 -8" />,
  mealybug: (
    <path d="M26 38a24 18 0 1 0 48 0a24 18 0 1 0 -48 0M38 24v28M50 20v36M62 24v28M26 30l-8 -4M24 40l-10 2M28 50l-8 6M74 30l8 -4M76 40l10 2M72 50l8 6M40 56l-2 10M60 56l2 10" />
  ),
  'scale-round': (
    <path d="M28 38a22 22 0 1 0 44 0a22 22 0 1 0 -44 0M40 38a10 10 0 1 0 20 0a10 10 0 1 0 -20 0M47 38a3 3 0 1 0 6 0a3 3 0 1 0 -6 0" />
  ),
  'scale-long': <path d="M16 44q14 -20 66 -16q-6 26 -50 24q-12 -1 -16 -8zM26 40v10M38 34v16M50 31v18M62 29v17" />,
  thrips: thrips(),
  'thrips-bristles': thrips(<path d="M26 32l-4 -14M30 32l2 -14" strokeWidth="2.4" />),
  'thrips-banded': thrips(<path d="M40 26l6 24M54 22l6 32M68 20l6 36" strokeWidth="4" opacity=".6" />),
  'mite-two-spots': mite(
    dots(
      [
        [41, 38],
        [59, 38],
      ],
      5,
    ),
  ),
  'mite-red': mite(
    <>
      <ellipse cx="50" cy="38" rx="18" ry="22" fill={SOLID} opacity=".35" />
      <path d="M42 22l-2 -10M58 22l2 -10M40 36l-6 -8M60 36l6 -8M44 52l-4 10M56 52l4 10" />
    </>,
  ),
  'mite-predator': mite(<path d="M62 64l10 4M38 64l-10 4" />, <path d="M50 14q24 14 16 40q-16 14 -32 0q-8 -26 16 -40z" />),
  'mite-glassy': mite(<ellipse cx="44" cy="32" rx="4" ry="7" opacity=".5" />, <ellipse cx="50" cy="38" rx="14" ry="24" />),
  gnat: fly(<path d="M18 40q14 -4 26 -4M82 40q-14 -4 -26 -4M30 38l-6 6M70 38l6 6M48 18q-8 -14 -18 -14M52 18q8 -14 18 -14" />),
  'fly-plain': fly(null),
  'fly-banded-wing': fly(<path d="M18 34v16M28 32v18M36 32v14M82 34v16M72 32v18M64 32v14" strokeWidth="4" />),
  'fly-spotted-wing': fly(
    dots(
      [
        [17, 42],
        [83, 42],
      ],
      4,
    ),
  ),
  'moth-clearwing': moth(
    <path d="M44 24l-36 -6q-2 10 34 18M56 24l36 -6q2 10 -34 18M44 34l-22 14q8 6 22 -6M56 34l22 14q-8 6 -22 -6M45 44h10M45 50h10M45 56h10M40 58l-10 10M60 58l10 10" />,
  ),
  wasp: (
    <path d="M30 30a8 8 0 1 0 .1 0M40 36q6 -8 16 -4M40 40q8 6 14 0M56 36q4 -10 18 -6q16 6 18 14q-12 2 -24 -2q-10 -2 -12 -6zM66 31v11M76 33v11M44 32q-2 -18 22 -22q6 8 -14 22M26 30q-6 -8 -14 -8" />
  ),
  'pupa-girdled': <path d="M30 62q-6 -20 4 -34q8 -12 20 -14l6 8q12 14 8 30q-6 12 -20 12zM32 44l38 -6M60 22l8 -6" />,
  'cocoon-lace': <path d="M14 38q36 -34 72 0q-36 34 -72 0zM26 28l20 28M40 22l20 30M56 22l18 24M74 28l-20 28M60 22l-20 30M44 22l-18 24" />,
  'bag-case': (
    <path d="M46 6v10M46 16q20 14 8 50q-12 6 -18 0q-8 -36 10 -50zM40 26l-10 6M38 38l-12 4M38 50l-12 6M54 28l12 4M56 40l12 2M54 52l12 6" />
  ),
  'tent-web': <path d="M50 68v-22M50 46l-34 -38M50 46l34 -38M26 20q24 10 48 0M32 28q18 8 36 0M38 34q12 6 24 0M44 40q6 4 12 0" />,
  'web-ends': (
    <path d="M8 66l34 -34M42 32q-6 -26 20 -26q28 0 30 22q2 22 -24 22q-20 0 -26 -18zM50 20q18 10 36 2M48 30q20 10 40 2M58 10q-2 20 10 38M76 10q2 20 -6 38" />
  ),
  'web-leaf': <path d="M20 56q10 -44 60 -44q0 46 -60 44zM20 56l56 -42M30 50l14 -30M44 46l22 -30M36 30l30 16M50 22l20 14" />,
  'eggs-single': <path d="M50 20q12 6 12 20t-12 16q-12 -2 -12 -16t12 -20zM20 60h60" />,
  'eggs-scales': (
    <path d="M22 30a10 7 0 1 0 20 0a10 7 0 1 0 -20 0M38 34a10 7 0 1 0 20 0a10 7 0 1 0 -20 0M54 30a10 7 0 1 0 20 0a10 7 0 1 0 -20 0M30 42a10 7 0 1 0 20 0a10 7 0 1 0 -20 0M46 44a10 7 0 1 0 20 0a10 7 0 1 0 -20 0" />
  ),
  'eggs-mass': (
    <path d="M20 46q4 -26 30 -26t32 20q-4 18 -32 18t-30 -12zM30 34l6 4M42 28l6 4M56 30l6 4M66 38l6 4M34 46l6 4M48 44l6 4M60 50l6 4" />
  ),
  cone: <path d="M50 8q22 18 16 50h-32q-6 -32 16 -50zM38 30q12 8 24 0M34 42q16 8 32 0M36 52q14 6 28 0M44 20q6 5 12 0M50 58v10" />,
}
