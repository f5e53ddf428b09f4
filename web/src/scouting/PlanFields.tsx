import { planKinds, type Organism, type OwnCountingPlan } from '@bocado/contract'
import { endsBy, type CountedAgainst } from '../band/countingPlan.js'
import { Select } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { planOfTyped, useSpread, type TypedPlan } from './typedPlan.js'
import { WhyLines } from './WhyLines.js'
import '../messages/en/count.js'
import '../messages/en/rule.js'

const isWhole = (plan: OwnCountingPlan): boolean =>
  Object.values(plan).every((value) => value !== null && !Number.isNaN(value)) || plan.clumping === null

/** How a count of an organism ends here, with what comes of it: simulated counts for truths around the threshold. */
export function PlanFields(p: {
  organism: Organism
  /** The threshold on which one decides; null: none is known, so that nothing ends by it. */
  per100: number | null
  value: TypedPlan
  onChange: (change: Partial<TypedPlan>) => void
  /** What is wrong with a field of it. */
  errorOf: (field: string) => string | undefined
}) {
  const t = useText()
  const f = useFormat()
  const { data: spread } = useSpread(p.organism.id)
  if (!spread) return <Waiting />
  const { sampling } = p.organism
  const { kind } = p.value
  const clumping = spread.clumping
  const percent = (id: 'safeShare' | 'needless' | 'missed' | 'relativeSe') => (
    <NumberField
      key={id}
      label={t(`ownPlan.${id}`)}
      width="20ch"
      digits={0}
      unit="%"
      value={p.value[id] === null ? null : Math.round(100 * p.value[id])}
      onChange={(value) => p.onChange({ [id]: value === null ? null : value / 100 })}
      error={p.errorOf(id)}
    />
  )
  const whole = (id: 'leastUnits' | 'leastPlaces' | 'mostUnits') => (
    <NumberField
      key={id}
      label={t(`ownPlan.${id}`, { units: sampling.units })}
      width="20ch"
      digits={0}
      value={p.value[id]}
      onChange={(value) => p.onChange({ [id]: value })}
      error={p.errorOf(id)}
    />
  )
  const plan = planOfTyped(p.value, clumping)
  const against: CountedAgainst | null =
    p.per100 === null || !plan || !isWhole(plan)
      ? null
      : {
          per100: p.per100,
          measure: sampling.measure,
          itemsPerUnit: sampling.itemsPerUnit,
          suggestedUnits: sampling.suggestedUnits,
          weights: sampling.classes.map(({ weight }) => weight),
          ...endsBy(plan),
        }
  const needsIt = kind === 'crowding' || kind === 'precision'
  return (
    <Stack $gap={8}>
      <Select
        label={t('ownPlan.kind')}
        placeholder=""
        width="min(56ch, 100%)"
        options={(['usual', ...planKinds] as const).map((id) => ({ id, label: t(`ownPlan.kind.${id}`) }))}
        value={kind}
        onChange={(id) => p.onChange({ kind: id as TypedPlan['kind'] })}
        error={p.errorOf('kind')}
      />
      {kind === 'usual' ? null : (
        <>
          <Small>
            {clumping
              ? t('ownPlan.measured', {
                  counts: clumping.counts,
                  k: clumping.k === null ? 'none' : f.number(clumping.k, 2),
                  a: f.number(clumping.taylor?.a ?? 0, 2),
                  b: f.number(clumping.taylor?.b ?? 0, 2),
                  taylor: clumping.taylor ? 'yes' : 'no',
                })
              : t('ownPlan.unmeasured', { counts: spread.counts })}
          </Small>
          <Fields>
            {kind === 'sequential' ? percent('safeShare') : null}
            {kind === 'sequential' || kind === 'crowding' ? [percent('needless'), percent('missed')] : null}
            {kind === 'precision' ? percent('relativeSe') : null}
            {kind === 'fixed' ? null : [whole('leastUnits'), whole('leastPlaces')]}
            {whole('mostUnits')}
          </Fields>
          {needsIt && !clumping ? null : against ? (
            <WhyLines against={against} items={sampling.items} units={sampling.units} />
          ) : (
            <Small>{t('ownPlan.noThreshold')}</Small>
          )}
        </>
      )}
    </Stack>
  )
}
