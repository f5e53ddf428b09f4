import type { Flag, Search, Shape } from '@bocado/contract'
import L from 'leaflet'
import { useEffect, useRef } from 'react'
import { CLASS_OF, colourOf, Ground } from '../ground/GroundMap.js'
import { aerialPath, useAerialImages } from '../ground/AerialPart.js'
import { useMap, useUnderlay } from '../ground/useMap.js'
import { useSite } from '../api/workplace.js'

/** How a pin is drawn: told by how it is filled and ringed, and not by its colour alone. */
function styleOf(state: Flag['state'], isChosen: boolean): L.CircleMarkerOptions {
  const [beet, petrol, ink, paper] = ['--beet', '--petrol', '--ink', '--white'].map(colourOf)
  const ring = { weight: isChosen ? 4 : 1.5, radius: isChosen ? 10 : 7 }
  if (state === 'gone') return { ...ring, radius: isChosen ? 6 : 3, color: ink!, fillColor: ink!, fillOpacity: 1 }
  if (state === 'none-standing') return { ...ring, color: ink!, fillColor: paper!, fillOpacity: 1, weight: isChosen ? 4 : 2 }
  if (state === 'treated') return { ...ring, color: beet!, fillColor: petrol!, fillOpacity: 1, weight: 4 }
  return { ...ring, color: isChosen ? ink! : paper!, fillColor: beet!, fillOpacity: 1 }
}

/** Pins lie over what is drawn, and below their names. */
const PINS = 'pins'
const BAND = 'band'
const OVER_GROUND = '420'
const ABOVE_SHAPES = '450'

const EARTH_M = 40_075_016.686

/** Pixels that so many metres take at a latitude and zoom. */
const pixels = (metres: number, latitude: number, zoom: number): number =>
  (metres * 256 * 2 ** zoom) / (EARTH_M * Math.cos((latitude * Math.PI) / 180))

/** Flags where they stand, and the way of a search as broad as what was seen from it. */
export function FlagsMap(p: {
  name: string
  shapes: readonly Shape[]
  flags: readonly Flag[]
  chosen: string | null
  onChoose: (id: string) => void
  search: Search | null
  middle: { latitude: number; longitude: number } | null
  isMetric: boolean
}) {
  const { shapes, flags, chosen, search } = p
  const { box, map } = useMap(p.middle, p.isMetric)
  const site = useSite()
  const { data: images = [] } = useAerialImages(site.id)
  useUnderlay(
    map,
    images.map(({ south, west, north, east, ...image }) => ({ path: aerialPath(site.id, image), south, west, north, east })),
  )
  const pins = useRef<{ group: L.LayerGroup; canvas: L.Canvas } | null>(null)
  const choose = useRef(p.onChoose)
  useEffect(() => {
    choose.current = p.onChoose
  })

  useEffect(() => {
    if (!map) return
    const drawn = L.featureGroup(
      shapes.map(({ kind, geometry }) =>
        L.geoJSON(
          geometry as never,
          {
            style: { className: `${CLASS_OF[kind]}${geometry.type === 'LineString' ? ' line' : ''}` },
            interactive: false,
            pointToLayer: (_, at) => L.circleMarker(at, { className: CLASS_OF[kind], radius: 5, interactive: false }),
          } as L.GeoJSONOptions,
        ),
      ),
    ).addTo(map)
    return () => void drawn.remove()
  }, [map, shapes])

  useEffect(() => {
    if (!map) return
    const at = flags.flatMap(({ position }) => (position ? [L.latLng(position.latitude, position.longitude)] : []))
    const all = L.latLngBounds(at)
    if (all.isValid()) map.fitBounds(all.pad(0.15), { animate: false, maxZoom: 18 })
    // What is in view stays, though another flag is chosen or set.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [map])

  useEffect(() => {
    if (!map) return
    // One canvas for all pins: thousands move with the map as one picture.
    if (!map.getPane(PINS)) map.createPane(PINS).style.zIndex = ABOVE_SHAPES
    pins.current ??= { group: L.layerGroup(), canvas: L.canvas({ padding: 0.3, pane: PINS }) }
    const { group, canvas } = pins.current
    group.addTo(map)
    const order = [...flags].sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen))
    for (const { id, position, state, number, organismName } of order) {
      if (!position) continue
      const pin = L.circleMarker([position.latitude, position.longitude], {
        renderer: canvas,
        pane: PINS,
        ...styleOf(state, id === chosen),
      })
      pin.bindTooltip(`#${number} ${organismName ?? ''}`, { direction: 'top', permanent: id === chosen })
      pin.on('click', () => choose.current(id))
      pin.addTo(group)
    }
    return () => void group.clearLayers()
  }, [map, flags, chosen])

  useEffect(() => {
    if (!map || !search?.track) return
    const lines = search.track.map((line) => line.map(([lon, lat]): [number, number] => [lat, lon]))
    if (!map.getPane(BAND)) map.createPane(BAND).style.zIndex = OVER_GROUND
    const band = L.polyline(lines, { color: colourOf('--pollen'), opacity: 0.45, interactive: false, pane: BAND })
    const way = L.polyline(lines, { color: colourOf('--ink'), weight: 1.5, dashArray: '3 4', interactive: false, pane: BAND })
    const widen = (): void => void band.setStyle({ weight: Math.max(2, pixels(search.viewM ?? 0, map.getCenter().lat, map.getZoom())) })
    band.addTo(map)
    way.addTo(map)
    widen()
    map.on('zoomend', widen)
    map.fitBounds(band.getBounds().pad(0.2), { animate: false, maxZoom: 19 })
    return () => {
      map.off('zoomend', widen)
      band.remove()
      way.remove()
    }
  }, [map, search])

  return <Ground ref={box} role="region" aria-label={p.name} />
}
