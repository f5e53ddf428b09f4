import type { Settings } from '@bocado/contract'

const KEY = 'bocado.dates'
const ORDERS = { dmy: 'en-GB', mdy: 'en-US' } as const

/** English first, in the reader's own way of writing dates and numbers; day before month for who reads another language. */
const ofBrowser = (): string => (/^en\b/.test(navigator.language) ? navigator.language : ORDERS.dmy)

/** In which the page is read: as somebody chose, or as the browser has it. Known before anything is asked of the server. */
export function chosenLocale(): string {
  const chosen = localStorage.getItem(KEY)
  return chosen === 'dmy' || chosen === 'mdy' ? ORDERS[chosen] : ofBrowser()
}

/** Notes in which order somebody writes dates; the page follows when it is opened the next time. */
export function chooseDates(order: Settings['dates']): void {
  if (order === null) localStorage.removeItem(KEY)
  else localStorage.setItem(KEY, order)
}
