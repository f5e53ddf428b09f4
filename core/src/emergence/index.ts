export * from './waterPotential.js'
export * from './emergence.js'
export * from './emergenceCurves.js'
export * from './share.js'
