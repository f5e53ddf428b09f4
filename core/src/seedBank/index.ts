export * from './years.js'
