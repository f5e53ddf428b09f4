import type { Threshold } from '@bocado/contract'
import { spotTreatment, type Stratum } from '../band/countingPlan.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/count.js'

/** What edge and inside of a count say each by itself, and whether one of them is enough to treat. */
export function Strata(p: { parts: readonly Stratum[]; threshold: Threshold; items: string; units: string }) {
  const t = useText()
  const f = useFormat()
  if (p.parts.length === 0) return null
  const spot = p.threshold.from === 'every-one' ? null : spotTreatment(p.parts, p.threshold.per100)
  const where = ({ edge }: Stratum): 'edge' | 'inside' => (edge ? 'edge' : 'inside')
  return (
    <Small as="div" data-testid="strata">
      {p.parts.map((part) => (
        <div key={where(part)}>
          {t('strata.part', {
            where: where(part),
            per100: f.number(part.per100, 1),
            items: p.items,
            count: part.units,
            units: p.units,
            places: part.places,
            verdict: part.verdict === null ? 'none' : part.verdict.replaceAll('-', '_'),
          })}
        </div>
      ))}
      {spot ? (
        <b>
          {t('strata.spot', {
            where: where(spot.treat),
            per100: f.number(spot.treat.per100, 1),
            upper: f.number(spot.rest.upper, 1),
            threshold: f.number(p.threshold.per100, 1),
            items: p.items,
          })}
        </b>
      ) : null}
    </Small>
  )
}
