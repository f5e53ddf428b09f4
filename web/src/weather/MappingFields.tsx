import { inHours, inMinutes } from '@bocado/core/time'
import {
  clocks,
  dateOrders,
  separators,
  stamps,
  unitsOf,
  weatherVariables,
  type FilePreview,
  type WeatherMapping,
  type WeatherVariable,
  type Written,
} from '@bocado/contract'
import { Select } from '../design/controls.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Line } from '../design/text.js'
import { useText, type Say } from '../messages/useText.js'

interface Props {
  preview: FilePreview
  onChange: (mapping: WeatherMapping) => void
  /** What was said of how the file is written, from which the rest is to be guessed again. */
  onWritten: (written: Written) => void
}

const NONE = 'none'

/** Everything that was guessed about a file, each to be changed. */
export function MappingFields({ preview, onChange, onWritten }: Props) {
  const t = useText()
  const { mapping, columns } = preview
  const set = (changes: Partial<WeatherMapping>): void => onChange({ ...mapping, ...changes })
  const columnOptions = columns.map(({ index, name, samples }) => ({
    id: String(index),
    label: name || t('import.column', { number: index + 1, sample: samples[0] ?? '' }),
  }))
  const wanted = weatherVariables.filter((v) =>
    mapping.interval === 'daily' ? ['min', 'max', 'rain'].includes(v) : v !== 'min' && v !== 'max',
  )
  return (
    <>
      <Line>
        <Select
          label={t('import.separator')}
          placeholder=""
          width="16ch"
          options={separators.map((s) => ({ id: s, label: t(`separator.${SEPARATOR_NAMES[s]}`) }))}
          value={mapping.separator}
          onChange={(s) => onWritten({ separator: s as WeatherMapping['separator'] })}
        />
        <Select
          label={t('import.decimal')}
          placeholder=""
          width="14ch"
          options={[
            { id: '.', label: t('decimal.point') },
            { id: ',', label: t('decimal.comma') },
          ]}
          value={mapping.decimal}
          onChange={(d) => set({ decimal: d as '.' | ',' })}
        />
        <NumberField
          label={t('import.headerLines')}
          width="13ch"
          digits={0}
          least={0}
          value={mapping.headerLines}
          onChange={(n) => onWritten({ separator: mapping.separator, headerLines: readable(n) ?? 0 })}
        />
        <Select
          label={t('import.interval')}
          placeholder=""
          width="16ch"
          options={[
            { id: 'hourly', label: t('interval.hourly') },
            { id: 'daily', label: t('interval.daily') },
          ]}
          value={mapping.interval}
          onChange={(interval) =>
            set({
              interval: interval as WeatherMapping['interval'],
              columns: mapping.columns.filter(({ variable }) =>
                interval === 'daily' ? ['min', 'max', 'rain'].includes(variable) : variable !== 'min' && variable !== 'max',
              ),
            })
          }
        />
      </Line>
      <Line>
        <Select
          label={t('import.dateColumn')}
          placeholder=""
          width="22ch"
          options={columnOptions}
          value={String(mapping.dateColumn)}
          onChange={(c) => set({ dateColumn: Number(c) })}
        />
        <Select
          label={t('import.timeColumn')}
          placeholder=""
          width="22ch"
          options={[{ id: NONE, label: t('import.withDate') }, ...columnOptions]}
          value={mapping.timeColumn === null ? NONE : String(mapping.timeColumn)}
          onChange={(c) => set({ timeColumn: c === NONE ? null : Number(c) })}
        />
        <Select
          label={t('import.dateOrder')}
          placeholder={t('choose')}
          width="24ch"
          options={dateOrders.map((order) => ({ id: order, label: t(`dateOrder.${order}`) }))}
          value={mapping.dateOrder}
          onChange={(order) => set({ dateOrder: order as WeatherMapping['dateOrder'] })}
        />
        {mapping.interval === 'hourly' ? (
          <>
            <Select
              label={t('import.clock')}
              placeholder=""
              width="34ch"
              options={clocks.map((clock) => ({ id: clock, label: t(`clock.${clock}`) }))}
              value={mapping.clock}
              onChange={(clock) => set({ clock: clock as WeatherMapping['clock'] })}
            />
            {mapping.clock === 'fixed' ? (
              <NumberField
                label={t('import.offset')}
                width="13ch"
                digits={2}
                unit="h"
                value={mapping.offsetMinutes === null ? null : inHours(mapping.offsetMinutes)}
                onChange={(h) => set({ offsetMinutes: readable(h) === null ? null : inMinutes(h ?? 0) })}
              />
            ) : null}
            <Select
              label={t('import.stamp')}
              placeholder=""
              width="24ch"
              options={stamps.map((stamp) => ({ id: stamp, label: t(`stamp.${stamp}`) }))}
              value={mapping.stamp}
              onChange={(stamp) => set({ stamp: stamp as WeatherMapping['stamp'] })}
            />
          </>
        ) : null}
      </Line>
      <Line>
        {wanted.map((variable) => (
          <VariableColumn
            key={variable}
            variable={variable}
            mapping={mapping}
            options={columnOptions}
            unitOf={(column) => preview.columns.find(({ index }) => index === column)?.units[variable]}
            onChange={(next) => set({ columns: next })}
          />
        ))}
      </Line>
    </>
  )
}

const SEPARATOR_NAMES = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' } as const

interface VariableProps {
  variable: WeatherVariable
  mapping: WeatherMapping
  options: readonly { id: string; label: string }[]
  /** The likely unit of a column, should it hold this variable. */
  unitOf: (column: number) => string | undefined
  onChange: (columns: WeatherMapping['columns']) => void
}

/** Minimum and maximum of a day: one thermometer, one unit. */
const ofOneDay = (a: WeatherVariable, b: WeatherVariable): boolean => (a === 'min' && b === 'max') || (a === 'max' && b === 'min')

/** A unit as it is written; of the compass the letters for its four points. */
const unitLabel = (unit: string, t: Say): string => (unit === 'deg' ? t('import.degrees') : /^[CF]/.test(unit) ? `°${unit}` : unit)

/** The column of one variable, and its unit. */
function VariableColumn({ variable, mapping, options, unitOf, onChange }: VariableProps) {
  const t = useText()
  const mapped = mapping.columns.find((c) => c.variable === variable)
  const units = unitsOf[variable]
  const others = mapping.columns.filter((c) => c.variable !== variable)
  return (
    <Line $gap={4}>
      <Select
        label={t(`variable.${variable}`)}
        placeholder=""
        width="20ch"
        options={[{ id: NONE, label: t('import.notInFile') }, ...options]}
        value={mapped ? String(mapped.column) : NONE}
        onChange={(c) => onChange(c === NONE ? others : [...others, { variable, column: Number(c), unit: unitOf(Number(c)) ?? units[0] }])}
      />
      {mapped && units.length > 1 ? (
        <Select
          label={t('import.unit', { variable: t(`variable.${variable}`) })}
          hideLabel
          placeholder=""
          width="9ch"
          options={units.map((unit) => ({ id: unit, label: unitLabel(unit, t) }))}
          value={mapped.unit}
          onChange={(unit) =>
            onChange([...others.map((other) => (ofOneDay(variable, other.variable) ? { ...other, unit } : other)), { ...mapped, unit }])
          }
        />
      ) : null}
    </Line>
  )
}
