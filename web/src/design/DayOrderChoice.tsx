import { writtenDay, type DayOrder } from '@bocado/core/time'
import { useText } from '../messages/useText.js'
import { Choice } from './controls.js'
import { Caution, Stack } from './text.js'
import { useFormat } from './useFormat.js'

/** Asks what comes first in dates of numbers only, by one of them that may be either. */
export function DayOrderChoice({
  example,
  value,
  onChange,
}: {
  example: string
  value: DayOrder | null
  onChange: (order: DayOrder) => void
}) {
  const t = useText()
  const f = useFormat()
  const as = (order: DayOrder): string => {
    const day = writtenDay(example, order)?.day
    return day ? f.withYear(day) : t(`dayOrder.${order}`)
  }
  return (
    <Stack $gap={6}>
      {value === null ? <Caution role="alert">{t('dayOrder.ask', { example })}</Caution> : null}
      <Choice<DayOrder | 'none'>
        label={t('dayOrder.label', { example })}
        options={(['mdy', 'dmy'] as const).map((id) => ({ id, label: as(id) }))}
        value={value ?? 'none'}
        onChange={(id) => id !== 'none' && onChange(id)}
      />
    </Stack>
  )
}
