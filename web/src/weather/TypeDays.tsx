import { endpoints, type Station } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { dayOf } from '../design/moments.js'
import { Caution, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'

interface TypedDay {
  day: string
  min: number
  max: number
  rain: number | null
}

/** One line: a day, minimum, maximum and rain if there was any. The text says what is wrong with it. */
function readLine(line: string, f: Format, t: Say): TypedDay | string {
  const words = line.trim().split(/[\s,;]+/)
  const numbers: number[] = []
  while (words.length > 1 && numbers.length < 3 && /^[+-]?\d+([.]\d+)?$/.test(words.at(-1) ?? '')) {
    // The year of a date such as "12 Jun 2026" is no temperature.
    if (dayOf(words.join(' ')) !== null) break
    numbers.unshift(Number(words.pop()))
  }
  const text = words.join(' ')
  const day = dayOf(text)
  if (day === null) return t('typed.noDate', { text })
  const [min, max, rain] = numbers
  if (min === undefined || max === undefined) return t('typed.noNumbers')
  const { temperature, rain: rainMeasure } = f.measures
  return {
    day,
    min: temperature.stored(min),
    max: temperature.stored(max),
    rain: rain === undefined ? null : rainMeasure.stored(rain),
  }
}

/** Daily extremes typed by hand, a day a line. */
export function TypeDays({ station }: { station: Station }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const entry = useEntry(endpoints.weather.typeDays, { text: '' })
  const [stored, setStored] = useState<string | null>(null)
  const lines = entry.values.text
    .split('\n')
    .map((line, i) => ({ number: i + 1, line }))
    .filter(({ line }) => line.trim() !== '')
    .map(({ number, line }) => ({ number, read: readLine(line, f, t) }))
  const wrong = lines.flatMap(({ number, read }) => (typeof read === 'string' ? [{ number, read }] : []))
  const days = lines.flatMap(({ read }) => (typeof read === 'string' ? [] : [read]))
  const refused = Object.entries(entry.errors).map(([path, message]) => ({
    number: lines[Number(path.split('.')[1])]?.number ?? 0,
    read: message,
  }))
  const save = async (): Promise<void> => {
    setStored(null)
    const result = await entry.submit({ siteId: site.id, stationId: station.id }, () => ({ days }))
    if (!result) return
    setStored(t('typed.stored', { new: result.new, changed: result.changed, unchanged: result.unchanged }))
    entry.setValues({ text: '' })
  }
  return (
    <Stack>
      <Heading>{t('typed.title')}</Heading>
      <TextField
        label={t('typed.label')}
        rows={6}
        value={entry.values.text}
        onChange={(text) => entry.set({ text })}
        hint={t('typed.hint', { temperature: f.measures.temperature.unit, rain: f.measures.rain.unit })}
      />
      {[...wrong, ...refused].map(({ number, read }) => (
        <Caution key={`${number}${read}`} role="alert">
          {t('typed.line', { number, problem: read })}
        </Caution>
      ))}
      {wrong.length === 0 && days.length > 0 ? (
        <Small>
          {days
            .slice(0, 3)
            .map((d) =>
              t('typed.understood', {
                date: f.date(d.day),
                min: f.temperature(d.min),
                max: f.temperature(d.max),
                rain: d.rain === null ? t('typed.noRain') : f.rain(d.rain),
              }),
            )
            .join(' · ')}
          {days.length > 3 ? t('typed.more', { count: days.length - 3 }) : ''}
        </Small>
      ) : null}
      <FormError text={entry.general} />
      <Line>
        <Button isDisabled={entry.isSaving || wrong.length > 0 || days.length === 0} onPress={() => void save()}>
          {t('typed.save', { count: days.length })}
        </Button>
        <span role="status">{stored}</span>
      </Line>
    </Stack>
  )
}
