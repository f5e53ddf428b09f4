export * from './lookAlikes.js'
export * from './suspects.js'
export * from './toldApart.js'
export * from './growing.js'
