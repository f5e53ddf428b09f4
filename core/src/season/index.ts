export * from './wishes.js'
export * from './planSeason.js'
