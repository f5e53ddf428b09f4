import type { Economics } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { Picture } from '../charts/Picture.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/threshold.js'

const WIDTH = 520
const HEIGHT = 170
const LEFT = 44
const RIGHT = 120
const FOOT = 24

/** What a treatment costs against what it saves, by how many there are: where the lines meet it pays; a little before that one acts. */
export function EconomicPicture(p: { economics: Economics; injury: number; action: number; items: string }) {
  const t = useText()
  const f = useFormat()
  const { cost, price, loss, control } = p.economics
  const most = 2 * p.injury
  const saved = (per100: number): number => price * loss * control * per100
  const x = scaleLinear([0, most], [LEFT, WIDTH - RIGHT])
  const y = scaleLinear([0, saved(most)], [HEIGHT - FOOT, 8])
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={t('actFrom.picture', { cost: f.number(cost, 0), injury: f.number(p.injury, 2), items: p.items })}
    >
      {y.ticks(3).map((tick) => (
        <text key={tick} className="soft" x={LEFT - 6} y={y(tick) + 4} textAnchor="end">
          {tick}
        </text>
      ))}
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={HEIGHT - FOOT} y2={HEIGHT - FOOT} stroke={colour.rule} />
      <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(cost)} y2={y(cost)} stroke={colour.ink} strokeWidth="1.5" strokeDasharray="6 4" />
      <text x={WIDTH - RIGHT + 8} y={y(cost) + 4}>
        {t('actFrom.costs')}
      </text>
      <line x1={x(0)} x2={x(most)} y1={y(0)} y2={y(saved(most))} stroke={colour.petrol} strokeWidth="2" />
      <text x={WIDTH - RIGHT + 8} y={y(saved(most)) + 10} style={{ fill: 'var(--petrol)' }}>
        {t('actFrom.saves')}
      </text>
      <circle cx={x(p.injury)} cy={y(cost)} r="5" fill={colour.white} stroke={colour.ink} strokeWidth="1.5" />
      <line x1={x(p.action)} x2={x(p.action)} y1={8} y2={HEIGHT - FOOT} stroke={colour.beet} strokeWidth="1.5" />
      {x.ticks(5).map((tick) => (
        <text key={tick} className="soft" x={x(tick)} y={HEIGHT - 6} textAnchor="middle">
          {tick}
        </text>
      ))}
    </Picture>
  )
}
