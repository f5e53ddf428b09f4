import { endpoints, landmarkKinds, type Block, type Geometry, type Place, type Shape, type ShapeKind } from '@bocado/contract'
import turfArea from '@turf/area'
import { useMemo, useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Choice, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Fields, Heading, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { cornersOf, formOf, readCorners, textOf, type Form } from './corners.js'
import { GroundMap, type Drawn } from './GroundMap.js'
import '../messages/en/ground.js'

/** How each kind mostly lies on the ground. */
const USUAL_FORM: Readonly<Record<ShapeKind, Form>> = {
  outline: 'surface',
  water: 'line',
  hives: 'point',
  neighbour: 'surface',
  sensitive: 'surface',
  way: 'line',
  other: 'point',
}
const FORMS: readonly Form[] = ['surface', 'line', 'point']
/** Share by which what is drawn and what is typed may differ without a word. */
const SAME_AREA = 0.01

export interface ShapeFormProps {
  /** What is changed; without it something new is drawn. */
  shape?: Shape
  /** Whose outline is drawn, where that was said already. */
  placeId?: string
  blocks: readonly Block[]
  places: readonly Place[]
  shapes: readonly Shape[]
  drawn: readonly Drawn[]
  mapName: string
  middle: { latitude: number; longitude: number } | null
  onDone: () => void
}

/** What is drawn: pressed on the map, or typed corner by corner. */
export function ShapeForm(p: ShapeFormProps) {
  const { shape, blocks, places, shapes, drawn } = p
  const others = useMemo(() => drawn.filter(({ id }) => id !== shape?.id), [drawn, shape?.id])
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const open = [...blocks, ...places].filter(({ id }) => !shapes.some(({ placeId }) => placeId === id))
  const first = p.placeId ?? (open.length === 1 ? open[0]?.id : undefined) ?? null
  const initial = {
    kind: shape?.kind ?? ((open.length > 0 ? 'outline' : 'water') as ShapeKind),
    placeId: shape?.placeId ?? first,
    name: shape?.name ?? '',
    note: shape?.note ?? '',
    geometry: shape?.geometry ?? (null as Geometry | null),
    takesArea: false,
  }
  // Sent again after a lost answer, it is the same shape.
  const [id] = useState(() => crypto.randomUUID())
  const draw = useEntry(endpoints.ground.draw, initial, null, shape ? undefined : site.id)
  const redraw = useEntry(endpoints.ground.redraw, initial, shape, shape?.id)
  const entry = shape ? redraw : draw
  const { values, set, errors, bind } = entry
  const [form, setForm] = useState<Form>(initial.geometry ? formOf(initial.geometry) : USUAL_FORM[initial.kind])
  const [corners, setCorners] = useState<string | null>(null)
  const typed = corners === null || corners.trim() === '' ? null : readCorners(corners, form)
  const place = [...blocks, ...places].find(({ id }) => id === values.placeId)
  const typedM2 = place === undefined ? null : 'areaHa' in place ? (place.areaHa === null ? null : place.areaHa * 10_000) : place.areaM2
  const isOutline = values.kind === 'outline'
  const drawnM2 = values.geometry && formOf(values.geometry) === 'surface' ? turfArea(values.geometry as never) : null
  const differs = drawnM2 !== null && typedM2 !== null && Math.abs(drawnM2 / typedM2 - 1) > SAME_AREA
  const save = async (): Promise<void> => {
    const done = shape
      ? await redraw.submit({ siteId: site.id, shapeId: shape.id }, ({ placeId: _, ...v }, rowVersion) => ({ ...v, rowVersion }))
      : await draw.submit({ siteId: site.id }, (v) => ({ ...v, id, placeId: v.kind === 'outline' ? v.placeId : null }))
    if (done) p.onDone()
  }
  const take = (kind: ShapeKind): void => {
    const usual = USUAL_FORM[kind]
    set({ kind, ...(usual === form ? {} : { geometry: null }) })
    setForm(usual)
  }
  const read = (text: string): void => {
    setCorners(text)
    const found = readCorners(text, form)
    if ('geometry' in found) set({ geometry: found.geometry })
  }
  const wrong =
    typed === null || 'geometry' in typed
      ? undefined
      : 'tooFew' in typed
        ? t(`drawn.tooFew.${form}`)
        : t('drawn.wrongLine', { line: typed.wrongLine, text: typed.text })
  const onlyAnew = values.geometry !== null && cornersOf(values.geometry) === null
  return (
    <>
      <GroundMap
        name={p.mapName}
        shapes={others}
        chosen={null}
        onChoose={() => undefined}
        middle={p.middle}
        isMetric={site.units === 'metric'}
        drawing={{
          form,
          geometry: values.geometry,
          // What is dragged stands in the corners, too.
          onChange: (geometry) => {
            set({ geometry })
            setCorners((shown) => (shown === null ? null : textOf(geometry)))
          },
        }}
      />
      <Sheet>
        <Stack>
          {shape ? <Heading>{place?.name ?? (shape.name || t(`drawn.shape.${shape.kind}`))}</Heading> : null}
          {shape?.placeId ? null : (
            <Fields>
              <Select
                label={t('drawn.what')}
                placeholder={t('choose')}
                width="24ch"
                options={[...(open.length > 0 && !shape ? (['outline'] as const) : []), ...landmarkKinds].map((id) => ({
                  id,
                  label: t(`drawn.shape.${id}`),
                }))}
                value={values.kind}
                onChange={(kind) => take(kind as ShapeKind)}
                error={errors['kind']}
              />
              {isOutline ? (
                <Select
                  label={t('drawn.of')}
                  placeholder={t('choose')}
                  width="24ch"
                  options={open.map(({ id, name }) => ({ id, label: name }))}
                  {...bind.choice('placeId')}
                />
              ) : (
                <>
                  <TextField label={t('drawn.name')} width="24ch" {...bind.text('name')} />
                  <Choice
                    label={t('drawn.form')}
                    options={FORMS.map((id) => ({ id, label: t(`drawn.form.${id}`) }))}
                    value={form}
                    onChange={(next) => {
                      set({ geometry: null })
                      setCorners(null)
                      setForm(next)
                    }}
                  />
                  <TextField label={t('note')} width="40ch" {...bind.text('note')} />
                </>
              )}
            </Fields>
          )}
          <Small>{onlyAnew ? t('drawn.several') : t(values.geometry ? 'drawn.drag' : `drawn.how.${form}`)}</Small>
          {corners === null ? (
            <TextButton onPress={() => setCorners(values.geometry ? textOf(values.geometry) : '')}>{t('drawn.type')}</TextButton>
          ) : (
            <TextField
              label={t('drawn.corners')}
              hint={t('drawn.cornersHint')}
              rows={5}
              width="40ch"
              value={corners}
              onChange={read}
              error={wrong}
            />
          )}
          {drawnM2 === null ? null : (
            <p role="status">
              {isOutline && differs && typedM2 !== null
                ? t('drawn.typedArea', { drawn: f.area(drawnM2 / 10_000), typed: f.area(typedM2 / 10_000) })
                : t('drawn.drawnArea', { area: f.area(drawnM2 / 10_000) })}
            </p>
          )}
          {isOutline && differs ? <Checkbox label={t('drawn.takeArea')} {...bind.check('takesArea')} /> : null}
          <EntryEnd
            entry={{
              ...entry,
              general: entry.general ?? errors['geometry'] ?? errors['geometry.type'] ?? errors['takesArea'] ?? firstWithin(errors),
            }}
            onSave={save}
            onCancel={p.onDone}
          />
        </Stack>
      </Sheet>
    </>
  )
}

/** A fault of one corner is said of the whole: nobody counts them. */
const firstWithin = (errors: Readonly<Record<string, string>>): string | null =>
  Object.entries(errors).find(([path]) => path.startsWith('geometry.'))?.[1] ?? null
