import { endpoints, type Product, type WatchForecast } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Caution, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** What flowers in or beside the block on the day of a treatment that is hazardous to bees; that nobody has said, where nobody has. */
export function BeesThere({ forecast, product, date }: { forecast: WatchForecast; product: Product; date: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id, blockId: forecast.watch.blockId }
  const { data } = useRead(endpoints.bloom.blooming, { params, input: {} }, product.bees !== 'none-stated')
  if (product.bees === 'none-stated' || !data) return null
  if (data.length === 0) return <Small data-testid="bees-there">{t('bees.nobodySaid')}</Small>
  const there = data.filter(
    ({ from, until, how }) => how !== 'unknown' && (from === null || date >= from) && until !== null && date <= until,
  )
  const unknown = data.filter(({ how }) => how === 'unknown').map(({ name }) => name)
  const names = there.map(({ name, until }) => t('bees.until', { name, until: f.date(until ?? date) })).join(', ')
  return (
    <>
      {there.length > 0 ? (
        <Caution data-testid="bees-there">
          {t(product.bees === 'forbidden-in-bloom' ? 'bees.forbiddenThere' : 'bees.hazardThere', { names, date: f.date(date) })}
        </Caution>
      ) : (
        <Small data-testid="bees-there">{t('bees.noneThere', { date: f.date(date) })}</Small>
      )}
      {unknown.length > 0 ? <Caution>{t('bees.notKnown', { names: unknown.join(', ') })}</Caution> : null}
    </>
  )
}
