export * from './calendar.js'
export * from './dailySeries.js'
export * from './seasonHeat.js'
