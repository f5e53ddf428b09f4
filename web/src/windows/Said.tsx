import { endpoints, type bloomEvents, type Organism, type Round, type WatchForecast } from '@bocado/contract'
import { memo } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { isCrossed, thresholdOf } from '../band/threshold.js'
import { currentWindow, urgencyOf } from '../band/urgency.js'
import { windowSentence } from '../band/words.js'
import { Button } from '../design/buttons.js'
import { Explained } from '../design/Explained.js'
import { Line, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { CaughtBiofix } from './CaughtBiofix.js'
import '../messages/en/field.js'
import '../messages/en/windows.js'

/** What a decision begins with: how the window stands, what helps where it is too late, the last count, and a biofix that waits to be taken. */
export const Said = memo(function Said({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const f = useFormat()
  const last = forecast.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  return (
    <Stack $gap={8}>
      <p>
        <b>{windowSentence(forecast, t, f)}</b>
      </p>
      <Advice forecast={forecast} organism={organism} />
      {organism ? <CountedAgainst forecast={forecast} organism={organism} last={last} /> : null}
      {forecast.biofix.how === 'expected' ? (
        <>
          <BloomBiofix forecast={forecast} organism={organism} />
          <CaughtBiofix forecast={forecast} organism={organism} />
        </>
      ) : null}
    </Stack>
  )
})

/** How the last count stands against the threshold, where one is known; where none is, that there is none. */
function CountedAgainst({ forecast, organism, last }: { forecast: WatchForecast; organism: Organism; last: Round | undefined }) {
  const t = useText()
  const f = useFormat()
  const { sampling } = organism
  const threshold = thresholdOf(forecast.watch, organism)
  const counted = {
    counted: last ? 'yes' : 'no',
    count: f.number(last?.per100 ?? 0, 1),
    items: sampling.items,
    date: last ? f.date(last.countedOn) : '',
  }
  if (threshold === null)
    return (
      <p>
        {sampling.decision !== undefined && sampling.serves === 'outcome'
          ? t('detail.decideBy', { ...counted, decision: sampling.decision })
          : t('detail.noThreshold', counted)}
      </p>
    )
  if (threshold.from === 'every-one') return <p>{t('detail.everyOne', counted)}</p>
  const shown = { ...counted, threshold: f.number(threshold.per100, 1) }
  // What it decides was said by the threshold of its day.
  const verdict = last && last.threshold?.per100 === threshold.per100 ? last.verdict : null
  return (
    <p>
      <Explained>
        {last ? t(isCrossed(last.per100, threshold) ? 'detail.crossed' : 'detail.below', shown) : t('detail.noCount', shown)}
      </Explained>{' '}
      {verdict === 'undecided' || verdict === 'too-few' ? <b>{t(`detail.sure.${verdict}`)}</b> : null}
    </p>
  )
}

/** A biofix that waits for a bloom, where the log has that bloom: it is offered, and taken only when somebody says so. */
function BloomBiofix({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id }
  const waits = organism?.biofix.bloom ?? null
  const { data: records } = useRead(endpoints.bloom.records, { params, input: {} }, waits !== null)
  const { data: plants } = useRead(endpoints.library.indicators, { params, input: {} }, waits !== null)
  const update = useWrite(endpoints.watches.update)
  const { watch } = forecast
  const seen = records
    ?.filter((r) => !r.notYet && r.season === watch.season && r.plantId === waits?.plantId && r.event === waits.event)
    .filter((r) => r.blockId === null || r.blockId === watch.blockId)
    .map(({ seenFrom }) => seenFrom)
    .sort()[0]
  if (!waits || !seen) return null
  const plant = plants?.find(({ id }) => id === waits.plantId)?.name ?? waits.plantId
  const event = t(`bloom.event.${waits.event as (typeof bloomEvents)[number]}`)
  const { biofixNote: _, ...kept } = watch
  return (
    <Line data-testid="bloom-biofix">
      <span style={{ flex: '1 1 30ch' }}>{t('detail.bloomBiofix', { plant, event, date: f.date(seen) })}</span>
      <Button
        isDisabled={update.isBarred}
        onPress={() =>
          void update.save({
            params: { ...params, watchId: watch.id },
            input: { ...kept, biofix: seen, biofixNote: t('detail.bloomBiofixNote', { plant, event }) },
          })
        }
      >
        {t('detail.takeBloomBiofix', { date: f.date(seen) })}
      </Button>
    </Line>
  )
}

/** What still helps when it is too late, and what to do where a treatment reaches little. */
function Advice({ forecast, organism }: { forecast: WatchForecast; organism: Organism | undefined }) {
  const t = useText()
  const urgency = urgencyOf(forecast)
  if (!organism || forecast.grade !== 'dates') return null
  const poor = urgency === 'poorly-reachable' || currentWindow(forecast)?.state === 'poorly-reachable'
  if (poor && organism.poorlyReachable) return <p data-testid="advice">{t('advice.poor', { text: organism.poorlyReachable })}</p>
  return urgency === 'past' ? <p data-testid="advice">{t('advice.late', { text: organism.tooLate })}</p> : null
}
