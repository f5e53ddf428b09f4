import { endpoints, plotCovers, type Plot, type PlotCover } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Choice, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { PhotoField } from '../library/PhotoField.js'
import type { SmallPhoto } from '../library/photo.js'
import { useText } from '../messages/useText.js'
import { CoverDegrees } from './CoverDegrees.js'
import { GhostCamera } from './GhostCamera.js'
import { usePhoto } from './usePhoto.js'
import '../messages/en/field.js'
import '../messages/en/plots.js'
import '../messages/en/work.js'

/** Stands for a plant of which nobody has said how much there is. */
const UNSAID = 'unsaid'
const keyOf = ({ of, id }: Pick<Plot['plants'][number], 'of' | 'id'>): string => `${of} ${id}`

/** What is seen in a plot now: the same square as before in the camera, and the cover of each plant by a tap. */
export function LookForm({ plot, onDone }: { plot: Plot; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const [last] = plot.looks
  const lastPhoto = plot.looks.find(({ photoId }) => photoId !== null)?.photoId ?? null
  const ghost = usePhoto(site.id, lastPhoto)
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const [isCamera, setCamera] = useState(false)
  const begins = {
    covers: {} as Record<string, PlotCover>,
    lookedOn: site.today as string | null,
    dueOn: null as string | null,
    minutes: null as number | null,
    note: '',
  }
  const entry = useEntry(endpoints.plots.look, begins, null, plot.id)
  const { values, bind, set, errors } = entry
  const save = async (): Promise<void> => {
    const says = t('plots.lookSays', { number: plot.number, place: plot.placeName })
    const saved = await entry.put({ siteId: site.id }, says, `scouting/plots?plot=${plot.id}`, (v) => ({
      plotId: plot.id,
      lookedOn: v.lookedOn ?? '',
      covers: plot.plants.flatMap(({ of, id }) => {
        const cover = v.covers[keyOf({ of, id })]
        return cover === undefined ? [] : [{ of, id, cover }]
      }),
      minutes: v.minutes,
      dueOn: v.dueOn,
      photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? site.today, position: null } : null,
      note: v.note,
    }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <Small>{t('plots.how')}</Small>
      {isCamera ? (
        <GhostCamera
          ghost={ghost}
          onTaken={(taken) => {
            setPhoto(taken)
            setCamera(false)
          }}
          onLeave={() => setCamera(false)}
        />
      ) : (
        <Line>
          <Button $plain onPress={() => setCamera(true)}>
            {t(lastPhoto ? 'plots.camera' : 'plots.cameraFirst')}
          </Button>
          <PhotoField photo={photo} onChange={setPhoto} />
        </Line>
      )}
      {plot.plants.map((plant) => {
        const before = last?.covers.find(({ of, id }) => of === plant.of && id === plant.id)?.cover
        return (
          <Stack key={keyOf(plant)} $gap={4}>
            <span>
              <b>{plant.name}</b> <Small as="span">{t('plots.percent')}</Small>
              {before === undefined ? null : (
                <Small as="span">
                  ,{' '}
                  {t('plots.coverBefore', {
                    cover: t('plots.coverIs', { cover: before === 'none' ? 'none' : t(`plots.cover.${before}`) }),
                  })}
                </Small>
              )}
            </span>
            <Choice<PlotCover | typeof UNSAID>
              label={t('plots.cover', { name: plant.name })}
              options={[
                ...(values.covers[keyOf(plant)] === undefined ? [{ id: UNSAID, label: t('plots.cover.unsaid') } as const] : []),
                ...plotCovers.map((id) => ({ id, label: t(`plots.cover.${id}`) })),
              ]}
              value={values.covers[keyOf(plant)] ?? UNSAID}
              onChange={(cover) => {
                if (cover !== UNSAID) set({ covers: { ...values.covers, [keyOf(plant)]: cover } })
              }}
            />
          </Stack>
        )
      })}
      <FormError text={Object.entries(errors).find(([path]) => path.startsWith('covers'))?.[1] ?? errors['plotId'] ?? null} />
      <Unfold title={t('plots.degreesShow')}>
        <CoverDegrees />
      </Unfold>
      <Fields>
        <DateField label={t('plots.lookedOn')} {...bind.day('lookedOn')} />
        <DateField label={t('plots.dueOn')} hint={t('plots.dueHint')} {...bind.day('dueOn')} />
        <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
        <TextField label={t('note')} width="30ch" {...bind.text('note')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
