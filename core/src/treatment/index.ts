export * from './coverage.js'
export * from './sprayOutput.js'
export * from './wetBulb.js'
export * from './targetGate.js'
