import { endpoints, ruleActs, type Companion } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import { useMay } from '../api/may.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Several } from '../design/Several.js'
import { Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { AsleepSays } from './AsleepSays.js'
import '../messages/en/companions.js'
import '../messages/en/field.js'
import '../messages/en/rules.js'

const NONE = 'none'

/** Plants that must not be harmed, by place: when each is awake, and when all of a block are asleep. */
export function CompanionsPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const may = useMay('tend')
  const { data } = useRead(endpoints.companions.list, { params: { siteId: site.id }, input: {} })
  const [open, setOpen] = useState<string | null>(null)
  if (!data) return null
  return (
    <Stack>
      <Heading>{t('companions.title')}</Heading>
      {data.companions.length === 0 && open === null ? <Small>{t('companions.none')}</Small> : null}
      {data.companions.length > 0 ? (
        <Rows>
          {data.companions.map((one) => (
            <li key={one.id}>
              {open === one.id ? (
                <CompanionForm companion={one} onDone={() => setOpen(null)} />
              ) : (
                <>
                  <b>{one.name}</b> <Quiet>{one.placeName}</Quiet>
                  <br />
                  {t('companions.awake', { from: f.monthDay(one.awake.from), until: f.monthDay(one.awake.until) })}{' '}
                  {one.blooms > 0 ? <Small as="span">{t('companions.byBlooms', { count: one.blooms })}</Small> : null}
                  <Small>{t('companions.harmedBy', { acts: one.harmedBy.map((act) => t(`house.act.${act}`)).join(', ') })}</Small>
                  {may ? (
                    <Line>
                      <TextButton aria-label={t('companions.changeOne', { name: one.name })} onPress={() => setOpen(one.id)}>
                        {t('edit')}
                      </TextButton>
                      <RemoveButton
                        remove={endpoints.companions.remove}
                        restore={endpoints.companions.restore}
                        params={{ siteId: site.id, companionId: one.id }}
                        rowVersion={one.rowVersion}
                        label={t('companions.removeOne', { name: one.name })}
                        said={t('companions.removed', { name: one.name })}
                      />
                    </Line>
                  ) : null}
                </>
              )}
            </li>
          ))}
        </Rows>
      ) : null}
      {[...new Set(data.companions.map(({ blockId }) => blockId))].map((blockId) => (
        <AsleepSays key={blockId} blockId={blockId} named />
      ))}
      {open === 'new' ? (
        <CompanionForm onDone={() => setOpen(null)} />
      ) : may ? (
        <TextButton onPress={() => setOpen('new')}>{t('companions.add')}</TextButton>
      ) : null}
    </Stack>
  )
}

/** A plant that must not be harmed: where, when it is awake, and what would harm it. */
function CompanionForm({ companion, onDone }: { companion?: Companion; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const places = usePlaceOptions()
  const { data: plants = [] } = useRead(endpoints.library.indicators, { params: { siteId: site.id }, input: {} })
  // A day of the year is chosen as one of this year.
  const dated = (day: string | undefined): string | null => (day === undefined ? null : `${site.today.slice(0, 4)}-${day}`)
  const initial = {
    placeId: companion?.placeId ?? (null as string | null),
    name: companion?.name ?? '',
    wakesOn: dated(companion?.wakesOn),
    sleepsOn: dated(companion?.sleepsOn),
    harmedBy: (companion?.harmedBy ?? ['cutting', 'chemicals']) as string[],
    plantId: companion?.plantId ?? NONE,
    asleepOn: companion?.asleepOn ?? (null as string | null),
    note: companion?.note ?? '',
  }
  const add = useEntry(endpoints.companions.add, initial, null, companion ? undefined : site.id)
  const update = useEntry(endpoints.companions.update, initial, companion, companion?.id)
  const entry = companion ? update : add
  const { values, bind, set, errors } = entry
  const typed = (v: typeof initial) => ({
    ...v,
    placeId: v.placeId ?? '',
    wakesOn: v.wakesOn?.slice(5) ?? '',
    sleepsOn: v.sleepsOn?.slice(5) ?? '',
    plantId: v.plantId === NONE ? null : v.plantId,
  })
  const save = async (): Promise<void> => {
    const saved = companion
      ? await update.submit({ siteId: site.id, companionId: companion.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  return (
    <Stack>
      <Fields>
        <TextField label={t('companions.name')} width="24ch" {...bind.text('name')} autoFocus />
        <Select
          label={t('companions.where')}
          placeholder={t('choose')}
          width="24ch"
          options={places}
          value={values.placeId}
          onChange={(placeId) => set({ placeId })}
          error={errors['placeId']}
        />
      </Fields>
      <Fields>
        <DateField label={t('companions.wakes')} {...bind.day('wakesOn')} />
        <DateField label={t('companions.sleeps')} {...bind.day('sleepsOn')} />
        <Small>{t('house.yearly')}</Small>
      </Fields>
      <Several
        label={t('companions.harm')}
        placeholder={t('choose')}
        options={ruleActs.map((id) => ({ id, label: t(`house.act.${id}`) }))}
        value={values.harmedBy}
        onChange={(harmedBy) => set({ harmedBy })}
        dropWords={(name) => t('several.drop', { name })}
        error={errors['harmedBy']}
      />
      <Fields>
        <Select
          label={t('companions.plant')}
          placeholder=""
          width="24ch"
          options={[{ id: NONE, label: t('companions.noPlant') }, ...plants.map(({ id, name }) => ({ id, label: name }))]}
          value={values.plantId}
          onChange={(plantId) => set({ plantId })}
          error={errors['plantId']}
        />
        <DateField label={t('companions.asleepOn')} hint={t('optional')} {...bind.day('asleepOn')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
