import type { Label } from '@bocado/contract'
import { Caution, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'

/** What the label asks, always in view where the product is chosen. */
export function ProductCautions({ product }: { product: Label }) {
  const t = useText()
  const f = useFormat()
  return (
    <Stack $gap={4}>
      <Caution>{t('caution.label')}</Caution>
      {product.bees === 'none-stated' ? null : <Caution>{t(`bees.${product.bees}`)}</Caution>}
      <Small>
        {t('plan.intervals', {
          reEntry: f.number(product.reEntryHours, 1),
          preHarvest: product.preHarvestDays,
          protection: product.protection,
        })}
      </Small>
    </Stack>
  )
}
