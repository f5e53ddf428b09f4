import { useSite } from '../api/workplace.js'
import { Checkbox } from '../design/controls.js'
import { useText } from '../messages/useText.js'

/** Whether every site of the holding shall have something; a question only where there are several. */
export function SharedCheckbox({ bound }: { bound: { value: boolean; onChange: (value: boolean) => void } }) {
  const t = useText()
  const { holding } = useSite()
  if (holding.sites < 2 && !bound.value) return null
  return <Checkbox label={t('shared.everywhere', { holding: holding.name })} {...bound} />
}
