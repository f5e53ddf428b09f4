export * from './years.js'
export * from './ahead.js'
export * from './triage.js'
