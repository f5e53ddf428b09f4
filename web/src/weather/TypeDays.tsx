import { endpoints, type Station } from '@bocado/contract'
import { dayOrderOf, writtenDay, type DayOrder } from '@bocado/core/time'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { DayOrderChoice } from '../design/DayOrderChoice.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'

interface TypedDay {
  day: string
  min: number
  max: number
  rain: number | null
}

/** Numbers of a line, with a point or a comma for decimals; undefined where something in it is none. */
function numbersOf(text: string): number[] | undefined {
  const words = text.trim().split(/[\s;|]+/)
  // A comma alone stands between numbers; where blanks do, it is for decimals.
  const cells = words.length === 1 ? (words[0] ?? '').split(',') : words.map((word) => word.replace(/,$/, '').replace(',', '.'))
  const numbers = cells
    .filter((cell) => cell !== '')
    .map((cell) => (/^[+−-]?(\d+\.?\d*|\.\d+)$/.test(cell) ? Number(cell.replace('−', '-')) : NaN))
  return numbers.some(Number.isNaN) ? undefined : numbers
}

/** One line: a day, minimum, maximum and rain if there was any. The text says what is wrong with it. */
function readLine(line: string, order: DayOrder | null, f: Format, t: Say): TypedDay | string {
  const written = writtenDay(line, order)
  if (!written)
    return t('typed.noDate', {
      text:
        line
          .replace(/[\d\s.,;:+−-]*$/, '')
          .trim()
          .slice(0, 30) || line.trim().slice(0, 30),
    })
  const numbers = numbersOf(`${line.slice(0, written.start)} ${line.slice(written.end).replace(/^[\s,;:|]+/, '')}`)
  const [min, max, rain, more] = numbers ?? []
  if (min === undefined || max === undefined || more !== undefined) return t('typed.noNumbers')
  const { temperature, rain: rainMeasure } = f.measures
  return {
    day: written.day,
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
  const entry = useEntry(endpoints.weather.typeDays, { text: '' }, null, station.id)
  const [stored, setStored] = useState<string | null>(null)
  const written = entry.values.text.split('\n')
  const told = dayOrderOf(written)
  const [chosen, setChosen] = useState<DayOrder | null>(null)
  const order = told ?? chosen
  const unclear = told === null ? written.find((line) => writtenDay(line)?.orElse !== undefined) : undefined
  const example = unclear && unclear.slice(writtenDay(unclear)?.start, writtenDay(unclear)?.end)
  const lines = written
    .map((line, i) => ({ number: i + 1, line }))
    .filter(({ line }) => line.trim() !== '')
    .map(({ number, line }) => ({ number, read: readLine(line, order, f, t) }))
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
      {example ? <DayOrderChoice example={example} value={chosen} onChange={setChosen} /> : null}
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
      <DraftNote entry={entry} />
      <FormError text={entry.general} />
      <Line>
        <Button
          isDisabled={entry.isBarred || wrong.length > 0 || days.length === 0 || (example !== undefined && order === null)}
          onPress={() => void save()}
        >
          {t('typed.save', { count: days.length })}
        </Button>
        <span role="status">{stored}</span>
      </Line>
    </Stack>
  )
}
