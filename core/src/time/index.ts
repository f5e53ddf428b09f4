export * from './civilDays.js'
export * from './durations.js'
export * from './stationTime.js'
export * from './writtenDay.js'
