export * from './alerts.js'
export * from './quietHours.js'
