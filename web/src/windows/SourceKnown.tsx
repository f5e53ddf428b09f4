import { knowns, type Watch } from '@bocado/contract'
import { Select } from '../design/controls.js'
import { useText } from '../messages/useText.js'

/** Whether a source of infection is known: a fact that a person records, never one that weather tells. */
export function SourceKnown({ value, onChange }: { value: Watch['sourceKnown']; onChange: (value: Watch['sourceKnown']) => void }) {
  const t = useText()
  return (
    <Select
      label={t('watch.sourceKnown')}
      placeholder={t('choose')}
      width="30ch"
      options={knowns.map((id) => ({ id, label: t(`watch.sourceKnown.${id}`) }))}
      value={value}
      onChange={(id) => onChange(id as Watch['sourceKnown'])}
    />
  )
}
