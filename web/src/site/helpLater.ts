import { partLater } from '../shell/partLater.js'

/** The fields of a volunteer: few people are added as one. */
export const HelpFields = partLater(async () => (await import('./HelpFields.js')).HelpFields)
