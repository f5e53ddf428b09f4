declare module 'tz-lookup' {
  /** The time zone in which a place lies. Throws RangeError for a place that is not on the earth. */
  export default function zoneOf(latitude: number, longitude: number): string
}
