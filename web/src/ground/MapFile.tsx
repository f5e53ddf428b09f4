import { endpoints, landmarkKinds, type Block, type Place, type ResponseOf, type Shape, type ShapeKind } from '@bocado/contract'
import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { RequestProblem } from '../api/client.js'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useRefusal } from '../messages/refusal.js'
import { useText } from '../messages/useText.js'
import { formOf } from './corners.js'
import { GroundMap, type Drawn } from './GroundMap.js'
import '../messages/en/ground.js'

const MOST_BYTES = 1_900_000
const SKIP = 'skip'
const OUTLINE = 'outline '

type Read = ResponseOf<typeof endpoints.ground.readFile>

/** What is taken as what: an outline with its place behind it, a new block, a kind, or nothing. */
function usual({ placeId, problem, geometry, name }: Read['shapes'][number]): string {
  if (problem !== null) return SKIP
  if (placeId !== null) return `${OUTLINE}${placeId}`
  if (formOf(geometry) === 'surface') return name === '' ? SKIP : 'block'
  return formOf(geometry) === 'line' ? 'way' : 'other'
}

/** A file of shapes: seen on the map as it is understood, and taken in only then. */
export function MapFile(p: {
  blocks: readonly Block[]
  places: readonly Place[]
  shapes: readonly Shape[]
  drawn: readonly Drawn[]
  mapName: string
  middle: { latitude: number; longitude: number } | null
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const said = useRefusal()
  const preview = useWrite(endpoints.ground.readFile)
  const take = useWrite(endpoints.ground.takeFile)
  const [read, setRead] = useState<Read | null>(null)
  const [as, setAs] = useState<readonly string[]>([])
  const [refused, setRefused] = useState<string | null>(null)
  const params = { siteId: site.id }
  const run = async (work: () => Promise<void>): Promise<void> => {
    setRefused(null)
    try {
      await work()
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      const [field] = error.problem.fields ?? []
      setRefused(field ? said(field) : error.problem.detail)
    }
  }
  const choose = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    setRead(null)
    if (file.size > MOST_BYTES) return setRefused(t('mapFile.large', { name: file.name, megabytes: f.number(file.size / 1e6, 1) }))
    await run(async () => {
      const found = await preview.save({ params, input: { text: await file.text() } })
      setRead(found)
      setAs(found.shapes.map(usual))
    })
  }
  const chosen = (read?.shapes ?? []).flatMap((shape, i) => {
    const what = as[i] ?? SKIP
    return what === SKIP ? [] : [{ shape, what, number: i + 1 }]
  })
  const nameOf = (name: string, number: number): string => (name === '' ? t('mapFile.nameless', { number }) : name)
  const save = (): Promise<void> =>
    run(async () => {
      const shapes = chosen.map(({ shape: { name, geometry }, what, number }) => ({
        ...(what.startsWith(OUTLINE)
          ? { kind: 'outline' as const, placeId: what.slice(OUTLINE.length), name: '' }
          : { kind: what as ShapeKind | 'block', placeId: null, name: what === 'block' || what === 'other' ? nameOf(name, number) : name }),
        geometry,
      }))
      await take.save({ params, input: { shapes } })
      p.onDone()
    })
  const open = [...p.blocks, ...p.places].filter(({ id }) => !p.shapes.some(({ placeId }) => placeId === id))
  const found = chosen.map(({ shape, what, number }): Drawn => ({
    id: `found ${number}`,
    kind: what === 'block' || what.startsWith(OUTLINE) ? 'outline' : (what as ShapeKind),
    isPart: false,
    label: nameOf(shape.name, number),
    geometry: shape.geometry,
    areaM2: shape.areaM2,
  }))
  return (
    <>
      {p.drawn.length + found.length > 0 ? (
        <GroundMap
          name={p.mapName}
          shapes={[...p.drawn, ...found]}
          chosen={null}
          onChoose={() => undefined}
          middle={p.middle}
          isMetric={site.units === 'metric'}
          drawing={null}
        />
      ) : null}
      <Sheet>
        <Stack>
          <Heading>{t('mapFile.title')}</Heading>
          <Small>{t('mapFile.how')}</Small>
          <Line>
            <FileTrigger acceptedFileTypes={['.geojson', '.json', '.gpx', '.csv', '.txt']} onSelect={(files) => void choose(files)}>
              <Button $plain={read !== null} isDisabled={preview.isBarred}>
                {t('mapFile.choose')}
              </Button>
            </FileTrigger>
          </Line>
          {read ? (
            <>
              <p role="status">
                {t('mapFile.found', { count: read.shapes.length })} {read.isSwapped ? t('mapFile.swapped') : ''}{' '}
                {read.leftOut > 0 ? t('mapFile.leftOut', { count: read.leftOut }) : ''}
              </p>
              <Rows>
                {read.shapes.map(({ name, geometry, areaM2, problem }, i) => (
                  // The file has no other order than its own.
                  <li key={i}>
                    <Line style={{ justifyContent: 'space-between' }}>
                      <span>
                        {nameOf(name, i + 1)}{' '}
                        <Quiet>{areaM2 === null ? t(`drawn.form.${formOf(geometry)}`) : f.area(areaM2 / 10_000)}</Quiet>
                      </span>
                      {problem === null ? (
                        <Select
                          label={t('mapFile.as', { name: nameOf(name, i + 1) })}
                          hideLabel
                          placeholder={t('choose')}
                          width="28ch"
                          options={[
                            { id: SKIP, label: t('mapFile.skip') },
                            ...(formOf(geometry) === 'surface'
                              ? [
                                  { id: 'block', label: t('mapFile.block') },
                                  ...open.map((place) => ({
                                    id: `${OUTLINE}${place.id}`,
                                    label: t('mapFile.outlineOf', { name: place.name }),
                                  })),
                                ]
                              : []),
                            ...landmarkKinds.map((id) => ({ id, label: t(`drawn.shape.${id}`) })),
                          ]}
                          value={as[i] ?? SKIP}
                          onChange={(what) => setAs(as.map((one, j) => (j === i ? what : one)))}
                        />
                      ) : (
                        <Small>{t('mapFile.cannot', { problem })}</Small>
                      )}
                    </Line>
                  </li>
                ))}
              </Rows>
            </>
          ) : null}
          <FormError text={refused} />
          <FormLine onSave={save} onLeave={p.onDone} isBarred={take.isBarred || chosen.length === 0}>
            {read ? (
              <Button onPress={() => void save()} isDisabled={take.isBarred || chosen.length === 0}>
                {t('mapFile.take', { count: chosen.length })}
              </Button>
            ) : null}
            <Button $plain onPress={p.onDone}>
              {t('cancel')}
            </Button>
          </FormLine>
        </Stack>
      </Sheet>
    </>
  )
}
