export * from './counts.js'
export * from './site.js'
export * from './weather.js'
