export * from './economicInjuryLevel.js'
export * from './effectiveCount.js'
export * from './precision.js'
export * from './sequential.js'
