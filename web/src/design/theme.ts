import { createGlobalStyle } from 'styled-components'

/** Sizes of type in px: five, no others. */
export const size = { small: '13px', text: '15px', large: '18px', title: '24px', display: '36px' } as const

/** Colours carry meaning, never alone. They are custom properties, so that the sunlight theme is one attribute away. */
export const colour = {
  ground: 'var(--ground)',
  sheet: 'var(--sheet)',
  white: 'var(--white)',
  ink: 'var(--ink)',
  inkSoft: 'var(--ink-soft)',
  rule: 'var(--rule)',
  ruleSoft: 'var(--rule-soft)',
  bar: 'var(--bar)',
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
    --petrol: #0b5a62; --petrol-soft: #d5e6e6; --pollen: #d99a06; --pollen-soft: #fdf0cf; --beet: #8c2148; --beet-soft: #f6e3ea;
  }
  :root[data-theme='sunlight'] {
    --ground: #ffffff; --sheet: #ffffff; --ink: #000000; --ink-soft: #1d272d; --rule: #4c5c66; --rule-soft: #9aa8af; --bar: #000000;
    --petrol: #00434b; --petrol-soft: #cfe6e6; --pollen: #b27a00; --pollen-soft: #ffe9ae; --beet: #700d33; --beet-soft: #ffdce8;
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
  :focus-visible { outline: 3px solid var(--pollen); outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
`
