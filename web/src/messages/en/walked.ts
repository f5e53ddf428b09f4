import { register } from '../registry.js'

/** What was taken on walks. */
export const walked = {
  'walked.title': 'Taken on walks',
  'walked.unnamed': 'not named yet',
  'walked.flags': '{name}, {count, plural, one {one flag} other {{count, number} flags}}',
  'walked.which': 'Which flags',
  'walked.each': '{each} an hour',
  'walked.depletion':
    '{name}, {date}: by how the catch fell from sweep to sweep there were about {there}, and {left} are left (Leslie & Davis 1939).',
} as const

register(walked)
