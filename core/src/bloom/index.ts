export * from './ranking.js'
export * from './seasonShift.js'
