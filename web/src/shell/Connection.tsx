import styled from 'styled-components'
import { CloudOff } from 'lucide-react'
import { useReachable } from '../api/connection.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Bar = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 10px 20px;
  background: ${colour.beetSoft};
  border-bottom: 2px solid ${colour.beet};
  font-weight: 600;
`

/** Shown while no answer comes. Calls go on being tried; nothing typed is lost. */
export function Connection() {
  const t = useText()
  const reachable = useReachable()
  return (
    <div role="status" aria-live="polite">
      {reachable ? null : (
        <Bar>
          <CloudOff size={18} aria-hidden />
          {t('offline')}
        </Bar>
      )}
    </div>
  )
}
