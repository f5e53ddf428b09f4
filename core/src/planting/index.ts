export * from './attack.js'
export * from './plantingDates.js'
export * from './sowingPlans.js'
