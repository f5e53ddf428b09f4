import { createGlobalStyle } from 'styled-components'

/** Sizes of type in px: five, no others. */
export const size = { small: '13px', text: '15px', large: '18px', title: '24px', display: '36px' } as const

/** Colours carry meaning, never alone. They are custom properties, so that another theme is one attribute away (`themes.ts`). */
export const colour = {
  ground: 'var(--ground)',
  sheet: 'var(--sheet)',
  /** Paper: what is read lies on it, and what stands on ink, petrol or beet is written in it. Dark in the dark theme. */
  white: 'var(--white)',
  ink: 'var(--ink)',
  inkSoft: 'var(--ink-soft)',
  rule: 'var(--rule)',
  ruleSoft: 'var(--rule-soft)',
  bar: 'var(--bar)',
  /** Words on the bar: bright in every theme. */
  onBar: 'var(--on-bar)',
  onBarSoft: 'var(--on-bar-soft)',
  barRule: 'var(--bar-rule)',
  /** Open. */
  petrol: 'var(--petrol)',
  petrolSoft: 'var(--petrol-soft)',
  /** Closing. */
  pollen: 'var(--pollen)',
  pollenSoft: 'var(--pollen-soft)',
  /** Blocked, danger, over the threshold. */
  beet: 'var(--beet)',
  beetSoft: 'var(--beet-soft)',
} as const

export const font = {
  heading: "'Bricolage Grotesque Variable', 'Atkinson Hyperlegible Next Variable', sans-serif",
  text: "'Atkinson Hyperlegible Next Variable', sans-serif",
  figures: "'Atkinson Hyperlegible Mono Variable', monospace",
} as const

/** Below this width the page is the one for a phone in the field. */
export const PHONE = '(max-width: 720px)'

export const GlobalStyle = createGlobalStyle`
  :root {
    --ground: #e9edee; --sheet: #f7f9f9; --white: #ffffff; --ink: #14212b; --ink-soft: #46555f; --rule: #b3c0c6; --rule-soft: #dbe2e5; --bar: #14212b;
    --on-bar: #ffffff; --on-bar-soft: #c9d5da; --bar-rule: #7b8a93;
    --petrol: #0b5a62; --petrol-soft: #d5e6e6; --pollen: #d99a06; --pollen-soft: #fdf0cf; --beet: #8c2148; --beet-soft: #f6e3ea;
    --stage-1: #d6e7e7; --stage-2: #a9cccd; --stage-3: #86b8ba; --stage-4: #4f9598; --stage-5: #2a7379; --stage-6: #0b4e56; --stage-still: #c3cdd1;
    --on-stage-early: #0b4e56; --on-stage-late: #ffffff;
    color-scheme: light;
  }
  :root[data-theme='sunlight'] {
    --ground: #ffffff; --sheet: #ffffff; --ink: #000000; --ink-soft: #1d272d; --rule: #4c5c66; --rule-soft: #9aa8af; --bar: #000000;
    --on-bar-soft: #f2f6f8; --bar-rule: #b3c0c6;
    --petrol: #00434b; --petrol-soft: #cfe6e6; --pollen: #b27a00; --pollen-soft: #ffe9ae; --beet: #700d33; --beet-soft: #ffdce8;
  }
  :root[data-theme='dark'] {
    --ground: #10191f; --sheet: #162129; --white: #1d2a33; --ink: #e8eef1; --ink-soft: #b4c2ca; --rule: #51626d; --rule-soft: #33434d; --bar: #0a1216;
    --petrol: #7cc7cd; --petrol-soft: #1d4146; --pollen: #e8b33a; --pollen-soft: #463711; --beet: #f292b2; --beet-soft: #4a2433;
    --stage-1: #2b4c50; --stage-2: #345f64; --stage-3: #3f767b; --stage-4: #63a9ad; --stage-5: #8ac5c8; --stage-6: #c0e6e7; --stage-still: #46545c;
    --on-stage-early: #d9f0f0; --on-stage-late: #0b2b30;
    color-scheme: dark;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html { -webkit-text-size-adjust: 100%; }
  body { margin: 0; background: var(--ground); color: var(--ink); font: 15px/1.4 ${font.text}; font-variant-numeric: tabular-nums; }
  h1, h2, h3 { font-family: ${font.heading}; font-weight: 650; letter-spacing: -0.01em; line-height: 1.15; margin: 0; }
  p { margin: 0; }
  a { color: var(--petrol); }
  table { border-collapse: collapse; }
  button, input, textarea { font: inherit; color: inherit; }
  @media ${PHONE} { main a { display: inline-flex; align-items: center; min-height: 48px; } }
  /* What is scrolled to, or reached by the Tab key, is not left below the row of screens at the bottom. */
  @media ${PHONE} { html { scroll-padding-bottom: 80px; } }
  :focus-visible { outline: 3px solid var(--pollen); outline-offset: 2px; }
  .on-paper { display: none; }
  @media print {
    /* Ink on white, whatever theme is worn; the screen as it stands, without what is pressed or typed into. */
    :root, :root[data-theme] {
      --ground: #fff; --sheet: #fff; --white: #fff; --ink: #000; --ink-soft: #333; --rule: #888; --rule-soft: #ccc;
      --petrol: #0b5a62; --petrol-soft: #d5e6e6; --pollen: #d99a06; --pollen-soft: #fdf0cf; --beet: #8c2148; --beet-soft: #f6e3ea;
      color-scheme: light;
    }
    @page { size: landscape; margin: 10mm; }
    * { print-color-adjust: exact; -webkit-print-color-adjust: exact; }
    #page { width: var(--paper-width, auto); zoom: var(--paper-zoom, 1); }
    .on-paper { display: block; }
    header, nav, .off-paper, [role='status'], main [data-rac] { display: none !important; }
    /* Names that are pressed are read, too. */
    main th [data-rac], main [data-rac].on-paper-too { display: inline !important; color: inherit; text-decoration: none; }
    main, main * { overflow: visible !important; max-height: none !important; }
    a { color: inherit; text-decoration: none; }
    figure, li, tr { break-inside: avoid; }
    main [data-whole] { overflow: hidden !important; break-inside: avoid; width: var(--whole-width, auto); zoom: var(--whole-zoom, 1); }
    h1, h2, h3 { break-after: avoid; }
  }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
`
