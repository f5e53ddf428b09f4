export * from './normal.js'
export * from './quantile.js'
export * from './random.js'
export * from './share.js'
