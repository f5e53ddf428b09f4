export * from './programme.js'
