import { endpoints, type Product } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { whichAssumed } from '../band/means.js'
import { Explained } from '../design/Explained.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'
import { useAsked } from '../shell/useAsked.js'
import { Lots } from './Lots.js'
import { ShelfFile } from './ShelfFile.js'
import '../messages/en/equipment.js'
import '../messages/en/work.js'

const forms = later(() => import('./forms.js'))
const ProductForm = partLater(async () => (await forms()).ProductForm)

/** What stands on the shelf, by its labels, with its lots; it can be taken along to another site, and taken in from there. */
export function Shelf({ products }: { products: readonly Product[] }) {
  const t = useText()
  const f = useFormat()
  const [open, setOpen] = useState<string | null>(null)
  const { data: lots = [] } = useRead(endpoints.equipment.lots, { params: { siteId: useSite().id }, input: {} })
  useAsked('product', () => setOpen('new'))
  return (
    <Stack>
      <Heading>{t('shelf.title')}</Heading>
      <Caution>{t('caution.label')}</Caution>
      <Rows>
        {products.map((product) => (
          <li key={product.id} data-at={`product ${product.id}`} tabIndex={-1}>
            {open === product.id ? (
              <ProductForm product={product} onDone={() => setOpen(null)} />
            ) : (
              <>
                <b>{product.name}</b>{' '}
                <TextButton aria-label={t('shelf.editNamed', { name: product.name })} onPress={() => setOpen(product.id)}>
                  {t('edit')}
                </TextButton>
                <Small>
                  <Explained>
                    {t('shelf.label', {
                      rate: f.number(product.labelRate, 3),
                      unit: product.rateUnit,
                      reEntry: f.number(product.reEntryHours, 1),
                      preHarvest: product.preHarvestDays,
                      bees: t(`bees.${product.bees}`),
                      protection: product.protection,
                    })}
                  </Explained>{' '}
                  {product.licensedOnly ? `${t('signature.only')} ` : ''}
                  {product.assumed.length > 0
                    ? t('shelf.assumed', {
                        which: whichAssumed(product.assumed),
                        effect: f.percent(product.effect),
                        days: product.residualDays,
                      })
                    : null}
                </Small>
                <Lots product={product} lots={lots.filter(({ productId }) => productId === product.id)} />
              </>
            )}
          </li>
        ))}
      </Rows>
      {open === 'new' ? (
        <ProductForm onDone={() => setOpen(null)} />
      ) : (
        <Line $gap={16}>
          <TextButton onPress={() => setOpen('new')}>{t('shelf.add')}</TextButton>
          <ShelfFile isEmpty={products.length === 0} />
        </Line>
      )}
    </Stack>
  )
}
