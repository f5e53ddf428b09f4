import { endpoints, type Organism, type WatchForecast } from '@bocado/contract'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Line } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/windows.js'

/** A biofix that waits for a sustained catch, where the catches of this season show one: offered, and taken only when somebody says so. */
export function CaughtBiofix({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const waits = organism?.biofix.kind === 'sustained-catch'
  const { watch } = forecast
  const params = { siteId: site.id, watchId: watch.id }
  const { data } = useRead(endpoints.calibration.get, { params, input: {} }, waits)
  const update = useWrite(endpoints.watches.update)
  const caught = data?.caughtBiofix
  if (!waits || !caught) return null
  const { biofixNote: _, ...kept } = watch
  const checks = caught.checks.map(f.shortDate).join(', ')
  return (
    <Line data-testid="caught-biofix">
      <span style={{ flex: '1 1 30ch' }}>
        {t('detail.caughtBiofix', { checks, date: f.date(caught.day), days: f.number(caught.halfInterval, 1) })}
      </span>
      <Button
        isDisabled={update.isBarred}
        onPress={() =>
          void update.save({ params, input: { ...kept, biofix: caught.day, biofixNote: t('detail.caughtBiofixNote', { checks }) } })
        }
      >
        {t('detail.takeBloomBiofix', { date: f.date(caught.day) })}
      </Button>
    </Line>
  )
}
