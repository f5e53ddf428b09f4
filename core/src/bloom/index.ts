export * from './ranking.js'
export * from './seasonShift.js'
export * from './evidence.js'
export * from './flowering.js'
