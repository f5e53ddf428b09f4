import { endpoints, type Organism } from '@bocado/contract'
import styled from 'styled-components'
import { useRecorded } from '../api/useRecorded.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import '../messages/en/work.js'

const Tap = styled(Button)`
  justify-self: start;
  @media ${PHONE} {
    width: 100%;
  }
`

/** A round in which the usual number of sample units was looked at and nothing found: recorded by one tap, taken back by another. */
export function FoundNothing({ watchId, sampling, name }: { watchId: string; sampling: Organism['sampling']; name: string }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const { isPast } = useSeasonChoice()
  const create = useRecorded(endpoints.scouting.create)
  if (isPast) return null
  const { suggestedUnits: count, unit: one, units: many, itemsPerUnit: items } = sampling
  const record = async (): Promise<void> => {
    const says = t('scouting.nothingSaid', { name, count, units: many })
    const input = {
      watchId,
      countedOn: site.today,
      units: Array.from({ length: count }, () => ({})),
      unit: { one, many, items },
      scale: sampling.scale,
    }
    const { takeBack } = await create.save({ params: { siteId: site.id }, input }, says)
    if (takeBack) undo.offer(says, takeBack)
  }
  return (
    <Tap
      $plain
      // Two taps of one thumb are one round.
      isDisabled={create.isBarred}
      onPress={() => void record()}
      aria-label={t('scouting.nothingNamed', { name, count, units: many })}
    >
      {t('scouting.nothing', { count, units: many })}
    </Tap>
  )
}
