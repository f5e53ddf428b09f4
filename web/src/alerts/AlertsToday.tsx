import { endpoints } from '@bocado/contract'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/alerts.js'

/** The way to what was told, with how much of it is new: what it asks for stands in the lines of the morning already. */
export function AlertsToday() {
  const t = useText()
  const site = useSite()
  const { data = [] } = useRead(endpoints.alerts.list, { params: { siteId: site.id }, input: {} })
  return (
    <Small>
      <Link to={`/sites/${site.id}/alerts`}>{t('alert.all', { count: data.filter(({ seen }) => !seen).length })}</Link>
    </Small>
  )
}
