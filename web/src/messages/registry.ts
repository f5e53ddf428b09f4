import type { MessageFormatElement } from 'react-intl'

/**
 * The messages that are there: those of the frame from the beginning, those of a screen since its code came. A text that says more than
 * letters is compiled when the page is built, so that nothing is parsed in the browser.
 */
export const messages: Record<string, string | MessageFormatElement[]> = {}

/** Adds the messages of a group; each group does so itself when it is loaded. */
export function register(group: Readonly<Record<string, string | MessageFormatElement[]>>): void {
  Object.assign(messages, group)
}
