export * from './conflicts.js'
