export * from './reachableCohort.js'
export * from './vulnerableWindow.js'
export * from './treatmentReach.js'
