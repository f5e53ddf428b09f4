export { instantOf, jsonOf, sqlInstant, type Row } from './pool.js'
export type { Queryable, Session, Transaction } from './session.js'
export * from './rows.js'
export * from './bulk.js'
