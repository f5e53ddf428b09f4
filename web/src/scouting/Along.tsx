import type { Organism, WatchForecast } from '@bocado/contract'
import { planOf } from '../band/countingPlan.js'
import { thresholdOf } from '../band/threshold.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Small, Stack } from '../design/text.js'
import '../messages/en/count.js'
import { useText } from '../messages/useText.js'
import { effectiveOf } from './effective.js'
import { enough, goOn, mayGoOn, type Along } from './heldCount.js'
import { TallyRows } from './TallyRows.js'
import { useVerdictWords } from './Verdict.js'

/** Something else that is counted on the same sample units, with what its own count says so far; enough of it ends it, not the walk. */
export function AlongPart(p: {
  row: WatchForecast
  organism: Organism
  along: Along
  /** The sample unit in hand. */
  at: number
  /** At how many places it was looked for; null where nobody kept that. */
  places: number | null
  /** In the untreated check area nothing is decided. */
  isCheck: boolean
  onTally: (classId: string, by: number) => void
  /** The newest sample unit of the walk. */
  last: number
  /** null: it is not counted along after all. */
  onChange: (along: Along | null) => void
}) {
  const t = useText()
  const { row, organism, along } = p
  const { sampling } = organism
  const found = effectiveOf(along.units, sampling)
  const threshold = thresholdOf(row.watch, organism)
  const plan = p.isCheck ? null : planOf(threshold, sampling)
  const words = useVerdictWords()
  const said = plan ? words(plan, found, sampling, p.places).said : ''
  const unit = along.units[p.at - along.from]
  const units = along.units.length === 1 ? sampling.unit : sampling.units
  return (
    <Stack role="group" aria-label={row.organismName} $gap={6}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{row.organismName}</Heading>
        {along.isOver ? (
          mayGoOn(along, p.last) ? (
            <TextButton onPress={() => p.onChange(goOn(along, p.last))} aria-label={t('along.goOnOne', { name: row.organismName })}>
              {t('along.goOn')}
            </TextButton>
          ) : null
        ) : along.units.length === 1 && found[0] === 0 ? (
          <TextButton onPress={() => p.onChange(null)} aria-label={t('along.dropOne', { name: row.organismName })}>
            {t('along.drop')}
          </TextButton>
        ) : (
          <TextButton onPress={() => p.onChange(enough(along))} aria-label={t('along.overOne', { name: row.organismName })}>
            {t('along.over')}
          </TextButton>
        )}
      </Line>
      {unit && !along.isOver ? <TallyRows classes={sampling.classes} unit={unit} onTally={p.onTally} hasKeys={false} /> : null}
      <Small aria-live="polite">
        {t('along.sofar', { count: along.units.length, units, items: sampling.itemsPerUnit, item: sampling.items })} {said}
      </Small>
    </Stack>
  )
}
