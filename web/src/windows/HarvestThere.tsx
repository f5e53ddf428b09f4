import { endpoints, type Label, type WatchForecast } from '@bocado/contract'
import { usePlaces, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { harvestWaiting } from '../band/harvest.js'
import { Caution } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/plan.js'

/** What the crop calendar says of a harvest in the block that would have to wait for a treatment's days to harvest. */
export function HarvestThere({ forecast, product, date }: { forecast: WatchForecast; product: Label; date: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: plantings = [] } = useRead(endpoints.crops.list, { params: { siteId: site.id }, input: { season: forecast.watch.season } })
  const { data: places = [] } = usePlaces(site.id)
  const isWithin = (id: string | undefined): boolean =>
    id !== undefined && (id === forecast.watch.blockId || isWithin(places.find((part) => part.id === id)?.parentId))
  return plantings.map((planting) => {
    const waits = isWithin(planting.placeId) ? harvestWaiting(planting, date, product.preHarvestDays) : null
    return waits ? (
      <Caution key={planting.id} data-testid="harvest-there">
        {t(`plan.harvest.${waits.how}`, {
          crop: planting.cropName,
          since: f.date(waits.since),
          days: product.preHarvestDays,
          from: f.date(waits.pickedFrom),
        })}
      </Caution>
    ) : null
  })
}
