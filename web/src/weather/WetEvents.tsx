import { useIntl } from 'react-intl'
import { hoursBetween } from '@bocado/core/time'
import { endpoints, wetEventKinds, type Block, type WetEvent } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { hoursAfter, momentOf } from '../design/moments.js'
import { Columns, Heading, Fields, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { hasTwelveHours, useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'

/** Times in which leaves of a block were wet without rain: overhead watering, condensation. */
export function WetEvents({ block, season }: { block: Block; season: string }) {
  const t = useText()
  const site = useSite()
  const { data: events = [] } = useRead(endpoints.blocks.wetEvents, { params: { siteId: site.id }, input: { season } })
  const own = events.filter(({ blockId }) => blockId === block.id)
  return (
    <Columns $left="1fr" $right="1fr">
      <Stack>
        <Heading>{t('wet.title', { block: block.name })}</Heading>
        <Small>{t('wet.explain')}</Small>
        {own.length === 0 ? (
          <p>{t('wet.none')}</p>
        ) : (
          <Rows>
            {own.map((event) => (
              <li key={event.id}>
                <EventLine event={event} />
              </li>
            ))}
          </Rows>
        )}
      </Stack>
      <AddEvent block={block} />
    </Columns>
  )
}

function EventLine({ event }: { event: WetEvent }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const hours = hoursBetween(Date.parse(event.startedAt), Date.parse(event.endedAt))
  return (
    <Line style={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
      <span>
        {t(`wet.${event.kind}`)} {f.moment(event.startedAt)}, {f.number(hours, 1)} h
        {event.waterMm === null ? '' : `, ${f.rain(event.waterMm)}`} {event.note} <Quiet>{event.by}</Quiet>
      </span>
      <RemoveButton
        remove={endpoints.blocks.removeWetEvent}
        restore={endpoints.blocks.restoreWetEvent}
        params={{ siteId: site.id, wetEventId: event.id }}
        rowVersion={event.rowVersion}
        said={t('wet.removed')}
      />
    </Line>
  )
}

function AddEvent({ block }: { block: Block }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { locale } = useIntl()
  const { rain } = f.measures
  const entry = useEntry(
    endpoints.blocks.addWetEvent,
    {
      kind: 'overhead-watering' as WetEvent['kind'],
      day: site.today as string | null,
      time: hasTwelveHours(locale) ? '5:00 AM' : '05:00',
      hours: 2 as number | null,
      waterMm: null as number | null,
      note: '',
    },
    null,
    block.id,
  )
  const { values, set, errors } = entry
  const startedAt = momentOf(values.day, values.time, site.timeZone)
  const endedAt = startedAt === null || values.hours === null ? null : hoursAfter(startedAt, values.hours)
  const save = () =>
    entry.submit({ siteId: site.id, blockId: block.id }, (v) => ({
      kind: v.kind,
      startedAt: startedAt ?? undefined,
      endedAt: endedAt ?? undefined,
      waterMm: v.waterMm,
      note: v.note,
    }))
  return (
    <Stack>
      <Heading>{t('wet.add')}</Heading>
      <Fields>
        <Select
          label={t('wet.kind')}
          placeholder={t('choose')}
          width="22ch"
          options={wetEventKinds.map((id) => ({ id, label: t(`wet.${id}`) }))}
          value={values.kind}
          onChange={(kind) => set({ kind: kind as WetEvent['kind'] })}
          error={errors['kind']}
        />
        <DateField label={t('wet.day')} value={values.day} onChange={(day) => set({ day })} error={errors['startedAt']} />
        <TextField
          label={t('wet.time')}
          width="9ch"
          value={values.time}
          onChange={(time) => set({ time })}
          error={values.time !== '' && startedAt === null ? t('record.timeWrong') : undefined}
        />
        <NumberField
          label={t('wet.hours')}
          width="10ch"
          digits={1}
          unit="h"
          value={values.hours}
          onChange={(hours) => set({ hours })}
          error={errors['endedAt']}
        />
        {values.kind === 'overhead-watering' ? (
          <NumberField
            label={t('wet.water')}
            width="14ch"
            digits={2}
            unit={rain.unit}
            value={values.waterMm === null ? null : rain.shown(values.waterMm)}
            onChange={(shown) => set({ waterMm: shown === null ? null : rain.stored(shown) })}
            error={errors['waterMm']}
            hint={t('optional')}
          />
        ) : null}
      </Fields>
      <TextField label={t('note')} value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <FormLine onSave={save} isBarred={entry.isBarred}>
        <Button isDisabled={entry.isBarred} onPress={() => void save()}>
          {t('save')}
        </Button>
      </FormLine>
    </Stack>
  )
}
