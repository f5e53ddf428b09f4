import { plantHeights, type PlantHeight, type Round } from '@bocado/contract'
import { memo } from 'react'
import { Choice } from '../design/controls.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/count.js'

const CHOICES = ['unsaid', ...plantHeights] as const

/** Where on the plant the sample unit in hand is. */
export const HeightPart = memo(function HeightPart(p: {
  heights: readonly (PlantHeight | null)[]
  at: number
  onChange: (heights: (PlantHeight | null)[]) => void
}) {
  const t = useText()
  return (
    <Choice
      label={t('height.title')}
      options={CHOICES.map((id) => ({ id, label: t(`height.${id}`) }))}
      value={p.heights[p.at] ?? 'unsaid'}
      onChange={(id) => {
        const height = id === 'unsaid' ? null : id
        p.onChange(Array.from({ length: Math.max(p.heights.length, p.at + 1) }, (_, i) => (i === p.at ? height : (p.heights[i] ?? null))))
      }}
    />
  )
})

/** What was found at each height; nothing where only one was looked at. */
export function ByHeight({ parts, items }: { parts: Round['byHeight']; items: string }) {
  const t = useText()
  const f = useFormat()
  if (parts.length === 0) return null
  const said = parts.map(({ height, units, per100 }) =>
    t('height.part', { height: t(`height.${height}`), per100: f.number(per100, 1), units }),
  )
  return <Small data-testid="by-height">{t('height.found', { parts: said.join('; '), items })}</Small>
}
