import { endpoints } from '@bocado/contract'
import { useBlocks, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/companions.js'

/** When all plants of a block that must not be harmed are asleep: the last to sleep opens it, the first to wake closes it. */
export function AsleepSays({ blockId, named }: { blockId: string; named?: boolean }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.companions.list, { params: { siteId: site.id }, input: {} })
  const { data: blocks = [] } = useBlocks(site.id)
  const there = data?.asleep.find((one) => one.blockId === blockId)
  if (!there) return null
  const place = named ? (blocks.find(({ id }) => id === blockId)?.name ?? 'none') : 'none'
  if (there.spans.length === 0) return <Small>{t('companions.never', { place })}</Small>
  return there.spans.map(({ from, until, openedBy, closedBy }) => (
    <Small key={from} data-testid="asleep">
      {t('companions.asleep', {
        place,
        from: f.monthDay(from),
        until: f.monthDay(until),
        opened: openedBy || 'none',
        closed: closedBy || 'none',
      })}
    </Small>
  ))
}
