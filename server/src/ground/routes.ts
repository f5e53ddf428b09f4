import { endpoints, type ground, type ParsedInputOf, type ResponseOf } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { removeRow, type Queryable } from '../database/index.js'
import { download, read, write, type Serving } from '../http/route.js'
import { tree } from '../places/store.js'
import { addImage, imageFile, listImages, moveImage, restoreImage } from './aerial.js'
import { mapGeoJson, mapGpx, shapesOf, type NamedShape } from './files.js'
import { areaOf, isSurface, lengthOf, swapped } from './geometry.js'
import { draw, faultOf, isTurned, keptClear, positionOf, redraw, restoreShape, takeFile } from './service.js'
import { listShapes, mapOf } from './store.js'

/** What a file holds, held against the site: where it lies, and whose name it bears. */
async function readFile(
  db: Queryable,
  siteId: string,
  { text }: ParsedInputOf<typeof ground.readFile>,
): Promise<ResponseOf<typeof ground.readFile>> {
  const { format, shapes, leftOut, isTurned: byNumbers } = shapesOf(text)
  const site = await positionOf(db, siteId)
  const places = [...(await tree(db, siteId)).values()]
  const drawn = new Set((await listShapes(db, siteId)).map(({ placeId }) => placeId))
  const bySite = !byNumbers && shapes.every(({ geometry }) => isTurned(site, geometry))
  const plain = (name: string): string =>
    name
      .toLowerCase()
      .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
  return {
    format,
    leftOut,
    isSwapped: byNumbers || bySite,
    shapes: shapes.map(({ name, geometry: given }) => {
      const geometry = bySite ? swapped(given) : given
      const same = name === '' ? undefined : places.find((place) => plain(place.name) === plain(name) && !drawn.has(place.id))
      return {
        name,
        geometry,
        areaM2: areaOf(geometry),
        lengthM: lengthOf(geometry),
        placeId: isSurface(geometry) ? (same?.id ?? null) : null,
        problem: faultOf(site, 'other', geometry),
      }
    }),
  }
}

async function named(db: Queryable, siteId: string): Promise<NamedShape[]> {
  const places = await tree(db, siteId)
  return (await listShapes(db, siteId)).map((shape) => ({ ...shape, placeName: places.get(shape.placeId ?? '')?.name ?? '' }))
}

export function groundRoutes(router: Router, serving: Serving): void {
  const { ground } = endpoints
  const none = z.object({})
  read(router, serving, ground.map, ({ deps, params }) => mapOf(deps.db, params.siteId))
  read(router, serving, ground.images, ({ deps, params }) => listImages(deps.db, params.siteId))
  write(router, serving, ground.addImage, (ctx) => addImage(ctx, ctx.input))
  write(router, serving, ground.moveImage, (ctx) => moveImage(ctx, ctx.params.aerialId, ctx.input))
  write(router, serving, ground.removeImage, (ctx) => removeRow(ctx, 'aerial_image', ctx.params.aerialId, ctx.input.rowVersion))
  write(router, serving, ground.restoreImage, (ctx) => restoreImage(ctx, ctx.params.aerialId, ctx.input.rowVersion))
  download(router, serving, `${ground.moveImage.path}/jpeg`, ground.moveImage.params, none, async ({ db }, { siteId, aerialId }) => ({
    type: 'image/jpeg',
    body: await imageFile(db, siteId, aerialId),
    cache: 'private, max-age=86400, immutable',
  }))
  write(router, serving, ground.draw, (ctx) => draw(ctx, ctx.input))
  write(router, serving, ground.redraw, (ctx) => redraw(ctx, ctx.params.shapeId, ctx.input))
  write(router, serving, ground.remove, (ctx) => removeRow(ctx, 'ground_shape', ctx.params.shapeId, ctx.input.rowVersion))
  write(router, serving, ground.restore, (ctx) => restoreShape(ctx, ctx.params.shapeId, ctx.input.rowVersion))
  read(router, serving, ground.keptClear, ({ deps, params, input }) => keptClear(deps.db, params.siteId, params.placeId, input.metres))
  read(router, serving, ground.readFile, ({ deps, params, input }) => readFile(deps.db, params.siteId, input))
  write(router, serving, ground.takeFile, (ctx) => takeFile(ctx, ctx.input))
  download(router, serving, `${ground.map.path}.geojson`, ground.map.params, none, async ({ db }, { siteId }) => ({
    type: 'application/geo+json',
    fileName: 'map.geojson',
    body: mapGeoJson(await named(db, siteId)),
  }))
  download(router, serving, `${ground.map.path}.gpx`, ground.map.params, none, async ({ db }, { siteId }) => ({
    type: 'application/gpx+xml',
    fileName: 'map.gpx',
    body: mapGpx(await named(db, siteId)),
  }))
}
