import { geoEquirectangular, geoGraticule10, geoPath } from 'd3-geo'
import { useMemo, useState, type KeyboardEvent, type MouseEvent } from 'react'
import styled from 'styled-components'
import { feature } from 'topojson-client'
import type { GeometryCollection, Topology } from 'topojson-specification'
import atlas from 'world-atlas/land-110m.json'
import { TextButton } from '../design/buttons.js'
import { Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/site.js'

const WIDTH = 640
const HEIGHT = 300
/** Degrees that an arrow key moves the point; with Shift a tenth. */
const STEP = 1

const Map = styled.svg`
  width: 100%;
  max-width: 680px;
  height: auto;
  background: ${colour.sheet};
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  cursor: crosshair;
`

export interface Place {
  latitude: number
  longitude: number
}

const land = feature(atlas as unknown as Topology, (atlas as unknown as { objects: { land: GeometryCollection } }).objects.land)

/** An outline of the earth on which a place is pressed, or moved with the arrows; or the device says where it is. */
export function PlaceMap({ place, onPlace }: { place: Place | null; onPlace: (place: Place) => void }) {
  const t = useText()
  const [refused, setRefused] = useState(false)
  const { projection, outline, lines } = useMemo(() => {
    const made = geoEquirectangular().fitSize([WIDTH, HEIGHT], { type: 'Sphere' })
    const path = geoPath(made)
    return { projection: made, outline: path(land) ?? '', lines: path(geoGraticule10()) ?? '' }
  }, [])
  const put = (latitude: number, longitude: number): void =>
    onPlace({
      latitude: Math.round(Math.min(85, Math.max(-85, latitude)) * 100) / 100,
      longitude: Math.round(Math.min(180, Math.max(-180, longitude)) * 100) / 100,
    })
  const press = (event: MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect()
    const found = projection.invert?.([((event.clientX - box.left) / box.width) * WIDTH, ((event.clientY - box.top) / box.height) * HEIGHT])
    if (found) put(found[1], found[0])
  }
  const move = (event: KeyboardEvent): void => {
    const way = { ArrowUp: [1, 0], ArrowDown: [-1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key]
    if (!way) return
    event.preventDefault()
    const step = event.shiftKey ? STEP / 10 : STEP
    put((place?.latitude ?? 0) + (way[0] ?? 0) * step, (place?.longitude ?? 0) + (way[1] ?? 0) * step)
  }
  const ask = (): void => {
    setRefused(false)
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => put(coords.latitude, coords.longitude),
      () => setRefused(true),
      { timeout: 15_000 },
    )
  }
  const at = place && projection([place.longitude, place.latitude])
  return (
    <Stack $gap={6}>
      <Map
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="application"
        tabIndex={0}
        aria-label={place ? t('map.at', { latitude: place.latitude.toFixed(2), longitude: place.longitude.toFixed(2) }) : t('map.nowhere')}
        onClick={press}
        onKeyDown={move}
      >
        <path d={lines} fill="none" stroke={colour.ruleSoft} />
        <path d={outline} fill={colour.petrolSoft} stroke={colour.petrol} strokeWidth="0.6" />
        {at ? (
          <g stroke={colour.beet} strokeWidth="2">
            <line x1={at[0]} x2={at[0]} y1={0} y2={HEIGHT} strokeWidth="0.8" />
            <line x1={0} x2={WIDTH} y1={at[1]} y2={at[1]} strokeWidth="0.8" />
            <circle cx={at[0]} cy={at[1]} r={5} fill={colour.white} />
          </g>
        ) : null}
      </Map>
      <Line>
        {'geolocation' in navigator ? <TextButton onPress={ask}>{t('map.here')}</TextButton> : null}
        <Small>{refused ? t('map.refused') : t('map.how')}</Small>
      </Line>
    </Stack>
  )
}
