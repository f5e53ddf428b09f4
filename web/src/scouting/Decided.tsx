import { endpoints, type WatchForecast } from '@bocado/contract'
import { useSite } from '../api/workplace.js'
import { Caution, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/work.js'

/** What was decided on the last count, until when it holds, and how it is taken back. */
export function Decided({ row }: { row: Pick<WatchForecast, 'decision'> }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { decision } = row
  if (!decision) return null
  const { kind, reason, personName, decidedOn, lookAgainOn } = decision
  const isDue = lookAgainOn <= site.today
  const said = t('decide.said', {
    kind,
    reason,
    person: personName,
    date: f.date(decidedOn),
    until: f.date(lookAgainOn),
    due: isDue ? 'yes' : 'no',
  })
  return (
    <Stack $gap={4} data-testid="decided">
      {isDue ? <Caution>{said}</Caution> : <Small>{said}</Small>}
      <RemoveButton
        remove={endpoints.scouting.removeDecision}
        restore={endpoints.scouting.restoreDecision}
        params={{ siteId: site.id, decisionId: decision.id }}
        rowVersion={decision.rowVersion}
        words={t('decide.back')}
        said={t('decide.takenBack')}
      />
    </Stack>
  )
}
