export * from './stationTime.js'
