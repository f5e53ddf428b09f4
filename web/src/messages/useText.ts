import { useIntl, type IntlShape } from 'react-intl'
import type { en } from './en.js'

export type MessageId = keyof typeof en
export type Values = Record<string, string | number | boolean | Date | null | undefined>
export type Say = (id: MessageId, values?: Values) => string

/** A text with more in it than letters: a value, a choice, something quoted. */
const SAYS_MORE = /[{}'<>#]/

const sayers = new WeakMap<IntlShape, Say>()

/** The text of a message in the reader's language, with its values filled in. The function is the same for all who read that language. */
export function useText(): Say {
  const intl = useIntl()
  const known = sayers.get(intl)
  if (known) return known
  const say: Say = (id, values) => {
    const text = intl.messages[id]
    return typeof text === 'string' && !SAYS_MORE.test(text) ? text : intl.formatMessage({ id }, values)
  }
  sayers.set(intl, say)
  return say
}
