import { endpoints, type Block, type Geometry, type Shape } from '@bocado/contract'
import type L from 'leaflet'
import { useMemo, useState } from 'react'
import styled from 'styled-components'
import { usePlaces, useShapes } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { AerialPart, aerialPath, useAerialImages } from './AerialPart.js'
import { GroundMap, type Drawn } from './GroundMap.js'
import { KeptClear } from './KeptClear.js'
import { MapFile } from './MapFile.js'
import { useNear } from './near.js'
import { ShapeForm } from './ShapeForm.js'
import '../messages/en/ground.js'

const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 190px;
  gap: 16px;
  align-items: start;
  @media (max-width: 720px) {
    grid-template-columns: 1fr;
  }
`

/** What is being done on the map. */
type Doing = { change: string } | 'draw' | 'file' | null

/** The map over the list of blocks: what is chosen on one is chosen on the other. */
export function MapPart(p: {
  blocks: readonly Block[]
  /** Block or part that is chosen. */
  chosenPlace: string | null
  onChoose: (placeId: string | null) => void
  /** Begins with drawing, where nothing is drawn yet. */
  begins: 'draw' | null
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: shapes } = useShapes(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const [doing, setDoing] = useState<Doing>(p.begins)
  const [left, setLeft] = useState<Geometry | null>(null)
  const [metres, setMetres] = useState<number | null>(null)
  const [landmark, setLandmark] = useState<string | null>(null)
  const nameOf = (shape: Shape): string =>
    shape.placeId === null
      ? shape.name || t(`drawn.shape.${shape.kind}`)
      : ([...p.blocks, ...places].find(({ id }) => id === shape.placeId)?.name ?? '')
  const drawn = useMemo(
    () =>
      (shapes ?? []).map((shape): Drawn => ({
        id: shape.id,
        kind: shape.kind,
        isPart: shape.placeId !== null && !p.blocks.some(({ id }) => id === shape.placeId),
        label: nameOf(shape),
        geometry: shape.geometry,
        areaM2: shape.areaM2,
      })),
    // Names change with what they are of.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [shapes, places, p.blocks],
  )
  const chosen = shapes?.find(({ id, placeId }) => (p.chosenPlace === null ? id === landmark : placeId === p.chosenPlace)) ?? null
  const { data: images = [] } = useAerialImages(site.id)
  const underlaid = images.map(({ south, west, north, east, ...image }) => ({ path: aerialPath(site.id, image), south, west, north, east }))
  const [map, setMap] = useState<L.Map | null>(null)
  const near = useNear(chosen?.placeId ?? null)
  if (!shapes) return null
  const choose = (id: string): void => {
    const shape = shapes.find((one) => one.id === id)
    setLandmark(shape?.placeId === null ? id : null)
    p.onChoose(shape?.placeId ?? null)
  }
  const done = (): void => {
    setDoing(null)
    p.onDone()
  }
  const middle = site.latitude === null || site.longitude === null ? null : { latitude: site.latitude, longitude: site.longitude }
  const shared = { blocks: p.blocks, places, shapes, drawn, middle, mapName: t('drawn.title', { site: site.name }), onDone: done }
  const changed = typeof doing === 'object' && doing !== null ? shapes.find(({ id }) => id === doing.change) : undefined
  if (doing === 'file') return <MapFile {...shared} />
  if (doing === 'draw' || changed) return <ShapeForm key={changed?.id ?? 'new'} {...shared} {...(changed ? { shape: changed } : {})} />
  if (shapes.length === 0) return null
  const landmarks = shapes.filter(({ placeId }) => placeId === null)
  const facts = [
    chosen?.placeId === null && chosen.name !== '' ? t(`drawn.shape.${chosen.kind}`) : '',
    chosen?.areaM2 === null || !chosen ? '' : t('drawn.drawnArea', { area: f.area(chosen.areaM2 / 10_000) }),
    near.length === 0 ? '' : t('drawn.near', { near: near.join(', ') }),
    chosen?.note ?? '',
  ].filter(Boolean)
  return (
    <Beside>
      <GroundMap
        name={shared.mapName}
        shapes={drawn}
        chosen={chosen?.id ?? null}
        onChoose={choose}
        middle={middle}
        isMetric={site.units === 'metric'}
        left={left}
        images={underlaid}
        onMap={setMap}
        drawing={null}
      />
      <Stack $gap={10}>
        {chosen ? (
          <Stack $gap={4} role="status">
            <b>{nameOf(chosen)}</b>
            {facts.map((fact) => (
              <Small key={fact}>{fact}</Small>
            ))}
            {chosen.placeId !== null && near.length > 0 ? (
              <KeptClear key={chosen.placeId} placeId={chosen.placeId} metres={metres} onMetres={setMetres} onLeft={setLeft} />
            ) : null}
            <Line>
              <TextButton aria-label={t('drawn.changeOne', { name: nameOf(chosen) })} onPress={() => setDoing({ change: chosen.id })}>
                {t('drawn.change')}
              </TextButton>
              <RemoveButton
                remove={endpoints.ground.remove}
                restore={endpoints.ground.restore}
                params={{ siteId: site.id, shapeId: chosen.id }}
                rowVersion={chosen.rowVersion}
                label={t('drawn.removeOne', { name: nameOf(chosen) })}
                said={t('drawn.removed', { name: nameOf(chosen) })}
              />
            </Line>
          </Stack>
        ) : landmarks.length > 0 ? (
          <Stack $gap={2}>
            <Small>{t('drawn.beside')}</Small>
            <Line $gap={12}>
              {landmarks.map((shape) => (
                <TextButton key={shape.id} aria-label={t('drawn.show', { name: nameOf(shape) })} onPress={() => choose(shape.id)}>
                  {nameOf(shape)}
                </TextButton>
              ))}
            </Line>
          </Stack>
        ) : null}
        {chosen ? (
          <TextButton
            onPress={() => {
              setLandmark(null)
              p.onChoose(null)
            }}
          >
            {t('drawn.all')}
          </TextButton>
        ) : null}
        <Stack $gap={2}>
          <TextButton onPress={() => setDoing('draw')}>{t('drawn.draw')}</TextButton>
          <TextButton onPress={() => setDoing('file')}>{t('drawn.file')}</TextButton>
          <AerialPart bounds={() => map?.getBounds() ?? null} />
          <Small>
            {t('drawn.out')}{' '}
            <a href={`/api/v1/sites/${site.id}/map.geojson`} download>
              GeoJSON
            </a>{' '}
            <a href={`/api/v1/sites/${site.id}/map.gpx`} download>
              GPX
            </a>
          </Small>
        </Stack>
      </Stack>
    </Beside>
  )
}
