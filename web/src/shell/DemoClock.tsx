import { MS_PER_HOUR } from '@bocado/core/time'
import { endpoints } from '@bocado/contract'
import { ChevronLeft, ChevronRight } from 'lucide-react'
import { Button } from 'react-aria-components'
import styled from 'styled-components'
import { useRead, useWrite } from '../api/hooks.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Clock = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
  border: 1px dashed ${colour.barRule};
  border-radius: 4px;
  color: ${colour.onBarSoft};
  font-size: ${size.small};
  white-space: nowrap;
  button {
    min-width: 24px;
    min-height: 32px;
    border: 0;
    background: none;
    color: inherit;
    cursor: pointer;
    display: grid;
    place-items: center;
    &[data-hovered] {
      color: ${colour.onBar};
    }
  }
  @media ${PHONE} {
    display: none;
  }
`

/** Moves the time of the demonstration by a day or an hour. A real site has real time, and shows nothing here. */
export function DemoClock() {
  const t = useText()
  const f = useFormat()
  const { data } = useRead(endpoints.demo.clock, { params: {}, input: {} })
  const { save, isBarred } = useWrite(endpoints.demo.setClock)
  if (!data?.now) return null
  const now = Date.parse(data.now)
  const move = (hours: number): void =>
    void save({ params: {}, input: { now: new Date(now + hours * MS_PER_HOUR).toISOString().replace('.000Z', 'Z') } })
  return (
    <Clock role="group" aria-label={t('demoClock')}>
      <Button aria-label={t('demoClock.dayBack')} isDisabled={isBarred} onPress={() => move(-24)}>
        <ChevronLeft size={15} aria-hidden />
      </Button>
      <span aria-live="polite">{f.moment(data.now)}</span>
      <Button aria-label={t('demoClock.hourOn')} isDisabled={isBarred} onPress={() => move(1)}>
        +1 h
      </Button>
      <Button aria-label={t('demoClock.dayOn')} isDisabled={isBarred} onPress={() => move(24)}>
        <ChevronRight size={15} aria-hidden />
      </Button>
    </Clock>
  )
}
