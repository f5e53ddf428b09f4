export { viewWidth } from '@bocado/core'
