import { endpoints, type Indicator } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Columns, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/bloom.js'
import '../messages/en/field.js'

const NOWHERE = 'none'

/** What flowers here: plants of the route and of the site's own, and in or beside which block each stands. */
export function Plants({ plants }: { plants: readonly Indicator[] }) {
  const t = useText()
  const [adding, setAdding] = useState(false)
  const [editing, setEditing] = useState<string | null>(null)
  const own = plants.filter((plant) => plant.own !== null)
  const route = plants.filter((plant) => plant.route !== null)
  return (
    <Columns $left="1fr" $right="1fr">
      <Stack>
        <Heading>{t('plants.own')}</Heading>
        <p>{t('plants.explain')}</p>
        {adding ? (
          <OwnPlantForm onDone={() => setAdding(false)} />
        ) : (
          <Line>
            <Button onPress={() => setAdding(true)}>{t('plants.add')}</Button>
          </Line>
        )}
        <Rows data-testid="own-plants">
          {own.map((plant) => (
            <li key={plant.id}>
              {editing === plant.id ? (
                <OwnPlantForm plant={plant} onDone={() => setEditing(null)} />
              ) : (
                <OwnPlantLine plant={plant} onEdit={() => setEditing(plant.id)} />
              )}
            </li>
          ))}
        </Rows>
      </Stack>
      <Stack>
        <Heading>{t('plants.route')}</Heading>
        <p>{t(route.length === 0 ? 'plants.noRoute' : 'plants.where')}</p>
        <Rows data-testid="route-plants">
          {route.map((plant) => (
            <li key={plant.id}>
              <WhereItStands plant={plant} />
            </li>
          ))}
        </Rows>
      </Stack>
    </Columns>
  )
}

function useBlockOptions(): { id: string; label: string }[] {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  return [{ id: NOWHERE, label: t('plants.nowhere') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]
}

function OwnPlantLine({ plant, onEdit }: { plant: Indicator; onEdit: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const blocks = useBlockOptions()
  const { own } = plant
  if (!own) return null
  const known = own.learnt.map(({ event, heat, seasons }) =>
    t('plants.learnt', { event: t(`bloom.event.${event}` as Parameters<typeof t>[0]), heat: f.heat(heat), seasons }),
  )
  return (
    <Line>
      <span style={{ flex: '1 1 26ch' }}>
        <b>{plant.name}</b> <Quiet>{own.blockId === null ? '' : blocks.find(({ id }) => id === own.blockId)?.label}</Quiet>
        <br />
        <Small as="span">
          {plant.tell} {known.length > 0 ? known.join(' ') : t('plants.notLearnt')}
        </Small>
      </span>
      <TextButton aria-label={t('plants.changeOne', { name: plant.name })} onPress={onEdit}>
        {t('edit')}
      </TextButton>
      <RemoveButton
        remove={endpoints.library.removeOwnPlant}
        restore={endpoints.library.restoreOwnPlant}
        params={{ siteId: site.id, plantRowId: own.id }}
        rowVersion={own.rowVersion}
        label={t('plants.removeOne', { name: plant.name })}
        said={t('records.removed', { name: plant.name })}
      />
    </Line>
  )
}

/** Three fields: what it is called, where it flowers, how to tell that it does. */
function OwnPlantForm({ plant, onDone }: { plant?: Indicator; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const blocks = useBlockOptions()
  const { data: grown = [] } = useBlocks(site.id)
  const own = plant?.own ?? null
  const initial = { name: plant?.name ?? '', blockId: own?.blockId ?? NOWHERE, tell: plant?.tell ?? '' }
  const adding = useEntry(endpoints.library.addOwnPlant, initial, null, own ? undefined : site.id)
  const changing = useEntry(endpoints.library.changeOwnPlant, initial, own, own?.id)
  const entry = own ? changing : adding
  const { values, set, errors } = entry
  const stored = (v: typeof initial) => ({ ...v, blockId: v.blockId === NOWHERE ? null : v.blockId })
  const save = async (): Promise<void> => {
    const done = own
      ? await changing.submit({ siteId: site.id, plantRowId: own.id }, (v, rowVersion) => ({ ...stored(v), rowVersion }))
      : await adding.submit({ siteId: site.id }, stored)
    if (done) onDone()
  }
  const crops = grown.filter(({ grows }) => grows !== '')
  return (
    <Sheet>
      <Stack>
        <TextField
          label={t('plants.name')}
          value={values.name}
          onChange={(name) => set({ name })}
          error={errors['name']}
          hint={t('plants.nameHint')}
        />
        {own === null && crops.length > 0 ? (
          <Line>
            <Small as="span">{t('plants.crops')}</Small>
            {crops.map(({ id, name, grows }) => (
              <TextButton key={id} onPress={() => set({ name: t('plants.cropFlowers', { grows, block: name }), blockId: id })}>
                {grows}
              </TextButton>
            ))}
          </Line>
        ) : null}
        <Select
          label={t('plants.block')}
          placeholder={t('choose')}
          options={blocks}
          value={values.blockId}
          onChange={(blockId) => set({ blockId })}
          error={errors['blockId']}
        />
        <TextField label={t('plants.tell')} value={values.tell} onChange={(tell) => set({ tell })} error={errors['tell']} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

/** In or beside which block a plant of the route flowers: bees are judged by that. */
function WhereItStands({ plant }: { plant: Indicator }) {
  const t = useText()
  const site = useSite()
  const blocks = useBlockOptions()
  const change = useWrite(endpoints.library.changeOnRoute)
  const { route } = plant
  if (!route) return null
  const put = (blockId: string): void =>
    void change.save({
      params: { siteId: site.id, rowId: route.id },
      input: { place: route.place, blockId: blockId === NOWHERE ? null : blockId, rowVersion: route.rowVersion },
    })
  return (
    <Line>
      <span style={{ flex: '1 1 20ch' }}>
        <b>{plant.name}</b> <Quiet>{route.place}</Quiet>
      </span>
      <Select
        label={t('plants.blockOf', { name: plant.name })}
        hideLabel
        placeholder={t('choose')}
        width="24ch"
        isDisabled={change.isBarred}
        options={blocks}
        value={route.blockId ?? NOWHERE}
        onChange={put}
      />
    </Line>
  )
}
