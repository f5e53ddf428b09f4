import { useCallback } from 'react'
import { useIntl } from 'react-intl'
import type { en } from './en.js'

export type MessageId = keyof typeof en
export type Values = Record<string, string | number | boolean | Date | null | undefined>
export type Say = (id: MessageId, values?: Values) => string

/** The text of a message in the reader's language, with its values filled in. The function stays the same between renders. */
export function useText(): Say {
  const intl = useIntl()
  return useCallback((id, values) => intl.formatMessage({ id }, values), [intl])
}
