import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Heading, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/today.js'

/** As many as are read in a morning. */
const MOST = 4

/** What was first seen this season at other sites that tell it; nothing where none does. */
export function AroundHere() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.around.read, { params: { siteId: site.id }, input: {} }, site.sharesFirst)
  if (!data || data.found.length === 0) return null
  return (
    <Stack data-testid="around">
      <Heading>{t('today.around')}</Heading>
      <Rows>
        {data.found.slice(0, MOST).map(({ kind, what, name, event, day, withinKm }) => (
          <li key={`${kind} ${what} ${event}`}>
            <b>{name}</b> {t('today.aroundOne', { kind, event: event ?? 'none', date: f.date(day), km: f.number(withinKm) })}
          </li>
        ))}
      </Rows>
      <Small>{t('today.aroundOthers', { count: data.others })}</Small>
    </Stack>
  )
}
