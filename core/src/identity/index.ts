export * from './lookAlikes.js'
export * from './suspects.js'
