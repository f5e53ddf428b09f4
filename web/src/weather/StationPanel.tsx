import { inHours, inMinutes } from '@bocado/core/time'
import { endpoints, type Station } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Checkbox, TextField } from '../design/controls.js'
import { NumberField, QuantityField } from '../design/NumberField.js'
import { PositionFields } from '../design/PositionFields.js'
import { FormError } from '../design/FormError.js'
import { Caution, Columns, Heading, Fields, Line, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Corrections } from './Corrections.js'

/** What a station is: its name, place, heights and clock; and what was read wrongly and put right. */
export function StationPanel({ station }: { station: Station }) {
  return (
    <Columns $left="1fr" $right="1fr">
      <StationForm key={station.id} station={station} />
      <Corrections station={station} />
    </Columns>
  )
}

function StationForm({ station }: { station: Station }) {
  const t = useText()
  const site = useSite()
  const { height } = useFormat().measures
  const { name, place, latitude, longitude, elevationM, sensorHeightM, underCover, hours } = station
  const entry = useEntry(
    endpoints.weather.updateStation,
    {
      ...{ name, place, latitude, longitude, elevationM, sensorHeightM, underCover },
      offsetHours: inHours(station.utcOffsetMinutes),
      confirmed: false,
    },
    station,
  )
  const { values, set, errors } = entry
  const offset = inMinutes(values.offsetHours ?? 0)
  const clockChanges = offset !== station.utcOffsetMinutes && hours > 0
  const params = { siteId: site.id, stationId: station.id }
  const moved = errors['clockMovesHours']
  const save = async (): Promise<void> => {
    const saved = await entry.submit(params, ({ offsetHours: _, confirmed, ...v }, rowVersion) => ({
      ...v,
      utcOffsetMinutes: offset,
      rowVersion,
      ...(clockChanges && confirmed ? { clockMovesHours: Number(moved ?? hours) } : {}),
    }))
    // What was agreed to was this move, and no later one.
    if (saved) entry.fill({ confirmed: false })
  }
  return (
    <Stack>
      <Heading>{t('station.title', { name })}</Heading>
      <Fields>
        <TextField label={t('station.name')} width="22ch" value={values.name} onChange={(v) => set({ name: v })} error={errors['name']} />
        <TextField
          label={t('station.place')}
          width="32ch"
          value={values.place}
          onChange={(v) => set({ place: v })}
          error={errors['place']}
          hint={t('optional')}
        />
      </Fields>
      <Fields>
        <PositionFields
          latitude={{ value: values.latitude, onChange: (latitude) => set({ latitude }), error: errors['latitude'] }}
          longitude={{ value: values.longitude, onChange: (longitude) => set({ longitude }), error: errors['longitude'] }}
        />
        <QuantityField
          label={t('site.elevation')}
          width="15ch"
          measure={height}
          value={values.elevationM}
          onChange={(v) => set({ elevationM: v })}
          error={errors['elevationM']}
          hint={t('optional')}
        />
        <QuantityField
          label={t('station.windHeight')}
          width="18ch"
          measure={height}
          value={values.sensorHeightM}
          onChange={(v) => set({ sensorHeightM: v })}
          error={errors['sensorHeightM']}
          hint={t('station.windHeightHint')}
        />
      </Fields>
      <Checkbox label={t('station.underCover')} value={values.underCover} onChange={(v) => set({ underCover: v })} />
      <Fields>
        <NumberField
          label={t('station.clock')}
          width="18ch"
          digits={2}
          unit="h"
          value={values.offsetHours}
          onChange={(v) => set({ offsetHours: v ?? 0 })}
          error={errors['utcOffsetMinutes']}
          hint={t('station.clockHint')}
        />
      </Fields>
      {clockChanges ? (
        <>
          <Caution>{t('station.clockMoves', { hours: Number(moved ?? hours) })}</Caution>
          <Checkbox label={t('station.clockConfirm')} value={values.confirmed} onChange={(v) => set({ confirmed: v })} />
        </>
      ) : null}
      <FormError text={entry.general} />
      <Line $gap={20}>
        <Button isDisabled={entry.isBarred || (clockChanges && !values.confirmed)} onPress={() => void save()}>
          {t('save')}
        </Button>
        <RemoveStation station={station} />
      </Line>
    </Stack>
  )
}

function RemoveStation({ station }: { station: Station }) {
  const t = useText()
  const site = useSite()
  return (
    <RemoveButton
      remove={endpoints.weather.removeStation}
      restore={endpoints.weather.restoreStation}
      params={{ siteId: site.id, stationId: station.id }}
      rowVersion={station.rowVersion}
      words={t('station.remove')}
      said={t('station.removed', { name: station.name })}
    />
  )
}
