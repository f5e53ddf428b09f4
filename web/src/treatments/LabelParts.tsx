import { applicationWays, blockKinds, formulations, type Method, type Organism, type Product } from '@bocado/contract'
import { useState } from 'react'
import type { Bindings } from '../api/bindings.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { PERCENT } from '../design/units.js'
import { Several } from '../design/Several.js'
import { Fields, Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/label.js'

/** A label as its form holds it. */
export type ProductValues = {
  name: string
  methods: string[]
  strain: string | null
  active: string
  formulation: Product['formulation']
  ways: Product['ways']
  targets: string[]
  crops: string
  places: Product['places']
  stages: string[]
  effect: number | null
  residualDays: number | null
  labelRate: number | null
  rateUnit: Product['rateUnit'] | null
  reEntryHours: number | null
  preHarvestDays: number | null
  licensedOnly: boolean
  registration: string
  leastIntervalDays: number | null
  mostPerSeason: number | null
  rainFastHours: number | null
  maxWindMs: number | null
  minTempC: number | null
  maxTempC: number | null
  rates: { crop: string; target: string | null; rate: number | null }[]
  mostAmount: number | null
  leastVolume: number | null
  plantBackDays: number | null
  grazingDays: number | null
  carriesOver: boolean
  bufferM: number | null
  bufferLowDriftM: number | null
  actionGroup: string
  notWithin: { method: string; days: number | null }[]
  burns: string
  cropStages: string
  soilMinC: number | null
  orderDays: number | null
  keepsDays: number | null
  mixing: string
  activeGramsPer: number | null
  mostActiveKgHa: number | null
  needsPermit: boolean
  readOn: string | null
  organic: 'yes' | 'no' | null
  bees: Product['bees'] | null
  protection: string
  shared: boolean
}

export interface PartProps {
  values: ProductValues
  set: (changes: Partial<ProductValues>) => void
  errors: Readonly<Record<string, string>>
}

/** Organisms against which any of the methods is known; every one while nobody has said what it is. */
const targetsFor = (organisms: readonly Organism[], methods: readonly string[]): Organism[] =>
  organisms.filter(({ reach }) => methods.length === 0 || reach.some(({ method }) => methods.includes(method)))

/** The stages that any of the methods reaches anywhere; every stage while nobody has said what it is. */
export const stagesFor = (organisms: readonly Organism[], methods: readonly string[]): string[] => [
  ...new Set(
    organisms.flatMap(({ reach }) =>
      reach.filter(({ method }) => methods.length === 0 || methods.includes(method)).flatMap((way) => way.stages),
    ),
  ),
]

/** A share as it is typed. */

/** What the label says of when it may be used: planned days and hours are held against it. */
export function WhenByLabel({ errors, bind }: { errors: Readonly<Record<string, string>>; bind: Bindings<ProductValues> }) {
  const t = useText()
  const { temperature, wind } = useFormat().measures
  const [asked, setOpen] = useState(false)
  const open = asked || WHEN.some((path) => errors[path] !== undefined)
  if (!open)
    return (
      <TextButton aria-expanded={false} onPress={() => setOpen(true)}>
        {t('product.when')}
      </TextButton>
    )
  const days = { width: '17ch', hint: t('product.whenHint') }
  return (
    <Stack role="group" aria-label={t('product.when')}>
      <Fields>
        <NumberField label={t('product.leastInterval')} {...days} unit={t('days')} digits={0} {...bind.number('leastIntervalDays')} />
        <NumberField label={t('product.mostPerSeason')} {...days} digits={0} {...bind.number('mostPerSeason')} />
        <NumberField label={t('product.rainFast')} {...days} unit="h" digits={1} {...bind.number('rainFastHours')} />
      </Fields>
      <Fields>
        <NumberField label={t('product.maxWind')} {...days} unit={wind.unit} digits={1} {...bind.number('maxWindMs', wind)} />
        <NumberField label={t('product.minTemp')} {...days} unit={temperature.unit} digits={1} {...bind.number('minTempC', temperature)} />
        <NumberField label={t('product.maxTemp')} {...days} unit={temperature.unit} digits={1} {...bind.number('maxTempC', temperature)} />
      </Fields>
    </Stack>
  )
}
const WHEN = ['leastIntervalDays', 'mostPerSeason', 'rainFastHours', 'maxWindMs', 'minTempC', 'maxTempC'] as const

/** What else the label says of where, how and against what it may be used. */
export function MoreOfLabel({
  values,
  set,
  errors,
  bind,
  organisms,
}: PartProps & { bind: Bindings<ProductValues>; organisms: readonly Organism[] }) {
  const t = useText()
  const [asked, setOpen] = useState(false)
  // Where something in it is missing or wrong it is open.
  const open = asked || ['stages', 'effect', 'residualDays', 'targets', 'crops', 'places'].some((path) => errors[path] !== undefined)
  const stages = stagesFor(organisms, values.methods)
  const named = <T extends string>(all: readonly T[], label: (id: T) => string) => all.map((id) => ({ id, label: label(id) }))
  if (!open)
    return (
      <TextButton aria-expanded={false} onPress={() => setOpen(true)}>
        {t('product.more')}
      </TextButton>
    )
  const several = {
    placeholder: t('choose'),
    dropWords: (name: string) => t('several.drop', { name }),
  }
  return (
    <Stack>
      <Line>
        <NumberField
          label={t('product.effect')}
          width="20ch"
          unit="%"
          digits={0}
          hint={t('product.guessHint')}
          {...bind.number('effect', PERCENT)}
        />
        <NumberField
          label={t('product.residual')}
          width="20ch"
          unit={t('days')}
          digits={1}
          hint={t('product.guessHint')}
          {...bind.number('residualDays')}
        />
      </Line>
      <Stack $gap={0} role="group" aria-label={t('product.stages')}>
        <Small style={{ fontWeight: 600, color: colour.ink }}>{t('product.stages')}</Small>
        {stages.map((id) => (
          <Checkbox
            key={id}
            label={t(`stage.${id}` as Parameters<typeof t>[0])}
            value={values.stages.includes(id)}
            onChange={(on) => set({ stages: on ? [...values.stages, id] : values.stages.filter((s) => s !== id) })}
          />
        ))}
        {errors['stages'] ? <FormError text={errors['stages']} /> : null}
      </Stack>
      <Several
        {...several}
        label={t('product.targets')}
        hint={t('product.targetsHint')}
        options={targetsFor(organisms, values.methods).map(({ id, name }) => ({ id, label: name }))}
        value={values.targets}
        onChange={(targets) => set({ targets })}
        error={errors['targets']}
      />
      <TextField label={t('product.crops')} hint={t('product.cropsHint')} {...bind.text('crops')} />
      <Several
        {...several}
        label={t('product.places')}
        options={named(blockKinds, (id) => t(`kind.${id}`))}
        value={values.places}
        onChange={(places) => set({ places: places as Product['places'] })}
      />
      <Checkbox label={t('product.licensedOnly')} {...bind.check('licensedOnly')} />
      <Checkbox label={t('label.needsPermit')} {...bind.check('needsPermit')} />
      <TextField label={t('product.registration')} {...bind.text('registration')} />
      <TextField label={t('product.active')} {...bind.text('active')} />
      <Line>
        <Select
          label={t('product.formulation')}
          placeholder={t('choose')}
          width="18ch"
          options={named(formulations, (id) => t(`formulation.${id}`))}
          {...bind.choice('formulation')}
        />
      </Line>
      <Several
        {...several}
        label={t('product.ways')}
        options={named(applicationWays, (id) => t(`use.${id}`))}
        value={values.ways}
        onChange={(ways) => set({ ways: ways as Product['ways'] })}
      />
    </Stack>
  )
}

/** What the label says of rates, of what may not stand near in time or place, and of what follows. */
export function AroundByLabel({
  values,
  set,
  errors,
  bind,
  organisms,
  methods,
}: PartProps & { bind: Bindings<ProductValues>; organisms: readonly Organism[]; methods: readonly Method[] }) {
  const t = useText()
  const { height, temperature } = useFormat().measures
  const [asked, setOpen] = useState(false)
  const open = asked || AROUND.some((path) => Object.keys(errors).some((at) => at.split('.')[0] === path))
  if (!open)
    return (
      <TextButton aria-expanded={false} onPress={() => setOpen(true)}>
        {t('label.around')}
      </TextButton>
    )
  const number = { width: '17ch', hint: t('product.whenHint') }
  const { rates, notWithin } = values
  const unit = values.rateUnit ?? ''
  return (
    <Stack role="group" aria-label={t('label.around')}>
      {rates.map((row, i) => (
        <Fields key={i}>
          <TextField
            label={t('label.rateCrop')}
            width="16ch"
            value={row.crop}
            onChange={(crop) => set({ rates: rates.map((one, k) => (k === i ? { ...one, crop } : one)) })}
            error={errors[`rates.${i}.crop`]}
          />
          <Select
            label={t('label.rateTarget')}
            placeholder={t('label.rateAny')}
            width="20ch"
            options={targetsFor(organisms, values.methods).map(({ id, name }) => ({ id, label: name }))}
            value={row.target}
            onChange={(target) => set({ rates: rates.map((one, k) => (k === i ? { ...one, target } : one)) })}
            error={errors[`rates.${i}.target`]}
          />
          <NumberField
            label={t('label.rateHere')}
            width="14ch"
            unit={unit}
            digits={4}
            value={row.rate}
            onChange={(rate) => set({ rates: rates.map((one, k) => (k === i ? { ...one, rate } : one)) })}
            error={errors[`rates.${i}.rate`]}
          />
          <TextButton aria-label={t('label.dropRate', { nth: i + 1 })} onPress={() => set({ rates: rates.filter((_, k) => k !== i) })}>
            {t('label.drop')}
          </TextButton>
        </Fields>
      ))}
      <TextButton onPress={() => set({ rates: [...rates, { crop: '', target: null, rate: null }] })}>{t('label.addRate')}</TextButton>
      <Fields>
        <NumberField label={t('label.mostAmount')} {...number} unit={unit} digits={4} {...bind.number('mostAmount')} />
        <NumberField label={t('label.leastVolume')} {...number} unit="L/ha" digits={0} {...bind.number('leastVolume')} />
        <NumberField label={t('label.soilMin')} {...number} unit={temperature.unit} digits={1} {...bind.number('soilMinC', temperature)} />
      </Fields>
      <Fields>
        <NumberField label={t('label.buffer')} {...number} unit={height.unit} digits={height.digits} {...bind.number('bufferM', height)} />
        <NumberField
          label={t('label.bufferLowDrift')}
          {...number}
          unit={height.unit}
          digits={height.digits}
          {...bind.number('bufferLowDriftM', height)}
        />
        <TextField label={t('label.group')} {...number} {...bind.text('actionGroup')} />
      </Fields>
      {values.formulation === 'living' ? (
        <Fields>
          <NumberField label={t('label.orderDays')} {...number} unit={t('days')} digits={0} {...bind.number('orderDays')} />
          <NumberField label={t('label.keepsDays')} {...number} unit={t('days')} digits={0} {...bind.number('keepsDays')} />
        </Fields>
      ) : null}
      <Fields>
        <NumberField label={t('label.plantBack')} {...number} unit={t('days')} digits={0} {...bind.number('plantBackDays')} />
        <NumberField label={t('label.grazing')} {...number} unit={t('days')} digits={0} {...bind.number('grazingDays')} />
      </Fields>
      <Checkbox label={t('label.carriesOver')} {...bind.check('carriesOver')} />
      {notWithin.map((row, i) => (
        <Fields key={i}>
          <Select
            label={t('label.notWithin')}
            placeholder={t('choose')}
            width="24ch"
            options={methods.map(({ id, name }) => ({ id, label: name }))}
            value={row.method === '' ? null : row.method}
            onChange={(method) => set({ notWithin: notWithin.map((one, k) => (k === i ? { ...one, method } : one)) })}
            error={errors[`notWithin.${i}.method`]}
          />
          <NumberField
            label={t('label.notWithinDays')}
            width="12ch"
            unit={t('days')}
            digits={0}
            value={row.days}
            onChange={(days) => set({ notWithin: notWithin.map((one, k) => (k === i ? { ...one, days } : one)) })}
            error={errors[`notWithin.${i}.days`]}
          />
          <TextButton
            aria-label={t('label.dropApart', { nth: i + 1 })}
            onPress={() => set({ notWithin: notWithin.filter((_, k) => k !== i) })}
          >
            {t('label.drop')}
          </TextButton>
        </Fields>
      ))}
      <TextButton onPress={() => set({ notWithin: [...notWithin, { method: '', days: null }] })}>{t('label.addApart')}</TextButton>
      <TextField label={t('label.burns')} hint={t('label.burnsHint')} {...bind.text('burns')} error={listError(errors, 'burns')} />
      <TextField label={t('label.cropStages')} {...bind.text('cropStages')} />
      <TextField label={t('label.mixing')} hint={t('label.mixingHint')} {...bind.text('mixing')} />
      <Fields>
        <NumberField label={t('label.activeGrams')} {...number} unit="g/L, g/kg" digits={2} {...bind.number('activeGramsPer')} />
        <NumberField label={t('label.mostActive')} {...number} unit="kg/ha" digits={2} {...bind.number('mostActiveKgHa')} />
        <DateField label={t('label.readOn')} {...bind.day('readOn')} />
      </Fields>
      <Select
        label={t('label.organic')}
        placeholder={t('label.organic.notSaid')}
        width="24ch"
        options={(['yes', 'no'] as const).map((id) => ({ id, label: t(`label.organic.${id}`) }))}
        {...bind.choice('organic')}
      />
    </Stack>
  )
}
const AROUND = [
  'rates',
  'mostAmount',
  'leastVolume',
  'soilMinC',
  'orderDays',
  'keepsDays',
  'bufferM',
  'bufferLowDriftM',
  'actionGroup',
  'plantBackDays',
  'grazingDays',
  'notWithin',
  'burns',
  'cropStages',
  'organic',
  'mixing',
  'activeGramsPer',
  'mostActiveKgHa',
  'readOn',
]

/** What is wrong with any entry of a list that is typed in one line. */
const listError = (errors: Readonly<Record<string, string>>, path: string): string | undefined =>
  errors[path] ?? Object.entries(errors).find(([at]) => at.startsWith(`${path}.`))?.[1]
