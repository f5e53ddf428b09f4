/** Names of this machine itself: a link with one of them leads nobody here from elsewhere. */
const HERE: ReadonlySet<string> = new Set(['localhost', '127.0.0.1', '[::1]'])

/** Whether the page was opened under a name that only this machine knows itself by. */
export const isThisMachine = (): boolean => HERE.has(location.hostname)
