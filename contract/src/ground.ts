import { z } from 'zod'
import { id, note, number, rowVersion } from './common.js'
import { endpoint } from './endpoint.js'
import { blockKinds } from './sites.js'

/** What is drawn beside the outlines of blocks and their parts: it lies on the site or next to it. */
export const landmarkKinds = ['water', 'hives', 'neighbour', 'sensitive', 'way', 'other'] as const
export const shapeKinds = ['outline', ...landmarkKinds] as const
export type ShapeKind = (typeof shapeKinds)[number]

/** What treatments keep away from, by their label, by law or out of care. */
export const keptClearOf: readonly ShapeKind[] = ['water', 'hives', 'neighbour', 'sensitive']
/** m up to which what lies beside a block is said with it: spray is carried so far. */
export const NEAR_M = 300

/** What lies beside a place and must not get what drifts off it: nearest first. */
export const downwindSchema = z.object({
  name: z.string(),
  kind: z.enum(landmarkKinds),
  metres: z.int(),
  /** Directions from which the wind carries it there, degrees clockwise from north; null where it lies within the place itself. */
  from: z.object({ from: z.number(), to: z.number() }).nullable(),
})
export type Downwind = z.infer<typeof downwindSchema>

/** Nobody walks more corners around a block, and a way of a day has fewer points. */
const MOST_CORNERS = 2000
const MOST_POINTS = 5000

const position = z
  .tuple([
    z.number({ error: 'must be a number' }).min(-180, { error: 'longitude must be within −180 and 180' }).max(180, {
      error: 'longitude must be within −180 and 180; are these degrees?',
    }),
    z.number({ error: 'must be a number' }).min(-90, { error: 'latitude must be within −90 and 90; are the two swapped?' }).max(90, {
      error: 'latitude must be within −90 and 90; are the two swapped?',
    }),
  ])
  .describe('longitude, latitude in degrees (WGS 84)')
/** A way on the ground, in degrees of WGS 84. */
export const lineSchema = z
  .array(position)
  .min(2, { error: 'needs at least 2 points' })
  .max(MOST_POINTS, { error: `has more than ${MOST_POINTS} points` })
const ring = z
  .array(position)
  .min(4, { error: 'needs at least 3 corners, and ends where it begins' })
  .max(MOST_CORNERS, { error: `has more than ${MOST_CORNERS} corners` })
  .refine((points) => points[0]?.[0] === points.at(-1)?.[0] && points[0]?.[1] === points.at(-1)?.[1], {
    error: 'has to end where it begins',
  })
const polygon = z.array(ring).min(1, { error: 'needs an outline' }).max(50, { error: 'has more than 50 holes' })

/** A shape on the ground as GeoJSON has it (RFC 7946), in degrees of WGS 84. */
export const geometrySchema = z.discriminatedUnion(
  'type',
  [
    z.object({ type: z.literal('Point'), coordinates: position }),
    z.object({ type: z.literal('LineString'), coordinates: lineSchema }),
    z.object({ type: z.literal('Polygon'), coordinates: polygon }),
    z.object({ type: z.literal('MultiPolygon'), coordinates: z.array(polygon).min(1).max(50) }),
  ],
  { error: 'draw it, or enter its corners' },
)
export type Geometry = z.infer<typeof geometrySchema>

export const shapeSchema = z.object({
  id,
  kind: z.enum(shapeKinds),
  /** The block or part whose outline it is. */
  placeId: id.nullable(),
  name: z.string(),
  geometry: geometrySchema,
  /** m² of what has an area, on the ellipsoid's sphere. */
  areaM2: z.number().nullable(),
  /** m of a line. */
  lengthM: z.number().nullable(),
  note: z.string(),
  /** Of an outline: what lies near it that treatments keep away from, nearest first. */
  near: z.array(z.object({ shapeId: id, metres: z.number() })),
  rowVersion,
})
export type Shape = z.infer<typeof shapeSchema>

const name = z.string().trim().max(120, { error: 'use at most 120 characters' }).default('')
const drawn = {
  kind: z.enum(shapeKinds, { error: 'choose what it is' }),
  /** Of an outline: the block or part. */
  placeId: z.uuid({ error: 'choose the block' }).nullable().default(null),
  name,
  geometry: geometrySchema,
  note,
}
const shapeInput = z.object({
  ...drawn,
  id: z.uuid().optional(),
  /** Whether the place takes the area that was drawn; one without an area always does. */
  takesArea: z.boolean().default(false),
})

/** A shape of a file, as it is understood. */
const foundSchema = z.object({
  name: z.string(),
  geometry: geometrySchema,
  areaM2: z.number().nullable(),
  lengthM: z.number().nullable(),
  /** The block or part of the same name. */
  placeId: id.nullable(),
  /** Why it cannot be taken as it is. */
  problem: z.string().nullable(),
})
export type FoundShape = z.infer<typeof foundSchema>

const degreesOf = (what: string, most: number) =>
  z
    .number({ error: `enter ${what} in degrees` })
    .min(-most, { error: `must be at least −${most}` })
    .max(most, { error: `must be at most ${most}` })
const imageCorners = {
  south: degreesOf('the southern edge', 90),
  west: degreesOf('the western edge', 180),
  north: degreesOf('the northern edge', 90),
  east: degreesOf('the eastern edge', 180),
}
type Corners = z.ZodType<{ south: number; west: number; north: number; east: number }>
const upright = <S extends Corners>(schema: S) =>
  schema
    .refine(({ south, north }) => north > south, { path: ['north'], error: 'must lie north of the southern edge' })
    .refine(({ west, east }) => east > west, { path: ['east'], error: 'must lie east of the western edge' })

/** A picture of the ground from above that the user has, north up, with its edges in degrees. */
export const aerialImageSchema = z.object({ id, name: z.string(), ...imageCorners, rowVersion })
export type AerialImage = z.infer<typeof aerialImageSchema>

const siteParams = z.object({ siteId: id })
const shapeParams = z.object({ siteId: id, shapeId: id })
const imageParams = z.object({ siteId: id, aerialId: id })

export const ground = {
  map: endpoint({
    method: 'get',
    path: '/sites/:siteId/map',
    restsOn: ['site'],
    summary: 'Outlines of blocks and their parts, and what lies on the site and next to it',
    params: siteParams,
    input: z.object({}),
    response: z.array(shapeSchema),
  }),
  images: endpoint({
    method: 'get',
    path: '/sites/:siteId/aerial-images',
    restsOn: ['counts'],
    summary: 'Pictures of the ground from above that lie under the map',
    params: siteParams,
    input: z.object({}),
    response: z.array(aerialImageSchema),
  }),
  addImage: endpoint({
    method: 'post',
    path: '/sites/:siteId/aerial-images',
    summary: 'Lay a picture of one’s own under the map',
    params: siteParams,
    input: upright(
      z.object({
        name: z.string().trim().max(120, { error: 'use at most 120 characters' }).default(''),
        /** A JPEG of at most 1.2 MB, base64. */
        jpeg: z
          .string({ error: 'choose a picture' })
          .max(1_700_000, { error: 'is larger than 1.2 MB; make it smaller' })
          .regex(/^\/9j\/[A-Za-z0-9+/=]+$/, { error: 'is no JPEG picture; choose another' }),
        ...imageCorners,
      }),
    ),
    response: aerialImageSchema,
  }),
  moveImage: endpoint({
    method: 'patch',
    path: '/sites/:siteId/aerial-images/:aerialId',
    summary: 'Lay a picture otherwise',
    params: imageParams,
    input: upright(z.object({ ...imageCorners, rowVersion })),
    response: aerialImageSchema,
  }),
  removeImage: endpoint({
    method: 'delete',
    path: '/sites/:siteId/aerial-images/:aerialId',
    summary: 'Take a picture from under the map; it can be restored',
    params: imageParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restoreImage: endpoint({
    method: 'post',
    path: '/sites/:siteId/aerial-images/:aerialId/restore',
    summary: 'Undo the removal of a picture',
    params: imageParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  draw: endpoint({
    method: 'post',
    path: '/sites/:siteId/map',
    summary: 'Draw the outline of a place, or what lies there',
    params: siteParams,
    input: shapeInput,
    response: shapeSchema,
  }),
  redraw: endpoint({
    method: 'patch',
    path: '/sites/:siteId/map/:shapeId',
    summary: 'Change what is drawn',
    params: shapeParams,
    input: z.object({ kind: drawn.kind, name, geometry: geometrySchema, note, takesArea: z.boolean().default(false), rowVersion }),
    response: shapeSchema,
  }),
  remove: endpoint({
    method: 'delete',
    path: '/sites/:siteId/map/:shapeId',
    summary: 'Remove what is drawn; it can be restored',
    params: shapeParams,
    input: z.object({ rowVersion }),
    response: z.object({ id, rowVersion }),
  }),
  restore: endpoint({
    method: 'post',
    path: '/sites/:siteId/map/:shapeId/restore',
    summary: 'Undo the removal of what was drawn',
    params: shapeParams,
    input: z.object({ rowVersion }),
    response: shapeSchema,
  }),
  keptClear: endpoint({
    method: 'get',
    path: '/sites/:siteId/places/:placeId/kept-clear',
    restsOn: ['site'],
    summary: 'What is left of a drawn place where a distance is kept from what lies near it',
    params: z.object({ siteId: id, placeId: id }),
    input: z.object({
      metres: z.coerce.number({ error: 'enter the distance as a number' }).pipe(number('the distance', 0.1, NEAR_M, 'm')),
    }),
    response: z.object({
      /** m² of the outline, and of it what lies farther than that from everything that treatments keep away from. */
      wholeM2: z.number(),
      leftM2: z.number(),
      /** What is left; null where nothing is. */
      left: geometrySchema.nullable(),
      /** From what the distance cuts something off. */
      from: z.array(id),
    }),
  }),
  readFile: endpoint({
    method: 'post',
    path: '/sites/:siteId/map-file/preview',
    summary: 'What a file of shapes holds (GeoJSON, GPX, CSV of points); nothing is stored',
    params: siteParams,
    input: z.object({ text: z.string().min(1, { error: 'is empty' }).max(1_900_000, { error: 'is over 1.9 MB; send it in parts' }) }),
    response: z.object({
      format: z.enum(['geojson', 'gpx', 'csv']),
      shapes: z.array(foundSchema),
      /** Latitude and longitude stood the wrong way round, and were put right. */
      isSwapped: z.boolean(),
      /** Lines or features that hold nothing that can be drawn. */
      leftOut: z.int(),
    }),
  }),
  takeFile: endpoint({
    method: 'post',
    path: '/sites/:siteId/map-file',
    summary: 'Take shapes of a file, all or none: as the outline of a place, as a new block, or as what lies there',
    params: siteParams,
    input: z.object({
      shapes: z
        .array(
          z.object({
            ...drawn,
            kind: z.enum([...shapeKinds, 'block'], { error: 'choose what it is' }),
            blockKind: z.enum(blockKinds).default('field'),
          }),
        )
        .min(1, { error: 'choose at least one' })
        .max(500, { error: 'take at most 500 at once' }),
    }),
    response: z.object({ shapes: z.int(), blocks: z.int() }),
  }),
}
