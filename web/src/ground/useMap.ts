import L from 'leaflet'
import 'leaflet/dist/leaflet.css'
import { useEffect, useRef, useState } from 'react'

/** Zoom at which the surroundings of a site without a drawing are in view. */
const NEAR_ZOOM = 15
const FAR_ZOOM = 2

/**
 * A map without anybody's pictures of the ground, in an element of the page.
 *
 * @param middle what it shows as long as nothing is drawn
 * @returns the element's ref, and the map once it stands
 */
export function useMap(middle: { latitude: number; longitude: number } | null, isMetric: boolean) {
  const box = useRef<HTMLDivElement>(null)
  const [map, setMap] = useState<L.Map | null>(null)
  const first = useRef(middle)
  useEffect(() => {
    if (!box.current) return
    // Names that fade away would stand in the way of those that come in their place.
    const made = L.map(box.current, {
      fadeAnimation: false,
      attributionControl: false,
      scrollWheelZoom: false,
      zoomSnap: 0.25,
      dragging: !L.Browser.mobile,
      preferCanvas: false,
    })
    // Whoever works in the map zooms with the wheel; whoever scrolls past it does not.
    made.on('focus', () => made.scrollWheelZoom.enable()).on('blur', () => made.scrollWheelZoom.disable())
    L.control.scale({ metric: isMetric, imperial: !isMetric }).addTo(made)
    const at = first.current
    made.setView(at ? [at.latitude, at.longitude] : [30, 0], at ? NEAR_ZOOM : FAR_ZOOM)
    setMap(made)
    return () => {
      made.remove()
      setMap(null)
    }
  }, [isMetric])
  return { box, map }
}

/** A picture of the ground with its edges in degrees, and where it is to be had. */
export interface Underlaid {
  path: string
  south: number
  west: number
  north: number
  east: number
}

/** Lays pictures of one's own under everything that is drawn. */
export function useUnderlay(map: L.Map | null, images: readonly Underlaid[] = []): void {
  const key = JSON.stringify(images)
  useEffect(() => {
    if (!map) return
    const laid = (JSON.parse(key) as Underlaid[]).map(({ path, south, west, north, east }) =>
      L.imageOverlay(
        path,
        [
          [south, west],
          [north, east],
        ],
        { pane: 'tilePane', interactive: false },
      ).addTo(map),
    )
    map.getContainer().classList.toggle('over-picture', laid.length > 0)
    return () => laid.forEach((one) => one.remove())
  }, [map, key])
}
