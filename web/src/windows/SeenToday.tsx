import { endpoints, type WatchForecast } from '@bocado/contract'
import { useWrite } from '../api/hooks.js'
import { letGo, nameOf } from '../api/unsent.js'
import { useRecorded } from '../api/useRecorded.js'
import { useSite } from '../api/workplace.js'
import { Select } from '../design/controls.js'
import { Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import { UnsentHere } from '../shell/UnsentHere.js'

/** What was seen this season, what clocks expect, and what was seen today in two presses. */
export function SeenToday({ forecast }: { forecast: WatchForecast }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const saw = useRecorded(endpoints.calibration.addSighting)
  const remove = useWrite(endpoints.calibration.removeRecord)
  const { watch, named, seen } = forecast
  const params = { siteId: site.id }
  const on = (day: number): string => f.seasonDay(watch.season, day)
  const add = async (event: string): Promise<void> => {
    const name = named.find(({ id }) => id === event)?.name ?? event
    const input = { event, kind: 'first' as const, seenOn: site.today, lookedBefore: null, note: '' }
    const { id } = await saw.save({ params: { ...params, watchId: watch.id }, input }, t('sighted.noted', { name }))
    undo.offer(
      t('sighted.noted', { name }),
      async () => (await letGo(id)) ?? remove.save({ params: { ...params, recordId: id }, input: { rowVersion: 1 } }),
    )
  }
  if (named.length === 0 || watch.season !== site.season.start) return null
  return (
    <Stack $gap={6} data-testid="seen-today">
      {named.map(({ id, name, clock }) => {
        const was = seen.find(({ event }) => event === id)
        const { p10, p50, p90 } = clock?.date ?? { p10: null, p50: null, p90: null }
        if (was) return <span key={id}>{t('band.seen', { name, kind: was.kind, date: f.date(was.day) })}</span>
        if (!clock || p10 === null || p50 === null || p90 === null) return null
        return (
          <span key={id}>
            {t('sighted.expected', {
              name,
              date: f.date(on(p50)),
              span: f.span(on(p10), on(p90)),
              seasons: clock.seasons,
              by: clock.by,
              source: clock.source ?? 'none',
            })}
          </span>
        )
      })}
      <Select
        label={t('sighted.today')}
        placeholder={t('sighted.choose')}
        width="30ch"
        options={named.filter(({ id }) => !seen.some(({ event }) => event === id)).map(({ id, name }) => ({ id, label: name }))}
        value={null}
        isDisabled={saw.isBarred}
        onChange={(id) => void add(id)}
      />
      <UnsentHere of={(item) => item.what === nameOf(endpoints.calibration.addSighting) && item.params['watchId'] === watch.id} />
      <Small>{t('sighted.how')}</Small>
    </Stack>
  )
}
