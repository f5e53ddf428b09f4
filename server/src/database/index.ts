export * from './pool.js'
export * from './migrate.js'
export * from './rows.js'
export * from './bulk.js'
