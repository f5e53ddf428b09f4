import { endpoints, type TypedClock, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { QuantityField } from '../design/NumberField.js'
import { Fields, Heading, Line, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'

/** Figures that somebody typed for events that nothing else dates, and the line in which another one is typed. */
export function TypedFigures({ forecast, typed }: { forecast: WatchForecast; typed: readonly TypedClock[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [adding, setAdding] = useState(false)
  const { temperature } = f.measures
  if (forecast.named.length === 0) return null
  return (
    <Stack $gap={8}>
      {typed.map((one) => (
        <Line key={one.id} data-testid={`typed-${one.event}`}>
          <span style={{ flex: '1 1 24ch' }}>
            {t('typedFigure.stands', {
              name: one.name,
              heat: f.heat(one.heat),
              lower: `${f.number(temperature.shown(one.lower), 1)} ${temperature.unit}`,
              from: one.startsOn === null ? 'season' : f.shortDate(`${site.season.start.slice(0, 4)}-${one.startsOn}`),
              source: one.source || 'none',
            })}
          </span>
          <RemoveButton
            remove={endpoints.calibration.dropClock}
            restore={endpoints.calibration.restoreClock}
            params={{ siteId: site.id, clockId: one.id }}
            rowVersion={one.rowVersion}
            label={t('typedFigure.dropNamed', { name: one.name })}
            said={t('typedFigure.dropped', { name: one.name })}
          />
        </Line>
      ))}
      {adding ? (
        <TypeFigure forecast={forecast} onDone={() => setAdding(false)} />
      ) : (
        <Line>
          <Button $plain onPress={() => setAdding(true)}>
            {t('typedFigure.add')}
          </Button>
        </Line>
      )}
    </Stack>
  )
}

/** A threshold and one sum, in one line. */
function TypeFigure({ forecast, onDone }: { forecast: WatchForecast; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { temperature, heat } = useFormat().measures
  const entry = useEntry(
    endpoints.calibration.typeClock,
    {
      event: forecast.named[0]?.id ?? '',
      lower: null as number | null,
      heat: null as number | null,
      from: site.season.start as string | null,
      source: '',
    },
    null,
    forecast.watch.id,
  )
  const { bind, errors } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, watchId: forecast.watch.id }, ({ from, lower, heat: sum, ...rest }) => ({
      ...rest,
      lower: lower ?? undefined,
      heat: sum ?? undefined,
      startsOn: from === null || from === site.season.start ? null : from.slice(5),
    }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <Heading as="h3">{t('typedFigure.add')}</Heading>
      <Fields>
        <Select
          label={t('typedFigure.event')}
          placeholder={t('choose')}
          width="26ch"
          options={forecast.named.map(({ id, name }) => ({ id, label: name }))}
          {...bind.choice('event')}
        />
        <QuantityField label={t('typedFigure.heat')} width="14ch" measure={heat} {...bind.number('heat')} />
        <QuantityField label={t('typedFigure.lower')} width="14ch" measure={temperature} {...bind.number('lower')} />
        <DateField label={t('typedFigure.from')} {...bind.day('from')} error={errors['startsOn']} />
        <TextField label={t('typedFigure.source')} hint={t('optional')} width="28ch" {...bind.text('source')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('typedFigure.save')} />
    </Stack>
  )
}
