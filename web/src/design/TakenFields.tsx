import { takenUnits } from '@bocado/contract'
import type { Bound } from '../api/bindings.js'
import { useText } from '../messages/useText.js'
import { Select } from './controls.js'
import { NumberField } from './NumberField.js'

/** What was picked, pulled or caught, in pieces or by measure. */
export function TakenFields(p: { amount: Bound<number | null>; unit: { value: string | null; onChange: (unit: string) => void } }) {
  const t = useText()
  return (
    <>
      <NumberField label={t('record.taken')} width="12ch" digits={1} hint={t('optional')} {...p.amount} />
      <Select
        label={t('record.takenUnit')}
        placeholder={t('choose')}
        width="13ch"
        options={takenUnits.map((unit) => ({ id: unit, label: t(`taken.${unit}`) }))}
        {...p.unit}
      />
    </>
  )
}
