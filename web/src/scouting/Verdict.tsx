import type { Organism, Threshold } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { againstOf, countingVerdict, countLeans, per100Of, type CountingPlan } from '../band/countingPlan.js'
import { isCrossed } from '../band/threshold.js'
import { TextButton } from '../design/buttons.js'
import { Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import '../messages/en/count.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { Nothing, partLater } from '../shell/partLater.js'
import { perWords } from './perWords.js'
import type { StopLinesProps } from './StopLines.js'

const loadLines = later(() => import('./StopLines.js'))
/** The words stand by themselves where the picture does not come. */
const StopLines = partLater<StopLinesProps>(async () => (await loadLines()).StopLines, { meanwhile: Nothing, missing: Nothing })
const WhyLines = partLater(async () => (await import('./WhyLines.js')).WhyLines)
const Drawn = styled.div`
  aspect-ratio: 520 / 190;
`

const COLOURS = { act: colour.beet, stop: colour.petrol, 'go-on': colour.ink, 'too-few': colour.ink, undecided: colour.ink } as const

/** As it is usual, where the site has no plan of its own. */
const SAFE_SHARE = 0.5
const RISK = 0.1

/** What a count says so far, in words. */
export function useVerdictWords() {
  const t = useText()
  const f = useFormat()
  return (plan: CountingPlan, found: readonly number[], sampling: Organism['sampling'], places: number | null) => {
    const total = found.reduce((a, b) => a + b, 0)
    const verdict = countingVerdict(plan, found.length, total, places)
    const said = t(`count.verdict.${verdict}`, {
      total: f.number(total, 1),
      count: found.length,
      units: found.length === 1 ? sampling.unit : sampling.units,
      least: plan.leastUnits,
      kept: places === null ? 'no' : 'yes',
      places: plan.leastPlaces,
      leaning: countLeans(plan, found.length, total),
      many: sampling.units,
    })
    return { verdict, said, total }
  }
}

/** What a count says so far: act, leave it, or count on; drawn, and with why behind it. */
export function Verdict(p: {
  plan: CountingPlan
  found: readonly number[]
  /** null: nobody kept where they were. */
  places: number | null
  threshold: Threshold
  sampling: Organism['sampling']
}) {
  const t = useText()
  const f = useFormat()
  const [isOpen, setOpen] = useState(false)
  const { plan, found, sampling } = p
  const { verdict, said } = useVerdictWords()(plan, found, sampling, p.places)
  const isOver = isCrossed(per100Of(found, againstOf(p.threshold, sampling)), p.threshold)
  const own = sampling.rule?.plan
  const isDecided = verdict === 'act' || verdict === 'stop'
  return (
    <Stack $gap={8} data-testid="verdict">
      <p aria-live="polite">
        <b style={{ color: COLOURS[verdict] }}>{said}</b>{' '}
        {isDecided && p.places === null ? t('count.spread', { units: sampling.units }) : null}
        {verdict === 'too-few' ? t('count.all', { crossed: isOver ? 'yes' : 'no', threshold: f.number(p.threshold.per100, 1) }) : null}
      </p>
      <Drawn>
        <StopLines plan={plan} found={found} units={sampling.units} said={said} />
      </Drawn>
      <Small>
        <TextButton onPress={() => setOpen(!isOpen)} aria-expanded={isOpen}>
          {t('count.why')}
        </TextButton>
      </Small>
      {isOpen ? (
        <>
          <Small>
            {t('count.because', {
              threshold: f.number(p.threshold.per100, 1),
              items: perWords(sampling, t),
              none: plan.unitsIfNone,
              most: plan.mostUnits,
              units: sampling.units,
              alike:
                sampling.measure === 'incidence' && sampling.itemsPerUnit === 1
                  ? 'no'
                  : own?.clumping && sampling.measure !== 'incidence'
                    ? 'measured'
                    : 'yes',
              kind: plan.kind,
              safe: f.percent(own?.safeShare ?? SAFE_SHARE),
              needless: f.number(1 / (own?.needless ?? RISK), 0),
              missed: f.number(1 / (own?.missed ?? RISK), 0),
              precision: f.percent(own?.relativeSe ?? 0),
              counts: own?.clumping?.counts ?? 0,
            })}
          </Small>
          <WhyLines against={againstOf(p.threshold, sampling)} items={perWords(sampling, t)} units={sampling.units} />
        </>
      ) : null}
    </Stack>
  )
}
