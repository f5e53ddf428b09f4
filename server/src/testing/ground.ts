import type { Geometry } from '@bocado/contract'

/** The middle of the site of a test, as `startSite` makes it. */
const [LONGITUDE, LATITUDE] = [-119.3, 46.2]
const M = 1 / 111_195

/** Longitude and latitude of what lies so many metres east and north of the middle of the site. */
export const there = (east: number, north: number): [longitude: number, latitude: number] => [
  LONGITUDE + (east * M) / Math.cos((LATITUDE * Math.PI) / 180),
  LATITUDE + north * M,
]

/** A box by its south-western corner, its width and its height, in metres. */
export const box = (east: number, north: number, wide: number, high: number): Geometry => ({
  type: 'Polygon',
  coordinates: [
    [there(east, north), there(east + wide, north), there(east + wide, north + high), there(east, north + high), there(east, north)],
  ],
})
