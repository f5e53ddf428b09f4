import type { Organism } from '@bocado/contract'
import { Minus, Plus } from 'lucide-react'
import { memo } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Small } from '../design/text.js'
import { colour, font, PHONE } from '../design/theme.js'
import '../messages/en/count.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { useSteady } from '../shell/useSteady.js'
import type { Unit } from './unitLines.js'

const Tally = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 56px 64px 88px;
  gap: 8px;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid ${colour.rule};
  .count {
    font: 600 24px ${font.figures};
    text-align: center;
  }
  .name b {
    display: block;
  }
  button {
    min-height: 56px;
    border: 2px solid ${colour.ink};
    border-radius: 4px;
    background: ${colour.white};
    cursor: pointer;
    &[data-pressed] {
      background: ${colour.petrolSoft};
    }
  }
  button.more {
    background: ${colour.ink};
    color: ${colour.white};
    @media ${PHONE} {
      min-height: 68px;
    }
  }
`

const DamageDegree = partLater(async () => (await import('../library/DamageDegree.js')).DamageDegree)
const Drawn = styled.span`
  float: left;
  width: 64px;
  height: 48px;
  margin-right: 10px;
`

type Class = Organism['sampling']['classes'][number]

/** One class of a sample unit. Drawn by itself, since a tap on it has to show before anything else does. */
const TallyRow = memo(function TallyRow(p: {
  one: Class
  count: number
  /** How much each counts, in words. */
  weight: string | null
  drawing: string | undefined
  onTally: (classId: string, by: number) => void
}) {
  const t = useText()
  const { id, name, weight } = p.one
  return (
    <Tally>
      <span className="name">
        {p.drawing ? (
          <Drawn aria-hidden>
            <DamageDegree drawing={p.drawing} percent={weight * 100} label="" />
          </Drawn>
        ) : null}
        <b>{name}</b>
        <Small as="span">{p.weight}</Small>
      </span>
      <AriaButton aria-label={t('count.less', { name })} onPress={() => p.onTally(id, -1)}>
        <Minus size={20} aria-hidden />
      </AriaButton>
      <span className="count" aria-live="polite">
        {p.count}
      </span>
      <AriaButton className="more" aria-label={t('count.more', { name })} onPress={() => p.onTally(id, 1)}>
        <Plus size={26} aria-hidden />
      </AriaButton>
    </Tally>
  )
})

/** What is found on one sample unit, by class, under a thumb. */
export function TallyRows(p: {
  classes: readonly Class[]
  unit: Unit
  onTally: (classId: string, by: number) => void
  /** The classes are tallied by the digits, too. */
  hasKeys: boolean
  /** Nothing is said of how much each counts. */
  isPlain?: boolean
  /** The classes are degrees of this drawing. */
  drawing?: string
}) {
  const t = useText()
  const onTally = useSteady(p.onTally)
  const counts = (weight: number, key: number): string | null => {
    if (p.isPlain) return null
    if (weight === 0) return t('count.weightNone')
    return p.hasKeys ? t('count.weight', { weight, key }) : t('count.weightOnly', { weight })
  }
  return (
    <div>
      {p.classes.map((one, i) => (
        <TallyRow
          key={one.id}
          one={one}
          count={p.unit[one.id] ?? 0}
          weight={counts(one.weight, i + 1)}
          drawing={p.drawing}
          onTally={onTally}
        />
      ))}
    </div>
  )
}
