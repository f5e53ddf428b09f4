import { beeHazards, endpoints, productKinds, rateUnits, type Product } from '@bocado/contract'
import { useOrganisms } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { FormError } from '../design/FormError.js'
import { Line, Sheet, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import { useText } from '../messages/useText.js'

/** A share as it is typed. */
const PERCENT = { shown: (share: number) => share * 100, stored: (percent: number) => percent / 100 }

/** A product on the shelf, by the numbers of its own label: asked for, never guessed. */
export function ProductForm({ product, onDone }: { product?: Product; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: organisms = [] } = useOrganisms()
  const initial = {
    name: product?.name ?? '',
    kind: product?.kind ?? (null as Product['kind'] | null),
    stages: product?.stages ?? ([] as string[]),
    effect: product?.effect ?? (null as number | null),
    residualDays: product?.residualDays ?? (null as number | null),
    labelRate: product?.labelRate ?? (null as number | null),
    rateUnit: product?.rateUnit ?? (null as Product['rateUnit'] | null),
    reEntryHours: product?.reEntryHours ?? (null as number | null),
    preHarvestDays: product?.preHarvestDays ?? (null as number | null),
    bees: product?.bees ?? (null as Product['bees'] | null),
    protection: product?.protection ?? '',
    shared: product?.shared ?? false,
  }
  const create = useEntry(endpoints.treatments.addProduct, initial, null, product ? undefined : site.id)
  const update = useEntry(endpoints.treatments.updateProduct, initial, product, product?.id)
  const entry = product ? update : create
  const { values, bind, set, errors } = entry
  const stages = [...new Set(organisms.flatMap((o) => o.stages.filter(({ reachable }) => reachable).map(({ id }) => id)))]
  const save = async (): Promise<void> => {
    const typed = Object.fromEntries(Object.entries(values).map(([name, value]) => [name, value ?? undefined]))
    const saved = product
      ? await update.submit({ siteId: site.id, productId: product.id }, (_, rowVersion) => ({ ...typed, rowVersion }))
      : await create.submit({ siteId: site.id }, () => typed)
    if (saved) onDone()
  }
  const choice = <T extends string>(all: readonly T[], prefix: string) =>
    all.map((id) => ({ id, label: t(`${prefix}.${id}` as Parameters<typeof t>[0]) }))
  return (
    <Sheet>
      <Stack>
        <TextField label={t('product.name')} {...bind.text('name')} />
        <Select
          label={t('product.kind')}
          placeholder={t('choose')}
          options={choice(productKinds, 'productKind')}
          {...bind.choice('kind')}
        />
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
        <Line>
          <NumberField label={t('product.effect')} width="15ch" unit="%" digits={0} {...bind.number('effect', PERCENT)} />
          <NumberField label={t('product.residual')} width="18ch" unit={t('days')} digits={1} {...bind.number('residualDays')} />
        </Line>
        <Line>
          <NumberField label={t('product.rate')} width="15ch" digits={4} {...bind.number('labelRate')} />
          <Select
            label={t('product.rateUnit')}
            placeholder={t('choose')}
            width="14ch"
            options={rateUnits.map((unit) => ({ id: unit, label: unit }))}
            {...bind.choice('rateUnit')}
          />
        </Line>
        <Line>
          <NumberField label={t('product.reEntry')} width="16ch" unit="h" digits={1} {...bind.number('reEntryHours')} />
          <NumberField label={t('product.preHarvest')} width="16ch" unit={t('days')} digits={0} {...bind.number('preHarvestDays')} />
        </Line>
        <Select label={t('product.bees')} placeholder={t('choose')} options={choice(beeHazards, 'bees')} {...bind.choice('bees')} />
        <TextField label={t('product.protection')} {...bind.text('protection')} />
        <SharedCheckbox bound={bind.check('shared')} />
        <FormError text={errors['shared'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
