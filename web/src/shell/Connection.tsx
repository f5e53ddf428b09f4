import styled from 'styled-components'
import { CloudOff } from 'lucide-react'
import { useQueryClient } from '@tanstack/react-query'
import { useReachable, useStale } from '../api/connection.js'
import { TextButton } from '../design/buttons.js'
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

/** Shown while no answer comes, or something that is shown cannot be read anew. Calls go on being tried; nothing typed is lost. */
export function Connection() {
  const t = useText()
  const reachable = useReachable()
  const client = useQueryClient()
  const stale = useStale()
  const [reason] = stale.values()
  return (
    <div role="status" aria-live="polite">
      {reachable ? null : (
        <Bar>
          <CloudOff size={18} aria-hidden />
          {t('offline')}
        </Bar>
      )}
      {reachable && reason !== undefined ? (
        <Bar data-testid="stale">
          <CloudOff size={18} aria-hidden />
          <span>{t('stale', { reason })}</span>
          <TextButton onPress={() => void client.refetchQueries({ predicate: ({ queryHash }) => stale.has(queryHash) })}>
            {t('stale.again')}
          </TextButton>
        </Bar>
      ) : null}
    </div>
  )
}
