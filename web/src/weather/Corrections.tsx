import { inHours, inMinutes } from '@bocado/core/time'
import { endpoints, unitsOf, unitVariables, type Correction, type Station } from '@bocado/contract'
import { correctionInput } from '@bocado/contract/whole'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Heading, Fields, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { SI_UNITS } from './PutRight.js'
import { useStationClock } from './useStationClock.js'

/** What was read wrongly and put right: wrong clocks and wrong units, each of which can be taken off again. */
export function Corrections({ station }: { station: Station }) {
  const t = useText()
  const site = useSite()
  const [adding, setAdding] = useState(false)
  const { data: corrections = [] } = useRead(endpoints.weather.corrections, {
    params: { siteId: site.id, stationId: station.id },
    input: {},
  })
  return (
    <Stack>
      <Heading>{t('correction.title')}</Heading>
      <Small>{t('correction.explain')}</Small>
      {corrections.length > 0 ? (
        <Rows>
          {corrections.map((correction) => (
            <li key={correction.id}>
              <CorrectionLine correction={correction} stationId={station.id} />
            </li>
          ))}
        </Rows>
      ) : null}
      {adding ? (
        <CorrectionForm station={station} onDone={() => setAdding(false)} />
      ) : (
        <TextButton onPress={() => setAdding(true)}>{t('correction.add')}</TextButton>
      )}
    </Stack>
  )
}

function CorrectionLine({ correction, stationId }: { correction: Correction; stationId: string }) {
  const clock = useStationClock(stationId)
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { kind, from, to, shiftMinutes, variable, readAs, isIn, hour, value, note, by } = correction
  const what =
    kind === 'clock'
      ? t('correction.clock', { hours: Math.abs(inHours(shiftMinutes ?? 0)), way: (shiftMinutes ?? 0) < 0 ? 'earlier' : 'later' })
      : kind === 'value'
        ? t('correction.value', {
            hour: clock(from, hour ?? 0),
            variable: t(`variable.${variable ?? 'temperature'}`),
            value: f.figure(value ?? NaN, SI_UNITS[variable ?? 'temperature']),
          })
        : t('correction.unit', { variable: t(`variable.${variable ?? 'temperature'}`), readAs: unitName(readAs), isIn: unitName(isIn) })
  return (
    <Line style={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
      <span>
        {kind === 'value' ? `${f.withYear(from)}:` : t('correction.range', { from: f.withYear(from), to: f.withYear(to) })} {what} {note}{' '}
        <Quiet>{by}</Quiet>
      </span>
      <RemoveButton
        remove={endpoints.weather.removeCorrection}
        restore={endpoints.weather.restoreCorrection}
        params={{ siteId: site.id, correctionId: correction.id }}
        rowVersion={correction.rowVersion}
        words={t('correction.takeOff')}
        said={t('correction.removed')}
      />
    </Line>
  )
}

const unitName = (unit: string | null): string => (unit === 'C' || unit === 'F' ? `°${unit}` : (unit ?? ''))

function CorrectionForm({ station, onDone }: { station: Station; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id, stationId: station.id }
  const entry = useEntry(
    endpoints.weather.correct,
    {
      kind: 'clock' as 'clock' | 'unit',
      from: site.season.start as string | null,
      to: site.today as string | null,
      shiftHours: -1 as number | null,
      variable: 'temperature' as NonNullable<Correction['variable']>,
      readAs: 'F' as string | null,
      isIn: 'C' as string | null,
      note: '',
    },
    null,
    station.id,
  )
  const { values, set, errors } = entry
  const input = (v: typeof values) => ({
    kind: v.kind,
    from: v.from ?? '',
    to: v.to ?? '',
    shiftMinutes: v.kind === 'clock' && v.shiftHours !== null ? inMinutes(v.shiftHours) : null,
    variable: v.kind === 'unit' ? v.variable : null,
    readAs: v.kind === 'unit' ? v.readAs : null,
    isIn: v.kind === 'unit' ? v.isIn : null,
    note: v.note,
  })
  const checked = correctionInput.safeParse(input(values))
  const { data: preview } = useRead(endpoints.weather.previewCorrection, { params, input: input(values) }, checked.success)
  const units = unitsOf[values.variable].map((unit) => ({ id: unit as string, label: unitName(unit) }))
  return (
    <Sheet>
      <Stack>
        <Choice
          label={t('correction.kind')}
          options={(['clock', 'unit'] as const).map((id) => ({ id, label: t(`correction.kind.${id}`) }))}
          value={values.kind}
          onChange={(kind) => set({ kind })}
        />
        <Fields>
          <DateField label={t('correction.from')} value={values.from} onChange={(from) => set({ from })} error={errors['from']} />
          <DateField label={t('correction.to')} value={values.to} onChange={(to) => set({ to })} error={errors['to']} />
          {values.kind === 'clock' ? (
            <NumberField
              label={t('correction.shift')}
              width="20ch"
              digits={0}
              unit="h"
              value={values.shiftHours}
              onChange={(shiftHours) => set({ shiftHours })}
              error={errors['shiftMinutes']}
              hint={t('correction.shiftHint')}
            />
          ) : (
            <>
              <Select
                label={t('correction.variable')}
                placeholder={t('choose')}
                width="18ch"
                options={unitVariables.map((variable) => ({ id: variable, label: t(`variable.${variable}`) }))}
                value={values.variable}
                onChange={(id) => {
                  const variable = id as typeof values.variable
                  set({ variable, readAs: unitsOf[variable][1] ?? null, isIn: unitsOf[variable][0] })
                }}
                error={errors['variable']}
              />
              <Select
                label={t('correction.readAs')}
                placeholder={t('choose')}
                width="12ch"
                options={units}
                value={values.readAs}
                onChange={(readAs) => set({ readAs })}
                error={errors['readAs']}
              />
              <Select
                label={t('correction.isIn')}
                placeholder={t('choose')}
                width="12ch"
                options={units}
                value={values.isIn}
                onChange={(isIn) => set({ isIn })}
                error={errors['isIn']}
              />
            </>
          )}
        </Fields>
        <TextField label={t('note')} value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
        {checked.success && preview ? (
          <Small>
            {t('correction.preview', { hours: preview.hours, impossible: preview.impossible })}{' '}
            {preview.examples
              .map(({ at, before, movesTo, after }) =>
                values.kind === 'clock'
                  ? t('correction.moves', { from: f.moment(at), to: f.moment(movesTo) })
                  : t('correction.becomes', { when: f.moment(at), before: f.number(before, 1), after: f.number(after, 1) }),
              )
              .join(' · ')}
          </Small>
        ) : null}
        <DraftNote entry={entry} />
        <FormError text={entry.general} />
        <Line>
          <Button
            isDisabled={entry.isBarred || !checked.success || preview?.hours === 0}
            onPress={() => void entry.submit(params, input).then((made) => made && onDone())}
          >
            {t('correction.lay')}
          </Button>
          <Button $plain onPress={onDone}>
            {t('cancel')}
          </Button>
        </Line>
      </Stack>
    </Sheet>
  )
}
