import type { Geometry, ShapeKind } from '@bocado/contract'

/** Metres east and north of the south-west corner of the terrace. */
type Corner = readonly [east: number, north: number]

/** Where that corner lies: nowhere, but where the site's sun and frost are. */
const CORNER = { latitude: 46.197, longitude: -119.3045 }
const METRES_PER_DEGREE = 111_195

export const positionAt = ([east, north]: Corner): [number, number] => [
  Number((CORNER.longitude + east / (METRES_PER_DEGREE * Math.cos((CORNER.latitude * Math.PI) / 180))).toFixed(6)),
  Number((CORNER.latitude + north / METRES_PER_DEGREE).toFixed(6)),
]
const surface = (...corners: Corner[]): Geometry => ({ type: 'Polygon', coordinates: [[...corners, corners[0] as Corner].map(positionAt)] })
const line = (...corners: Corner[]): Geometry => ({ type: 'LineString', coordinates: corners.map(positionAt) })
const point = (corner: Corner): Geometry => ({ type: 'Point', coordinates: positionAt(corner) })

/** Outlines of the blocks by their names: three rows on the terrace, the river's creek below them. */
export const OUTLINES: Readonly<Record<string, Geometry>> = {
  'Terrace Vines': surface([0, 470], [290, 490], [300, 680], [10, 664]),
  'Old Apples': surface([312, 492], [520, 502], [530, 700], [318, 692]),
  'Ladder Pears': surface([540, 508], [676, 512], [684, 700], [548, 700]),
  'Glass Two': surface([540, 432], [610, 434], [609, 477], [539, 475]),
  'Stone Row': surface([312, 396], [520, 402], [520, 490], [312, 480]),
  'Long Corn': surface([0, 190], [298, 200], [300, 468], [0, 456]),
  'Onion Flat': surface([312, 226], [520, 231], [520, 380], [312, 375]),
  'Lower Meadow': surface([532, 196], [690, 202], [690, 422], [532, 418]),
  'Creek Margin': surface([0, 66], [240, 84], [470, 94], [700, 116], [700, 186], [470, 164], [240, 156], [0, 140]),
}

/** What lies on the site and next to it. */
export const LANDMARKS: readonly { kind: ShapeKind; name: string; geometry: Geometry; note: string }[] = [
  {
    kind: 'water',
    name: 'Creek',
    geometry: line([-40, 44], [120, 58], [240, 70], [360, 76], [470, 80], [600, 96], [760, 108]),
    note: 'Runs all year; drawn on below the site.',
  },
  { kind: 'hives', name: 'Hives at the lane', geometry: point([529, 450]), note: 'Eight colonies from April to September.' },
  {
    kind: 'neighbour',
    name: 'House across the lane',
    geometry: surface([716, 560], [752, 562], [750, 602], [715, 600]),
    note: 'Wants to know a day before anything is sprayed.',
  },
  { kind: 'sensitive', name: 'Well', geometry: point([640, 470]), note: 'Drinking water of the packing shed.' },
  { kind: 'way', name: 'Lane', geometry: line([305, 172], [306, 390], [306, 482], [310, 706]), note: '' },
]
