import { useBand } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Caution } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useNow } from '../shell/useNow.js'
import { clocksOf } from './groundClocks.js'
import '../messages/en/work.js'

/** Until when nobody goes in, and nothing is harvested, by what was used there. */
export function ClocksOf({ blockId }: { blockId: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const now = useNow()
  const { data: band } = useBand(site.id, site.season.start)
  const clocks = clocksOf(band?.watches ?? [], blockId, now, site.today)
  if (!clocks.entry && !clocks.harvest) return null
  return (
    <>
      {clocks.entry ? <Caution>{t('treatments.reEntryRunning', { until: f.moment(clocks.entry) })}</Caution> : null}
      {clocks.harvest ? <Caution>{t('treatments.harvestFrom', { date: f.date(clocks.harvest) })}</Caution> : null}
    </>
  )
}
