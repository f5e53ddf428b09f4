export * from './lookAlikes.js'
export * from './suspects.js'
export * from './toldApart.js'
