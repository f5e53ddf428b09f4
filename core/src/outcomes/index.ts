export * from './checkComparison.js'
export * from './efficacy.js'
