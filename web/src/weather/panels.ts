/* What stands under the season of a station, one part at a time: fetched together when the first is opened. */
import '../messages/en/field.js'
import '../messages/en/weather.js'

export { DayHours } from './DayHours.js'
export { DevicePanel } from './DevicePanel.js'
export { DoubtList } from './DoubtList.js'
export { FilePanel } from './FilePanel.js'
export { ForecastScore } from './ForecastScore.js'
export { HeatPanel } from './HeatPanel.js'
export { StationPanel } from './StationPanel.js'
export { TypeDays } from './TypeDays.js'
export { WetEvents } from './WetEvents.js'
