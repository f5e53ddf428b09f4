import styled from 'styled-components'
import { CloudOff } from 'lucide-react'
import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useIntl } from 'react-intl'
import { Link, useParams } from 'react-router'
import { useReachable, useStale } from '../api/connection.js'
import { useUnsent } from '../api/unsent.js'
import { TextButton } from '../design/buttons.js'
import { colour } from '../design/theme.js'
import { momentWords } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Bar = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 10px 20px;
  background: ${colour.beetSoft};
  border-bottom: 2px solid ${colour.beet};
  font-weight: 600;
  svg {
    flex: none;
  }
`

/** When the oldest of what is on the screen was read, ISO; undefined where nothing is. */
const oldestRead = (client: QueryClient): string | undefined => {
  const times = client
    .getQueryCache()
    .findAll({ type: 'active' })
    .flatMap(({ state }) => state.dataUpdatedAt || [])
  return times.length === 0 ? undefined : new Date(Math.min(...times)).toISOString()
}

/**
 * Shown while no answer comes, something that is shown cannot be read anew, or a record was not stored. Calls go on being tried; nothing
 * typed is lost.
 */
export function Connection() {
  const t = useText()
  const reachable = useReachable()
  const client = useQueryClient()
  const stale = useStale()
  const [reason] = stale.values()
  const { locale } = useIntl()
  const { siteId } = useParams()
  const unsent = useUnsent()
  const refused = unsent.filter((item) => item.refused !== null)
  const readAt = reachable ? undefined : oldestRead(client)
  const list = siteId === undefined ? null : <Link to={`/sites/${siteId}/unsent`}>{t('offline.open')}</Link>
  return (
    <div role="status" aria-live="polite">
      {reachable ? null : (
        <Bar>
          <CloudOff size={18} aria-hidden />
          <span>
            {t('offline')} {readAt === undefined ? null : t('offline.readAt', { when: momentWords(locale)(readAt) })}{' '}
            {unsent.length > 0 ? (
              <>
                {t('offline.wait', { count: unsent.length })} {list}
              </>
            ) : null}
          </span>
        </Bar>
      )}
      {reachable && refused.length > 0 ? (
        <Bar>
          <CloudOff size={18} aria-hidden />
          <span>
            {t('offline.notStored', { count: refused.length })} {list}
          </span>
        </Bar>
      ) : null}
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
