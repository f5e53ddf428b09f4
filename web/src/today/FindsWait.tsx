import { endpoints } from '@bocado/contract'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useText } from '../messages/useText.js'
import '../messages/en/today.js'

/** That somebody without an account sent finds which nobody has looked at; nothing where none waits. */
export function FindsWait() {
  const t = useText()
  const site = useSite()
  const { data = [] } = useRead(endpoints.finds.inbox, { params: { siteId: site.id }, input: {} })
  const count = data.filter(({ state }) => state === 'waits').length
  return count === 0 ? null : <Link to={`/sites/${site.id}/scouting?panel=flags`}>{t('today.finds', { count })}</Link>
}
