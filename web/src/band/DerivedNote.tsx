import { endpoints } from '@bocado/contract'
import styled, { keyframes } from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Caution } from '../design/text.js'
import { colour, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const appear = keyframes`
  from { visibility: hidden; }
  to { visibility: visible; }
`
/** What is made anew at once is not worth a word. */
const Waiting = styled.span`
  color: ${colour.inkSoft};
  font-size: ${size.small};
  animation: ${appear} 0.8s step-end;
`

/** Says that forecasts are shown as they were: while they are being recomputed, or because they could not be. */
export function DerivedNote() {
  const t = useText()
  const { data } = useRead(endpoints.watches.derived, { params: { siteId: useSite().id }, input: {} })
  const derived = data?.state
  return (
    <div role="status" aria-live="polite" data-derived={derived}>
      {derived === 'recomputing' ? <Waiting>{t('band.recomputing')}</Waiting> : null}
      {derived === 'failed' ? <Caution>{t('band.notDerived')}</Caution> : null}
    </div>
  )
}
