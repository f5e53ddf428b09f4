/** How the page looks: as the system wishes, or by choice. */
export const THEMES = ['system', 'day', 'sunlight', 'dark'] as const
export type Theme = (typeof THEMES)[number]

const KEY = 'bocado.theme'
const wants = (feature: string): MediaQueryList => window.matchMedia(`(${feature})`)

export const chosenTheme = (): Theme => THEMES.find((theme) => theme === localStorage.getItem(KEY)) ?? 'system'

/** What the system wishes: more contrast is the theme made for the sun. */
const wished = (): Theme => {
  if (wants('prefers-contrast: more').matches) return 'sunlight'
  return wants('prefers-color-scheme: dark').matches ? 'dark' : 'day'
}

function wear(): void {
  const chosen = chosenTheme()
  document.documentElement.dataset['theme'] = chosen === 'system' ? wished() : chosen
}

/** Kept in this browser, worn at once. */
export function chooseTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme)
  wear()
}

/** Wears the theme, and follows the system and the browser's other tabs from then on. */
export function wearTheme(): void {
  wear()
  for (const feature of ['prefers-color-scheme: dark', 'prefers-contrast: more']) wants(feature).addEventListener('change', wear)
  window.addEventListener('storage', wear)
}
