import { endpoints, placeLevels, type Block, type Place } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { usePlaces, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Quiet, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useUndo } from '../shell/Undo.js'
import { PlantEvents, plantsNow, usePlantEvents } from './PlantEvents.js'
import { readParts } from './readParts.js'

const Parts = styled.ul`
  list-style: none;
  margin: 4px 0 0;
  padding: 0 0 0 18px;
  > li {
    padding: 4px 0;
  }
`

/** What is open in the tree: a new part within a place, or one that is changed. */
type Open = { within: string } | { several: string } | { place: string } | { plants: string } | null

/** The parts of a block, each with those that lie in it. */
export function PartsOfBlock({ block }: { block: Block }) {
  const t = useText()
  const site = useSite()
  const { data: places = [] } = usePlaces(site.id)
  const [open, setOpen] = useState<Open>(null)
  const isAdding = open !== null && 'within' in open && open.within === block.id
  const isSeveral = open !== null && 'several' in open
  const taken = places.flatMap(({ parentId, name }) => (parentId === block.id ? name : []))
  return (
    <Stack $gap={6} style={{ gridColumn: '1 / -1' }}>
      <PartsWithin parentId={block.id} places={places} open={open} onOpen={setOpen} />
      {isSeveral ? <SeveralParts parentId={block.id} taken={taken} onDone={() => setOpen(null)} /> : null}
      {isAdding || isSeveral ? null : (
        <Line>
          <TextButton onPress={() => setOpen({ within: block.id })}>{t('parts.addTo', { name: block.name })}</TextButton>
          <TextButton onPress={() => setOpen({ several: block.id })}>{t('parts.several')}</TextButton>
          {taken.length > 0 ? <Link to={`/sites/${site.id}/labels?block=${block.id}`}>{t('labels.title')}</Link> : null}
        </Line>
      )}
    </Stack>
  )
}

interface TreeProps {
  parentId: string
  places: readonly Place[]
  open: Open
  onOpen: (open: Open) => void
}

function PartsWithin(p: TreeProps) {
  const within = p.places.filter(({ parentId }) => parentId === p.parentId)
  const adds = p.open !== null && 'within' in p.open && p.open.within === p.parentId
  if (within.length === 0 && !adds) return null
  return (
    <Parts>
      {within.map((place) => (
        <li key={place.id}>
          {p.open !== null && 'place' in p.open && p.open.place === place.id ? (
            <PartForm parentId={p.parentId} place={place} onDone={() => p.onOpen(null)} />
          ) : (
            <>
              <PartLine place={place} onOpen={p.onOpen} />
              {p.open !== null && 'plants' in p.open && p.open.plants === place.id ? (
                <PlantEvents place={place} onDone={() => p.onOpen(null)} />
              ) : null}
            </>
          )}
          <PartsWithin {...p} parentId={place.id} />
        </li>
      ))}
      {adds ? (
        <li>
          <PartForm parentId={p.parentId} onDone={() => p.onOpen(null)} />
        </li>
      ) : null}
    </Parts>
  )
}

function PartLine({ place, onOpen }: { place: Place; onOpen: (open: Open) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { ground } = f.measures
  const { data: events = [] } = usePlantEvents(site.id)
  const facts = [
    t(`level.${place.level}`),
    place.areaM2 === null ? null : `${f.number(ground.shown(place.areaM2), ground.digits)} ${ground.unit}`,
    place.plants === null ? null : t('parts.plants', { count: place.plants }),
    plantsNow(place, events, t) || null,
  ].filter((fact) => fact !== null)
  return (
    <Line>
      <span>
        {place.name} <Quiet>{facts.join(', ')}</Quiet>
      </span>
      <TextButton aria-label={t('block.editNamed', { name: place.name })} onPress={() => onOpen({ place: place.id })}>
        {t('edit')}
      </TextButton>
      {place.level === 'plants' || place.level === 'pots' ? null : (
        <TextButton aria-label={t('parts.addTo', { name: place.name })} onPress={() => onOpen({ within: place.id })}>
          {t('parts.add')}
        </TextButton>
      )}
      <TextButton aria-label={t('happened.openOne', { name: place.name })} onPress={() => onOpen({ plants: place.id })}>
        {t('happened.open')}
      </TextButton>
      <RemoveButton
        remove={endpoints.places.remove}
        restore={endpoints.places.restore}
        params={{ siteId: site.id, placeId: place.id }}
        rowVersion={place.rowVersion}
        label={t('block.removeNamed', { name: place.name })}
        said={t('block.removed', { name: place.name })}
      />
    </Line>
  )
}

function PartForm({ parentId, place, onDone }: { parentId: string; place?: Place; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { ground } = useFormat().measures
  const initial = {
    level: place?.level ?? (null as Place['level'] | null),
    name: place?.name ?? '',
    areaM2: place?.areaM2 ?? (null as number | null),
    plants: place?.plants ?? (null as number | null),
  }
  const create = useEntry(endpoints.places.create, initial, null, place ? undefined : parentId)
  const update = useEntry(endpoints.places.update, initial, place, place?.id)
  const entry = place ? update : create
  const { bind } = entry
  const save = async (): Promise<void> => {
    const saved = place
      ? await update.submit({ siteId: site.id, placeId: place.id }, (v, rowVersion) => ({ ...v, level: v.level ?? undefined, rowVersion }))
      : await create.submit({ siteId: site.id }, (v) => ({ ...v, level: v.level ?? undefined, parentId }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('parts.level')}
            placeholder={t('choose')}
            width="16ch"
            options={placeLevels.map((id) => ({ id, label: t(`level.${id}`) }))}
            {...bind.choice('level')}
          />
          <TextField label={t('block.name')} width="24ch" {...bind.text('name')} />
          <NumberField label={t('block.area')} width="16ch" unit={ground.unit} {...bind.number('areaM2', ground)} />
          <NumberField label={t('parts.count')} width="16ch" digits={0} {...bind.number('plants')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

/** Parts that are alike, in one line. */
function SeveralParts({ parentId, taken, onDone }: { parentId: string; taken: readonly string[]; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const entry = useEntry(endpoints.places.createSeveral, { line: '' }, null, parentId)
  const remove = useWrite(endpoints.places.remove)
  const { values, bind, errors } = entry
  const parts = readParts(values.line, taken)
  const save = async (): Promise<void> => {
    const made = await entry.submit({ siteId: site.id }, ({ line }) => ({ parentId, parts: readParts(line, taken) ?? [] }))
    if (!made) return
    onDone()
    undo.offer(t('parts.added', { count: made.length }), async () => {
      for (const { id, rowVersion } of made) await remove.save({ params: { siteId: site.id, placeId: id }, input: { rowVersion } })
    })
  }
  const [first] = parts ?? []
  const last = parts?.at(-1)
  return (
    <Sheet>
      <Stack>
        <TextField
          label={t('parts.line')}
          hint={t('parts.lineHint')}
          width="36ch"
          autoFocus
          {...bind.text('line')}
          error={errors['parts'] ?? errors['parts.0.name'] ?? errors['parts.0.level']}
        />
        {values.line === '' ? null : (
          <p role="status">
            {!parts || !first || !last
              ? t('parts.notRead')
              : parts.length === 1
                ? t('parts.readOne', { name: first.name, count: first.plants ?? 0 })
                : t('parts.read', {
                    count: parts.length,
                    first: first.name,
                    last: last.name,
                    plants: parts.reduce((sum, { plants }) => sum + (plants ?? 0), 0),
                  })}
          </p>
        )}
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
