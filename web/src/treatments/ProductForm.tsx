import {
  applicationWays,
  beeHazards,
  blockKinds,
  endpoints,
  formulations,
  type Method,
  type Organism,
  type Product,
} from '@bocado/contract'
import { useState } from 'react'
import type { Bindings } from '../api/bindings.js'
import { useOrganisms, useProducts, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { FormError } from '../design/FormError.js'
import { Several } from '../design/Several.js'
import { Caution, Fields, Line, Sheet, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { rateUnitsFor, usualUnit } from './rates.js'

/** A share as it is typed. */
const PERCENT = { shown: (share: number) => share * 100, stored: (percent: number) => percent / 100 }

/** A product on the shelf, by the numbers of its own label: asked for, never guessed. */
export function ProductForm({ product, onDone }: { product?: Product; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: organisms = [] } = useOrganisms()
  const { data: shelf = [] } = useProducts(site.id)
  const initial: ProductValues = {
    name: product?.name ?? '',
    methods: product?.methods ?? ([] as string[]),
    strain: product?.strain ?? (null as string | null),
    active: product?.active ?? '',
    formulation: product?.formulation ?? (null as Product['formulation']),
    ways: product?.ways ?? ([] as Product['ways']),
    targets: product?.targets ?? ([] as string[]),
    crops: product?.crops.join(', ') ?? '',
    places: product?.places ?? ([] as Product['places']),
    stages: product?.stages ?? ([] as string[]),
    effect: product && !product.assumed.includes('effect') ? product.effect : null,
    residualDays: product && !product.assumed.includes('residualDays') ? product.residualDays : null,
    labelRate: product?.labelRate ?? (null as number | null),
    // Labels of one country are written alike: the usual unit stands there to be changed.
    rateUnit: product?.rateUnit ?? usualUnit(shelf),
    reEntryHours: product?.reEntryHours ?? (null as number | null),
    preHarvestDays: product?.preHarvestDays ?? (null as number | null),
    licensedOnly: product?.licensedOnly ?? false,
    registration: product?.registration ?? '',
    leastIntervalDays: product?.leastIntervalDays ?? (null as number | null),
    mostPerSeason: product?.mostPerSeason ?? (null as number | null),
    rainFastHours: product?.rainFastHours ?? (null as number | null),
    maxWindMs: product?.maxWindMs ?? (null as number | null),
    minTempC: product?.minTempC ?? (null as number | null),
    maxTempC: product?.maxTempC ?? (null as number | null),
    bees: product?.bees ?? (null as Product['bees'] | null),
    protection: product?.protection ?? '',
    shared: product?.shared ?? false,
  }
  const create = useEntry(endpoints.treatments.addProduct, initial, null, product ? undefined : site.id)
  const update = useEntry(endpoints.treatments.updateProduct, initial, product, product?.id)
  const entry = product ? update : create
  const { values, bind, set, errors } = entry
  const { data: methods = [] } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  const save = async (): Promise<void> => {
    const typed = ({ crops, ...rest }: typeof values) => ({
      ...Object.fromEntries(Object.entries(rest).map(([name, value]) => [name, value ?? undefined])),
      crops: crops.split(/[,;\n]/).flatMap((crop) => crop.trim() || []),
    })
    const saved = product
      ? await update.submit({ siteId: site.id, productId: product.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await create.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  const choice = <T extends string>(all: readonly T[], prefix: string) =>
    all.map((id) => ({ id, label: t(`${prefix}.${id}` as Parameters<typeof t>[0]) }))
  return (
    <Sheet>
      <Stack>
        <WhatItIs
          values={values}
          // What follows from what it is stands there already: the stages that it reaches, and a name to type over.
          set={(changes) => {
            const chosen = changes.methods
            if (!chosen || product) return set(changes)
            const first = methods.find(({ id }) => id === chosen[0])
            const named = methods.some(({ name }) => name === values.name) || values.name === ''
            set({ ...changes, stages: stagesFor(organisms, chosen), ...(named ? { name: first?.name ?? '' } : {}) })
          }}
          errors={errors}
          methods={methods.filter(({ product: hasLabel }) => hasLabel)}
        />
        <TextField label={t('product.name')} {...bind.text('name')} />
        {product && values.methods.length === 0 ? (
          <Caution>{t('product.unmapped', { before: product.kindBefore ?? 'none' })}</Caution>
        ) : null}
        <Line>
          <NumberField label={t('product.rate')} width="15ch" digits={4} {...bind.number('labelRate')} />
          <Select
            label={t('product.rateUnit')}
            placeholder={t('choose')}
            width="14ch"
            options={rateUnitsFor(site).map((unit) => ({ id: unit, label: unit }))}
            {...bind.choice('rateUnit')}
          />
        </Line>
        <Line>
          <NumberField label={t('product.reEntry')} width="16ch" unit="h" digits={1} {...bind.number('reEntryHours')} />
          <NumberField label={t('product.preHarvest')} width="16ch" unit={t('days')} digits={0} {...bind.number('preHarvestDays')} />
        </Line>
        <Select label={t('product.bees')} placeholder={t('choose')} options={choice(beeHazards, 'bees')} {...bind.choice('bees')} />
        <TextField label={t('product.protection')} {...bind.text('protection')} />
        <WhenByLabel errors={errors} bind={bind} />
        <MoreOfLabel values={values} set={set} errors={errors} bind={bind} organisms={organisms} />
        <SharedCheckbox bound={bind.check('shared')} />
        <FormError text={errors['shared'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

type ProductValues = {
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
  bees: Product['bees'] | null
  protection: string
  shared: boolean
}

interface PartProps {
  values: ProductValues
  set: (changes: Partial<ProductValues>) => void
  errors: Readonly<Record<string, string>>
}

/** Organisms against which any of the methods is known; every one while nobody has said what it is. */
const targetsFor = (organisms: readonly Organism[], methods: readonly string[]): Organism[] =>
  organisms.filter(({ reach }) => methods.length === 0 || reach.some(({ method }) => methods.includes(method)))

/** The stages that any of the methods reaches anywhere; every stage while nobody has said what it is. */
const stagesFor = (organisms: readonly Organism[], methods: readonly string[]): string[] => [
  ...new Set(
    organisms.flatMap(({ reach }) =>
      reach.filter(({ method }) => methods.length === 0 || methods.includes(method)).flatMap((way) => way.stages),
    ),
  ),
]

/** What it is, by the methods of the library, and of which strain. */
function WhatItIs({ values, set, errors, methods }: PartProps & { methods: readonly Method[] }) {
  const t = useText()
  const strains = methods.filter(({ id }) => values.methods.includes(id)).flatMap((method) => method.strains)
  return (
    <>
      <Several
        label={t('product.methods')}
        placeholder={t(values.methods.length === 0 ? 'choose' : 'product.alsoIs')}
        options={methods.map(({ id, name }) => ({ id, label: name }))}
        value={values.methods}
        onChange={(chosen) => set({ methods: chosen, strain: null })}
        dropWords={(name) => t('several.drop', { name })}
        error={errors['methods']}
      />
      {strains.length > 0 ? (
        <Select
          label={t('product.strain')}
          placeholder={t('choose')}
          options={strains.map(({ id, name }) => ({ id, label: name }))}
          value={values.strain}
          onChange={(strain) => set({ strain })}
          error={errors['strain']}
        />
      ) : null}
    </>
  )
}

/** What the label says of when it may be used: planned days and hours are held against it. */
function WhenByLabel({ errors, bind }: { errors: Readonly<Record<string, string>>; bind: Bindings<ProductValues> }) {
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
function MoreOfLabel({
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
