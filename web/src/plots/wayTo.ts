interface Point {
  latitude: number
  longitude: number
}

const EARTH_M = 6_371_000
const RADIANS = Math.PI / 180
const compass = ['n', 'ne', 'e', 'se', 's', 'sw', 'w', 'nw'] as const
export type Compass = (typeof compass)[number]

/** How far it is from one point to another on foot, in m, and in which direction: in degrees from north, and as the compass names it. */
export function wayTo(from: Point, to: Point): { metres: number; degrees: number; compass: Compass } {
  const north = (to.latitude - from.latitude) * RADIANS
  // The shorter way around, also over the line at which longitudes begin anew.
  const turned = ((to.longitude - from.longitude + 540) % 360) - 180
  const east = turned * RADIANS * Math.cos(((from.latitude + to.latitude) / 2) * RADIANS)
  const degrees = (Math.atan2(east, north) / RADIANS + 360) % 360
  return { metres: EARTH_M * Math.hypot(north, east), degrees, compass: compass[Math.round(degrees / 45) % 8] as Compass }
}
