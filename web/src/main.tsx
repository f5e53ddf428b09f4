import '@fontsource-variable/atkinson-hyperlegible-mono'
import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/bricolage-grotesque'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { I18nProvider } from 'react-aria-components'
import { createRoot } from 'react-dom/client'
import { IntlProvider } from 'react-intl'
import { RouterProvider } from 'react-router'
import { queryClient } from './api/hooks.js'
import { GlobalStyle } from './design/theme.js'
import './messages/en/shell.js'
import { messages } from './messages/registry.js'
import { fetchTheRest } from './shell/later.js'
import { chosenLocale } from './shell/locale.js'
import { router } from './shell/router.js'
import { wearTheme } from './shell/themes.js'

const LOCALE = chosenLocale()

wearTheme()
// Nothing has gone before the first screen stands.
void import('./shell/keptFocus.js').then(({ keepFocus }) => keepFocus())

const root = document.getElementById('page')
if (!root) throw new Error('the page has no place to stand')
createRoot(root).render(
  <StrictMode>
    <IntlProvider locale={LOCALE} messages={messages as Record<string, string>}>
      <I18nProvider locale={LOCALE}>
        <QueryClientProvider client={queryClient}>
          <GlobalStyle />
          <RouterProvider router={router} />
        </QueryClientProvider>
      </I18nProvider>
    </IntlProvider>
  </StrictMode>,
)

/** Until the first screen stands, and nothing is on its way to it, the line is its own. */
const AFTER_MS = 3000
const LOOK_EVERY_MS = 500
const fetchWhenIdle = (): void => {
  const isIdle = queryClient.isFetching() === 0 && document.querySelector('#screen h1, main h1') !== null
  if (isIdle)
    void fetchTheRest().then(async () => {
      const { readyForTheField } = await import('./shell/forTheField.js')
      await readyForTheField(queryClient)
    })
  else setTimeout(fetchWhenIdle, LOOK_EVERY_MS)
}
setTimeout(fetchWhenIdle, AFTER_MS)
