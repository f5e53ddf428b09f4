import type { Organism } from '@bocado/contract'
import { Minus, Plus } from 'lucide-react'
import { Button as AriaButton } from 'react-aria-components'
import styled from 'styled-components'
import { Small } from '../design/text.js'
import { colour, font, PHONE } from '../design/theme.js'
import '../messages/en/count.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
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

/** What is found on one sample unit, by class, under a thumb. */
export function TallyRows(p: {
  classes: Organism['sampling']['classes']
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
  return (
    <div>
      {p.classes.map((c, i) => (
        <Tally key={c.id}>
          <span className="name">
            {p.drawing ? (
              <Drawn aria-hidden>
                <DamageDegree drawing={p.drawing} percent={c.weight * 100} label="" />
              </Drawn>
            ) : null}
            <b>{c.name}</b>
            <Small as="span">
              {p.isPlain
                ? null
                : c.weight === 0
                  ? t('count.weightNone')
                  : p.hasKeys
                    ? t('count.weight', { weight: c.weight, key: i + 1 })
                    : t('count.weightOnly', { weight: c.weight })}
            </Small>
          </span>
          <AriaButton aria-label={t('count.less', { name: c.name })} onPress={() => p.onTally(c.id, -1)}>
            <Minus size={20} aria-hidden />
          </AriaButton>
          <span className="count" aria-live="polite">
            {p.unit[c.id] ?? 0}
          </span>
          <AriaButton className="more" aria-label={t('count.more', { name: c.name })} onPress={() => p.onTally(c.id, 1)}>
            <Plus size={26} aria-hidden />
          </AriaButton>
        </Tally>
      ))}
    </div>
  )
}
