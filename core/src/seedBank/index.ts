export * from './years.js'
export * from './ahead.js'
