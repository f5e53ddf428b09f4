import { bloomEvents, endpoints, type BloomRecord, type Indicator } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Columns, Fields, Heading, Line, Quiet, Rows, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import type { SmallPhoto } from '../library/photo.js'
import { PhotoField } from '../library/PhotoField.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/bloom.js'
import '../messages/en/field.js'

/** Every bloom that was written down, with a form for one more. */
export function BloomLog({ records, plants }: { records: readonly BloomRecord[]; plants: readonly Indicator[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [shown, setShown] = useState(60)
  const api = `/api/v1/sites/${site.id}`
  return (
    <Columns $left="1fr" $right="1fr">
      <AddBloom plants={plants} />
      <Stack>
        <Line>
          <Heading style={{ flex: '1 1 20ch' }}>{t('bloom.log')}</Heading>
          <a href={`${api}/bloom.csv`} download>
            {t('bloom.csv')}
          </a>
          <a href={`${api}/bloom-occurrences.csv`} download>
            {t('bloom.darwinCore')}
          </a>
        </Line>
        {records.length === 0 ? <p>{t('bloom.logEmpty')}</p> : null}
        <Rows data-testid="bloom-log">
          {records.slice(0, shown).map((record) => {
            const name = plants.find(({ id }) => id === record.plantId)?.name ?? record.plantName ?? record.plantId
            return (
              <li key={record.id}>
                <Line>
                  <span style={{ flex: '1 1 26ch' }}>
                    {t('bloom.logLine', {
                      name,
                      event: t(`bloom.event.${record.event}`),
                      notYet: record.notYet ? 'yes' : 'no',
                      from: f.withYear(record.seenFrom),
                      to: record.seenTo === record.seenFrom ? 'none' : f.withYear(record.seenTo),
                    })}{' '}
                    <Quiet>{[record.place, record.personName, record.note].filter(Boolean).join(', ')}</Quiet>
                    {record.photoId ? (
                      <>
                        {' '}
                        <a href={`${api}/photos/${record.photoId}/jpeg`}>{t('bloom.photo')}</a>
                      </>
                    ) : null}
                  </span>
                  <RemoveButton
                    remove={endpoints.bloom.remove}
                    restore={endpoints.bloom.restore}
                    params={{ siteId: site.id, recordId: record.id }}
                    rowVersion={record.rowVersion}
                    label={t('records.removeOne', { name, date: f.withYear(record.seenFrom) })}
                    said={t('records.removed', { name })}
                  />
                </Line>
              </li>
            )
          })}
        </Rows>
        {records.length > shown ? (
          <Line>
            <TextButton onPress={() => setShown(shown + 200)}>{t('bloom.more', { count: records.length - shown })}</TextButton>
          </Line>
        ) : null}
      </Stack>
    </Columns>
  )
}

/** One bloom with everything that can be said of it, of this season or a past one. */
function AddBloom({ plants }: { plants: readonly Indicator[] }) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const initial = {
    plantId: null as string | null,
    event: 'first-open' as BloomRecord['event'],
    blockId: 'none',
    place: '',
    seenFrom: site.today as string | null,
    seenTo: null as string | null,
    notYet: false,
    note: '',
  }
  const form = useEntry(endpoints.bloom.add, initial, null, site.id)
  const { values, set, errors } = form
  const save = async (): Promise<void> => {
    const name = plants.find(({ id }) => id === values.plantId)?.name ?? ''
    const says = t('bloom.written', { name, event: t(`bloom.event.${values.event}`), notYet: values.notYet ? 'yes' : 'no' })
    const saved = await form.put({ siteId: site.id }, says, 'bloom', (v) => ({
      ...v,
      plantId: v.plantId ?? '',
      blockId: v.blockId === 'none' ? null : v.blockId,
      seenFrom: v.seenFrom ?? '',
      photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? site.today, position: null } : null,
    }))
    if (!saved) return
    setPhoto(null)
    const { event, blockId, place, seenFrom, notYet } = values
    form.beginWith({ event, blockId, place, seenFrom, notYet })
  }
  const mine = plants.filter((plant) => plant.route !== null || plant.own !== null)
  const ordered = [...mine, ...plants.filter((plant) => !mine.includes(plant))]
  return (
    <Sheet>
      <Stack>
        <Heading>{t('bloom.add')}</Heading>
        <DraftNote entry={form} />
        <Fields>
          <Select
            label={t('bloom.plant')}
            placeholder={t('choose')}
            width="24ch"
            options={ordered.map(({ id, name }) => ({ id, label: name }))}
            value={values.plantId}
            onChange={(plantId) => set({ plantId })}
            error={errors['plantId']}
          />
          <Select
            label={t('bloom.what')}
            placeholder={t('choose')}
            width="20ch"
            options={bloomEvents.map((id) => ({ id, label: t(`bloom.event.${id}`) }))}
            value={values.event}
            onChange={(event) => set({ event: event as BloomRecord['event'] })}
            error={errors['event']}
          />
        </Fields>
        <Fields>
          <DateField
            label={t('bloom.from')}
            value={values.seenFrom}
            onChange={(seenFrom) => set({ seenFrom })}
            error={errors['seenFrom']}
          />
          <DateField label={t('bloom.to')} value={values.seenTo} onChange={(seenTo) => set({ seenTo })} error={errors['seenTo']} />
        </Fields>
        <Checkbox label={t('bloom.isNotYet')} value={values.notYet} onChange={(notYet) => set({ notYet })} />
        <Fields>
          <Select
            label={t('check.block')}
            placeholder={t('choose')}
            width="20ch"
            options={[{ id: 'none', label: t('check.noBlock') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
            value={values.blockId}
            onChange={(blockId) => set({ blockId })}
          />
          <TextField
            label={t('bloom.place')}
            width="20ch"
            value={values.place}
            onChange={(place) => set({ place })}
            error={errors['place']}
          />
          <TextField label={t('records.note')} width="30ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
        </Fields>
        <PhotoField photo={photo} onChange={setPhoto} />
        <FormError text={form.general} />
        <FormLine onSave={save} isBarred={form.isBarred}>
          <Button onPress={() => void save()} isDisabled={form.isBarred}>
            {t('save')}
          </Button>
        </FormLine>
      </Stack>
    </Sheet>
  )
}
