import { beeHazards, endpoints, productKinds, rateUnits, type Product } from '@bocado/contract'
import { useOrganisms } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, Checkbox, Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Line, Sheet, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'

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
  }
  const create = useEntry(endpoints.treatments.addProduct, initial, null, product ? undefined : site.id)
  const update = useEntry(endpoints.treatments.updateProduct, initial, product, product?.id)
  const entry = product ? update : create
  const { values, set, errors } = entry
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
        <TextField label={t('product.name')} value={values.name} onChange={(name) => set({ name })} error={errors['name']} />
        <Select
          label={t('product.kind')}
          placeholder={t('choose')}
          options={choice(productKinds, 'productKind')}
          value={values.kind}
          onChange={(kind) => set({ kind: kind as Product['kind'] })}
          error={errors['kind']}
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
          <NumberField
            label={t('product.effect')}
            width="15ch"
            unit="%"
            digits={0}
            value={values.effect === null ? null : values.effect * 100}
            onChange={(percent) => set({ effect: percent === null ? null : percent / 100 })}
            error={errors['effect']}
          />
          <NumberField
            label={t('product.residual')}
            width="18ch"
            unit={t('days')}
            digits={1}
            value={values.residualDays}
            onChange={(residualDays) => set({ residualDays })}
            error={errors['residualDays']}
          />
        </Line>
        <Line>
          <NumberField
            label={t('product.rate')}
            width="15ch"
            digits={4}
            value={values.labelRate}
            onChange={(labelRate) => set({ labelRate })}
            error={errors['labelRate']}
          />
          <Select
            label={t('product.rateUnit')}
            placeholder={t('choose')}
            width="14ch"
            options={rateUnits.map((unit) => ({ id: unit, label: unit }))}
            value={values.rateUnit}
            onChange={(rateUnit) => set({ rateUnit: rateUnit as Product['rateUnit'] })}
            error={errors['rateUnit']}
          />
        </Line>
        <Line>
          <NumberField
            label={t('product.reEntry')}
            width="16ch"
            unit="h"
            digits={1}
            value={values.reEntryHours}
            onChange={(reEntryHours) => set({ reEntryHours })}
            error={errors['reEntryHours']}
          />
          <NumberField
            label={t('product.preHarvest')}
            width="16ch"
            unit={t('days')}
            digits={0}
            value={values.preHarvestDays}
            onChange={(preHarvestDays) => set({ preHarvestDays })}
            error={errors['preHarvestDays']}
          />
        </Line>
        <Select
          label={t('product.bees')}
          placeholder={t('choose')}
          options={choice(beeHazards, 'bees')}
          value={values.bees}
          onChange={(bees) => set({ bees: bees as Product['bees'] })}
          error={errors['bees']}
        />
        <TextField
          label={t('product.protection')}
          value={values.protection}
          onChange={(protection) => set({ protection })}
          error={errors['protection']}
        />
        <DraftNote entry={entry} />
        <FormError text={entry.general} />
        <Line>
          <Button onPress={() => void save()} isDisabled={entry.isSaving}>
            {t('save')}
          </Button>
          <Button
            $plain
            onPress={() => {
              entry.discard()
              onDone()
            }}
          >
            {t('cancel')}
          </Button>
        </Line>
      </Stack>
    </Sheet>
  )
}
