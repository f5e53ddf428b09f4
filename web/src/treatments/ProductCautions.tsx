import type { Label } from '@bocado/contract'
import { Caution, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/field.js'
import '../messages/en/label.js'
import '../messages/en/plan.js'

/** What the label asks, always in view where the product is chosen. */
export function ProductCautions({ product, date = null }: { product: Label; date?: string | null }) {
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
        })}{' '}
        <LabelSays product={product} date={date} />
      </Small>
    </Stack>
  )
}

/** What else its label asks, as far as it was typed. */
function LabelSays({ product, date }: { product: Label; date: string | null }) {
  const t = useText()
  const f = useFormat()
  const { leastVolume, bufferM, bufferLowDriftM, plantBackDays, grazingDays, carriesOver, cropStages, actionGroup } = product
  const after = (days: number): string => (date === null ? t('label.after', { days }) : f.date(f.nudge(date, days)))
  const said = [
    leastVolume === null ? '' : t('label.water', { volume: leastVolume }),
    bufferM === null
      ? ''
      : t('label.keep', { away: f.height(bufferM), lowDrift: bufferLowDriftM === null ? 'none' : f.height(bufferLowDriftM) }),
    cropStages === '' ? '' : t('label.stagesOf', { stages: cropStages }),
    plantBackDays === null ? '' : t('label.sow', { date: after(plantBackDays) }),
    grazingDays === null ? '' : t('label.graze', { date: after(grazingDays) }),
    carriesOver ? t('label.carry') : '',
    actionGroup === '' ? '' : t('label.groupIs', { group: actionGroup }),
  ]
  return <>{said.filter(Boolean).join(' ')}</>
}
