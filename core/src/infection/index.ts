export * from './infectionWetHours.js'
export * from './physiologicalDay.js'
export * from './severityValue.js'
export * from './twoDayCriterion.js'
