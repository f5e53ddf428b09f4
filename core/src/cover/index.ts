export * from './cover.js'
