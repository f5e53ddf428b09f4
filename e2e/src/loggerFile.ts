/** A logger's file of hourly readings in °F with US dates, as a test writes it: standard time, 1 January 2021 to 11 June 2026. */
export interface LoggerFile {
  text: string
  /** Temperatures in °C, hour by hour from the first one. */
  tempsC: Float64Array
  firstDay: string
}

export function writeLoggerFile(): LoggerFile {
  const lines = ['Date,Time,Air Temp (°F),RH (%),Rain (in),Wind (mph)']
  const start = Date.UTC(2021, 0, 1)
  const hours = (Date.UTC(2026, 5, 12) - start) / 3_600_000
  const tempsC = new Float64Array(hours)
  for (let i = 0; i < hours; i++) {
    const at = new Date(start + i * 3_600_000)
    const day = i / 24
    const season = 54 - 20 * Math.cos((2 * Math.PI * (day - 20)) / 365.25)
    const spell = 6 * Math.sin(day / 5.3) + 4 * Math.sin(day / 2.1 + at.getUTCFullYear())
    const daily = 11 * Math.cos((2 * Math.PI * (at.getUTCHours() - 15)) / 24)
    const fahrenheit = Number((season + spell + daily).toFixed(1))
    tempsC[i] = ((fahrenheit - 32) * 5) / 9
    const hour = at.getUTCHours()
    const clock = `${hour % 12 || 12}:00 ${hour < 12 ? 'AM' : 'PM'}`
    lines.push(`${at.getUTCMonth() + 1}/${at.getUTCDate()}/${at.getUTCFullYear()},${clock},${fahrenheit},55,0.00,4.5`)
  }
  return { text: lines.join('\r\n'), tempsC, firstDay: '2021-01-01' }
}
