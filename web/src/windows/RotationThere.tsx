import { endpoints, type Label, type Treatment, type WatchForecast } from '@bocado/contract'
import { useMemo } from 'react'
import { useBand, useProducts, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { rotationHere, usesBefore } from '../band/rotation.js'
import { Caution, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/rotation.js'

/** Treatments of the season before on the same ground, as rotation looks at them. */
export function useUsesBefore() {
  const site = useSite()
  const start = site.season.start
  const season = `${Number(start.slice(0, 4)) - 1}${start.slice(4)}`
  const params = { siteId: site.id }
  const { data: band } = useBand(site.id, start)
  const { data: treatments } = useRead(endpoints.treatments.list, { params, input: { season } })
  const { data: watches } = useRead(endpoints.watches.list, { params, input: { season } })
  return useMemo(() => {
    if (!treatments || !watches) return []
    return usesBefore(treatments, band?.watches ?? [], (id) => watches.find((watch) => watch.id === id), season)
  }, [treatments, watches, band, season])
}

/** Whether a material keeps the rotation of groups of action, where a plan is thought of. */
export function RotationThere({
  forecast,
  product,
  date,
  moving,
}: {
  forecast: WatchForecast
  product: Label
  date: string
  moving: Treatment | null
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: products = [] } = useProducts(site.id)
  const before = useUsesBefore()
  const found = useMemo(
    () =>
      band &&
      rotationHere(
        forecast,
        band.watches,
        { id: moving?.id ?? null, label: product, date },
        ({ done, productId }) => (done ? done.label : (products.find(({ id }) => id === productId) ?? null)),
        before,
      ),
    [band, forecast, moving, product, date, products, before],
  )
  if (!found) return null
  const { fault, other } = found
  const named = other ? `${other.name}, ${f.date(other.done?.day ?? other.plannedOn)}` : ''
  const says = t(`rotation.${fault.kind}`, { group: fault.group, other: named, share: f.percent(fault.share ?? 0) })
  return (
    <>
      <Caution data-testid="rotation-there">{says}</Caution>
      {product.actionGroup === '' ? <Small>{t('rotation.byMethod')}</Small> : null}
    </>
  )
}
