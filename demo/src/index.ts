export * from './counts.js'
export * from './forecast.js'
export * from './site.js'
export * from './weather.js'
