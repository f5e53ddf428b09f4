import { endpoints, stockUnits, type Lot, type Product } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Caution, Fields, Line, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/equipment.js'

/** The lots of a product, what is left of each by the records, and which can be used no more. */
export function Lots({ product, lots }: { product: Product; lots: readonly Lot[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [open, setOpen] = useState<string | null>(null)
  const [isShown, setShown] = useState(false)
  const left = ({ left: amount, unit }: Lot): string => (amount === null ? 'unknown' : `${f.number(Math.max(0, amount), 2)} ${unit}`)
  // Seldom looked at: what is wrong with one stands in view, the rest behind a word.
  const isBad = (lot: Lot): boolean => (lot.expiresOn !== null && lot.expiresOn < site.today) || (lot.left !== null && lot.left < 0)
  return (
    <Stack $gap={4}>
      <TextButton
        aria-label={t('lot.ofProduct', { name: product.name, count: lots.length })}
        aria-expanded={isShown}
        onPress={() => setShown(!isShown)}
      >
        {t('lot.count', { count: lots.length })}
      </TextButton>
      {lots
        .filter((lot) => isShown || isBad(lot))
        .map((lot) =>
          open === lot.id ? (
            <LotForm key={lot.id} product={product} lot={lot} onDone={() => setOpen(null)} />
          ) : (
            <div key={lot.id}>
              <Small>
                {t('lot.says', { lot: lot.number, left: left(lot), until: lot.expiresOn === null ? 'none' : f.withYear(lot.expiresOn) })}{' '}
                <Line as="span" style={{ display: 'inline-flex' }}>
                  <TextButton aria-label={t('lot.edit', { lot: lot.number })} onPress={() => setOpen(lot.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.equipment.removeLot}
                    restore={endpoints.equipment.restoreLot}
                    params={{ siteId: site.id, lotId: lot.id }}
                    rowVersion={lot.rowVersion}
                    label={t('lot.removeOne', { lot: lot.number })}
                    said={t('lot.removed', { lot: lot.number })}
                  />
                </Line>
              </Small>
              {lot.expiresOn !== null && lot.expiresOn < site.today ? <Caution>{t('lot.over')}</Caution> : null}
              {lot.left !== null && lot.left < 0 ? (
                <Caution>{t('lot.below', { over: `${f.number(-lot.left, 2)} ${lot.unit}` })}</Caution>
              ) : null}
            </div>
          ),
        )}
      {!isShown ? null : open === 'new' ? (
        <LotForm product={product} onDone={() => setOpen(null)} />
      ) : (
        <TextButton aria-label={t('lot.addOf', { name: product.name })} onPress={() => setOpen('new')}>
          {t('lot.add')}
        </TextButton>
      )}
    </Stack>
  )
}

function LotForm({ product, lot, onDone }: { product: Product; lot?: Lot; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const initial = {
    number: lot?.number ?? '',
    amount: lot?.amount ?? (null as number | null),
    unit: lot?.unit ?? (null as Lot['unit'] | null),
    cameOn: lot?.cameOn ?? (site.today as string | null),
    expiresOn: lot?.expiresOn ?? (null as string | null),
  }
  const add = useEntry(endpoints.equipment.addLot, initial, null, lot ? undefined : product.id)
  const update = useEntry(endpoints.equipment.updateLot, initial, lot, lot?.id)
  const entry = lot ? update : add
  const { bind } = entry
  const typed = (v: typeof initial) => ({ ...v, amount: v.amount ?? undefined, unit: v.unit ?? undefined, cameOn: v.cameOn ?? '' })
  const save = async (): Promise<void> => {
    const saved = lot
      ? await update.submit({ siteId: site.id, lotId: lot.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id }, (v) => ({ ...typed(v), productId: product.id }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <TextField label={t('lot.number')} width="16ch" {...bind.text('number')} autoFocus />
          <NumberField label={t('lot.amount')} width="12ch" digits={3} {...bind.number('amount')} />
          <Select
            label={t('lot.unit')}
            placeholder={t('choose')}
            width="12ch"
            options={stockUnits.map((unit) => ({ id: unit, label: unit === 'pieces' ? t('taken.pieces') : unit }))}
            {...bind.choice('unit')}
          />
        </Fields>
        <Fields>
          <DateField label={t('lot.cameOn')} {...bind.day('cameOn')} />
          <DateField label={t('lot.expiresOn')} {...bind.day('expiresOn')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
