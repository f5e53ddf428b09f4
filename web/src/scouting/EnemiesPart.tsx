import { enemyKinds, type Enemies } from '@bocado/contract'
import { memo, useState } from 'react'
import { TextButton } from '../design/buttons.js'
import { Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/count.js'
import { enemyWords } from './enemyWords.js'
import { TallyRows } from './TallyRows.js'

/** What eats it, seen on the same walk: unfolded by a press, since on most walks nobody tallies it. */
export const EnemiesPart = memo(function EnemiesPart(p: {
  enemies: Enemies
  onChange: (enemies: Enemies) => void
  /** What was counted of the pest, in animals; null where infested items were counted, of which no ratio can be made. */
  prey: number | null
}) {
  const t = useText()
  const f = useFormat()
  const total = Object.values(p.enemies).reduce((a, b) => a + b, 0)
  const [isOpen, setOpen] = useState(total > 0)
  const words = enemyWords(p.enemies, t)
  return (
    <Stack $gap={6}>
      <TextButton onPress={() => setOpen(!isOpen)} aria-expanded={isOpen}>
        {t('enemy.open')}
      </TextButton>
      {isOpen ? (
        <TallyRows
          classes={enemyKinds.map((id) => ({ id, name: t(`enemy.${id}`), weight: 1 }))}
          unit={Object.fromEntries(Object.entries(p.enemies))}
          onTally={(kind, by) => {
            const known = enemyKinds.find((id) => id === kind)
            if (known) p.onChange({ ...p.enemies, [known]: Math.max(0, (p.enemies[known] ?? 0) + by) })
          }}
          hasKeys={false}
          isPlain
        />
      ) : null}
      {total > 0 ? (
        <Small aria-live="polite">{p.prey === null ? words : t('enemy.ratio', { words, each: f.number(p.prey / total, 1) })}</Small>
      ) : null}
    </Stack>
  )
})
