export * from './reachableCohort.js'
export * from './vulnerableWindow.js'
