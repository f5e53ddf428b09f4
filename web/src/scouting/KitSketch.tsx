import type { Block, Geometry } from '@bocado/contract'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/kit.js'

const WIDTH = 1000
const MOST_HEIGHT = 560
const MARGIN = 24

type Point = readonly [number, number]

/** What is drawn of the ground. */
interface Drawn {
  id: string
  placeId: string | null
  geometry: Geometry
}
interface Pin {
  id: string
  number: number
  position: { latitude: number; longitude: number } | null
}

/** Every ring or line of a shape. */
function linesOf({ geometry }: Pick<Drawn, 'geometry'>): Point[][] {
  switch (geometry.type) {
    case 'Polygon':
      return geometry.coordinates
    case 'MultiPolygon':
      return geometry.coordinates.flat()
    case 'LineString':
      return [geometry.coordinates]
    case 'Point':
      return [[geometry.coordinates]]
  }
}

/** A block as it is drawn, with its flags by number and what lies beside it: for paper, where no map can be moved. */
export function KitSketch({
  block,
  shapes,
  flags,
}: {
  block: Pick<Block, 'id' | 'name'>
  shapes: readonly Drawn[]
  flags: readonly Pin[]
}) {
  const t = useText()
  const outline = shapes.find(({ placeId }) => placeId === block.id)
  const pins = flags.flatMap(({ position, number, id }) =>
    position ? [{ id, number, at: [position.longitude, position.latitude] as const }] : [],
  )
  const around = [...(outline ? linesOf(outline).flat() : []), ...pins.map(({ at }) => at)]
  if (around.length < 2) return null
  const [west, east] = [Math.min(...around.map(([x]) => x)), Math.max(...around.map(([x]) => x))]
  const [south, north] = [Math.min(...around.map(([, y]) => y)), Math.max(...around.map(([, y]) => y))]
  const squeeze = Math.cos((((south + north) / 2) * Math.PI) / 180)
  const scale = Math.min((WIDTH - 2 * MARGIN) / ((east - west) * squeeze || 1e-6), (MOST_HEIGHT - 2 * MARGIN) / (north - south || 1e-6))
  const height = (north - south) * scale + 2 * MARGIN
  const place = ([x, y]: Point): Point => [MARGIN + (x - west) * squeeze * scale, MARGIN + (north - y) * scale]
  const path = (lines: readonly Point[][]): string =>
    lines
      .map(
        (line) =>
          `M${line
            .map((point) =>
              place(point)
                .map((n) => n.toFixed(1))
                .join(','),
            )
            .join('L')}`,
      )
      .join('')
  const beside = shapes.filter(({ placeId }) => placeId === null)
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${Math.round(height)}`}
      role="img"
      aria-label={t('kit.sketch', { block: block.name, count: pins.length })}
    >
      {outline ? <path d={path(linesOf(outline))} fill={colour.white} stroke={colour.ink} strokeWidth="2" /> : null}
      {beside.map((shape) => (
        <path key={shape.id} d={path(linesOf(shape))} fill="none" stroke={colour.inkSoft} strokeWidth="2" strokeDasharray="6 4" />
      ))}
      {pins.map(({ id, number, at }) => {
        const [x, y] = place(at)
        return (
          <g key={id}>
            <circle cx={x} cy={y} r="4" fill={colour.beet} />
            <text x={x + 6} y={y + 4} className="value">
              {number}
            </text>
          </g>
        )
      })}
      <text className="soft" x={WIDTH - MARGIN} y={16} textAnchor="end">
        {t('kit.north')}
      </text>
    </Picture>
  )
}
