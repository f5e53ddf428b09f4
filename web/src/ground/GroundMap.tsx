import type { Geometry, ShapeKind } from '@bocado/contract'
import L from 'leaflet'
import { useEffect, useRef } from 'react'
import styled from 'styled-components'
import {
  TerraDraw,
  TerraDrawLineStringMode,
  TerraDrawPointMode,
  TerraDrawPolygonMode,
  TerraDrawSelectMode,
  type GeoJSONStoreFeatures,
} from 'terra-draw'
import { TerraDrawLeafletAdapter } from 'terra-draw-leaflet-adapter'
import { colour, PHONE, size } from '../design/theme.js'
import { cornersOf, type Form } from './corners.js'
import { useMap, useUnderlay, type Underlaid } from './useMap.js'

type HexColor = `#${string}`

/** Lines differ by their dashes, points by their letter, so that no colour is needed to tell them apart. */
export const Ground = styled.div`
  height: 340px;
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  overflow: hidden;
  /* What floats within the map stays below what floats over the page. */
  isolation: isolate;
  @media ${PHONE} {
    height: 260px;
  }
  &.leaflet-container {
    background: ${colour.sheet};
    font: inherit;
  }
  .leaflet-bar a,
  .leaflet-control-scale-line {
    background: ${colour.white};
    color: ${colour.ink};
    border-color: ${colour.rule};
  }
  .leaflet-control-scale-line {
    text-shadow: none;
  }
  path.shape {
    stroke: ${colour.inkSoft};
    stroke-width: 1.5px;
    fill: ${colour.white};
    fill-opacity: 1;
  }
  &.over-picture path.shape {
    fill-opacity: 0.15;
    stroke-width: 2.5px;
  }
  path.part {
    fill-opacity: 0;
    stroke-width: 1px;
  }
  path.water {
    stroke: ${colour.petrol};
    stroke-width: 3px;
    stroke-dasharray: 9 3 2 3;
    fill: ${colour.petrolSoft};
  }
  path.hives {
    stroke: ${colour.ink};
    fill: ${colour.pollen};
  }
  path.neighbour {
    stroke-dasharray: 2 5;
    fill: ${colour.ground};
  }
  path.sensitive {
    stroke: ${colour.beet};
    stroke-width: 2px;
    stroke-dasharray: 6 4;
    fill: ${colour.beetSoft};
  }
  path.way {
    stroke-width: 2px;
    stroke-dasharray: 1 6;
    stroke-linecap: round;
  }
  path.line {
    fill: none;
  }
  path.left {
    stroke: ${colour.petrol};
    stroke-width: 1px;
    stroke-dasharray: 3 3;
    fill: ${colour.petrolSoft};
    pointer-events: none;
  }
  path.chosen {
    stroke: ${colour.petrol};
    stroke-width: 4px;
    stroke-dasharray: none;
  }
  .leaflet-tooltip.label {
    background: none;
    border: 0;
    box-shadow: none;
    padding: 0;
    color: ${colour.ink};
    font-size: ${size.small};
    text-shadow:
      0 0 3px ${colour.white},
      0 0 3px ${colour.white},
      0 0 3px ${colour.white};
    &::before {
      display: none;
    }
    &[data-covered] {
      visibility: hidden;
    }
  }
`

/** A shape as the map draws it. */
export interface Drawn {
  id: string
  kind: ShapeKind
  /** Lies within another one. */
  isPart: boolean
  label: string
  geometry: Geometry
  areaM2: number | null
}

export const CLASS_OF: Readonly<Record<ShapeKind, string>> = {
  outline: 'shape',
  water: 'shape water',
  hives: 'shape hives',
  neighbour: 'shape neighbour',
  sensitive: 'shape sensitive',
  way: 'shape way',
  other: 'shape neighbour',
}

function layerOf({ geometry, kind, isPart, label }: Drawn): L.Layer {
  const form = geometry.type === 'LineString' ? ' line' : ''
  const className = `${CLASS_OF[kind]}${form}${isPart ? ' part' : ''}`
  const layer = L.geoJSON(geometry as never, {
    style: { className },
    pointToLayer: (_, at) => L.circleMarker(at, { className, radius: 7 }),
  })
  return layer.bindTooltip(label, {
    permanent: true,
    direction: 'center',
    className: 'label',
    offset: geometry.type === 'Point' ? [0, 16] : [0, 0],
  })
}

const MODE: Readonly<Record<Form, string>> = { surface: 'polygon', line: 'linestring', point: 'point' }
const DRAGGABLE = { feature: { draggable: true, coordinates: { midpoints: true, draggable: true, deletable: true } } }

/** A colour of the theme that is worn, for what is drawn without style sheets. */
export const colourOf = (name: string): HexColor => getComputedStyle(document.documentElement).getPropertyValue(name).trim() as HexColor

const rounded = (geometry: Geometry): Geometry =>
  JSON.parse(
    JSON.stringify(geometry, (_, value: unknown) => (typeof value === 'number' ? Math.round(value * 1e7) / 1e7 : value)),
  ) as Geometry

/** Hides names that would lie on others: blocks are named first, the larger before the smaller, and what is chosen before all. */
function uncover(box: HTMLElement): void {
  const stand: DOMRect[] = []
  const labels = [...box.querySelectorAll<HTMLElement>('.leaflet-tooltip.label')]
  const rank = (label: HTMLElement): number => Number(label.dataset['rank'] ?? 0)
  for (const label of labels.sort((a, b) => rank(b) - rank(a))) {
    const { left, right, top, bottom } = label.getBoundingClientRect()
    const covers = stand.some((other) => left < other.right && right > other.left && top < other.bottom && bottom > other.top)
    label.toggleAttribute('data-covered', covers)
    if (!covers) stand.push(label.getBoundingClientRect())
  }
}

/**
 * The ground from above, without anybody's pictures of it: what is drawn, named where it lies. A shape is chosen by a press on it; with
 * `drawing` the next presses are corners.
 */
export function GroundMap(p: {
  name: string
  shapes: readonly Drawn[]
  chosen: string | null
  onChoose: (id: string) => void
  middle: { latitude: number; longitude: number } | null
  isMetric: boolean
  /** What of the chosen shape is left to treat. */
  left?: Geometry | null
  /** Pictures of one's own that lie under what is drawn. */
  images?: readonly Underlaid[]
  /** Hears of the map once it stands. */
  onMap?: (map: L.Map | null) => void
  drawing: { form: Form; geometry: Geometry | null; onChange: (geometry: Geometry) => void } | null
}) {
  const layers = useRef<L.LayerGroup>(undefined)
  const latest = useRef(p)
  const isSeen = useRef(false)
  useEffect(() => {
    latest.current = p
  })

  const { isMetric } = p
  const { box, map } = useMap(p.middle, isMetric)
  useEffect(() => {
    if (!map) return
    map.on('zoomend moveend resize', () => uncover(map.getContainer()))
    layers.current = L.layerGroup().addTo(map)
    isSeen.current = false
  }, [map])

  useUnderlay(map, p.images)
  useEffect(() => {
    latest.current.onMap?.(map)
  }, [map])

  const { shapes, chosen, drawing, left = null } = p
  const isDrawing = drawing !== null
  useEffect(() => {
    const group = layers.current
    if (!map || !group) return
    group.clearLayers()
    // The large below the small, so that each can be pressed.
    const order = [...shapes].sort(
      (a, b) => Number(a.isPart) - Number(b.isPart) || Number(a.geometry.type === 'Point') - Number(b.geometry.type === 'Point'),
    )
    for (const shape of order) {
      const layer = layerOf(shape).addTo(group)
      layer.on('click', () => (latest.current.drawing ? undefined : latest.current.onChoose(shape.id)))
      ;(layer as L.GeoJSON).eachLayer((one) => (one as L.Path).getElement()?.classList.toggle('chosen', shape.id === chosen))
      const label = layer.getTooltip()?.getElement()
      if (label) label.dataset['rank'] = String(shape.id === chosen ? Infinity : (shape.areaM2 ?? 0) + (shape.kind === 'outline' ? 1e9 : 0))
    }
    if (left) L.geoJSON(left as never, { style: { className: 'left' }, interactive: false } as L.GeoJSONOptions).addTo(group)
    const bounds = L.featureGroup(group.getLayers()).getBounds()
    const held = latest.current.drawing?.geometry
    if (held) bounds.extend(L.geoJSON(held as never).getBounds())
    if (!isSeen.current && bounds.isValid()) {
      map.fitBounds(bounds.pad(0.06), { animate: false, maxZoom: 18 })
      isSeen.current = true
    }
    uncover(map.getContainer())
  }, [shapes, chosen, left, map])

  const form = drawing?.form
  useEffect(() => {
    if (!map || form === undefined) return
    const select = { flags: { polygon: DRAGGABLE, linestring: DRAGGABLE, point: { feature: { draggable: true } } } }
    const [open, paper] = [colourOf('--petrol'), colourOf('--white')]
    const surface = { fillColor: open, outlineColor: open, fillOpacity: 0.2, outlineWidth: 3 }
    const lines = { lineStringColor: open, lineStringWidth: 3 }
    const points = { pointColor: open, pointOutlineColor: paper, pointWidth: 7, pointOutlineWidth: 2 }
    const taken = {
      selectedPolygonColor: open,
      selectedPolygonOutlineColor: open,
      selectedPolygonFillOpacity: 0.2,
      selectedLineStringColor: open,
      selectedPointColor: open,
      selectedPointOutlineColor: paper,
      selectionPointColor: open,
      selectionPointOutlineColor: paper,
      midPointColor: paper,
      midPointOutlineColor: open,
    }
    const draw = new TerraDraw({
      adapter: new TerraDrawLeafletAdapter({ lib: L, map }),
      modes: [
        new TerraDrawPolygonMode({ styles: { ...surface, closingPointColor: open, closingPointOutlineColor: paper } }),
        new TerraDrawLineStringMode({ styles: { ...lines, closingPointColor: open, closingPointOutlineColor: paper } }),
        new TerraDrawPointMode({ styles: points }),
        new TerraDrawSelectMode({ ...select, styles: taken }),
      ],
    })
    draw.start()
    const mode = MODE[form]
    const given = latest.current.drawing?.geometry ?? null
    if (given && cornersOf(given)) {
      const [added] = draw.addFeatures([{ type: 'Feature', geometry: rounded(given), properties: { mode } } as GeoJSONStoreFeatures])
      if (added?.valid && added.id !== undefined) {
        draw.setMode('select')
        draw.selectFeature(added.id)
      } else draw.setMode(mode)
    } else draw.setMode(mode)
    draw.on('finish', (id, { action }) => {
      const drawn = draw.getSnapshot().find((feature) => feature.id === id)
      if (!drawn) return
      latest.current.drawing?.onChange(rounded(drawn.geometry as Geometry))
      if (action !== 'draw') return
      // One shape at a time: the next presses put this one right.
      draw.removeFeatures(draw.getSnapshot().flatMap((feature) => (feature.id === id || feature.id === undefined ? [] : [feature.id])))
      draw.setMode('select')
      draw.selectFeature(id)
    })
    // A thumb that scrolls past the map does not move it; one that draws has to.
    const { dragging } = map
    if (L.Browser.mobile) dragging.enable()
    return () => {
      draw.stop()
      if (L.Browser.mobile) dragging.disable()
    }
  }, [form, map])

  return <Ground ref={box} role="region" aria-label={p.name} data-drawing={isDrawing || undefined} />
}
