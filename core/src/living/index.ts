export * from './conditions.js'
export * from './residues.js'
export * from './supply.js'
