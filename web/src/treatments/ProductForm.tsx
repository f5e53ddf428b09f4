import { beeHazards, endpoints, type Method, type Product } from '@bocado/contract'
import { useOrganisms, useProducts, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { FormError } from '../design/FormError.js'
import { Several } from '../design/Several.js'
import { Caution, Line, Sheet, Stack } from '../design/text.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import { useText } from '../messages/useText.js'
import { AroundByLabel, MoreOfLabel, stagesFor, WhenByLabel, type PartProps, type ProductValues } from './LabelParts.js'
import { rateUnitsFor, usualUnit } from './rates.js'

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
    rates: product?.rates ?? [],
    mostAmount: product?.mostAmount ?? null,
    leastVolume: product?.leastVolume ?? null,
    plantBackDays: product?.plantBackDays ?? null,
    grazingDays: product?.grazingDays ?? null,
    carriesOver: product?.carriesOver ?? false,
    bufferM: product?.bufferM ?? null,
    bufferLowDriftM: product?.bufferLowDriftM ?? null,
    actionGroup: product?.actionGroup ?? '',
    notWithin: product?.notWithin ?? [],
    burns: product?.burns.join(', ') ?? '',
    cropStages: product?.cropStages ?? '',
    soilMinC: product?.soilMinC ?? null,
    orderDays: product?.orderDays ?? null,
    keepsDays: product?.keepsDays ?? null,
    mixing: product?.mixing ?? '',
    activeGramsPer: product?.activeGramsPer ?? null,
    mostActiveKgHa: product?.mostActiveKgHa ?? null,
    needsPermit: product?.needsPermit ?? false,
    readOn: product ? product.readOn : site.today,
    organic: product?.organic == null ? null : product.organic ? 'yes' : 'no',
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
    const listed = (line: string): string[] => line.split(/[,;\n]/).flatMap((one) => one.trim() || [])
    const typed = ({ crops, burns, organic, ...rest }: typeof values) => ({
      ...Object.fromEntries(Object.entries(rest).map(([name, value]) => [name, value ?? undefined])),
      crops: listed(crops),
      burns: listed(burns),
      organic: organic === null ? null : organic === 'yes',
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
        <AroundByLabel values={values} set={set} errors={errors} bind={bind} organisms={organisms} methods={methods} />
        <MoreOfLabel values={values} set={set} errors={errors} bind={bind} organisms={organisms} />
        <SharedCheckbox bound={bind.check('shared')} />
        <FormError text={errors['shared'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

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
