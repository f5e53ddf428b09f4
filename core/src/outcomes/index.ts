export * from './checkComparison.js'
export * from './efficacy.js'
export * from './varieties.js'
export * from './countsAround.js'
