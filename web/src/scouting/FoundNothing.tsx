import { endpoints, type Organism } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
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
  const create = useWrite(endpoints.scouting.create)
  const remove = useWrite(endpoints.scouting.remove)
  const [isBusy, setBusy] = useState(false)
  if (isPast) return null
  const { suggestedUnits: count, unit: one, units: many, itemsPerUnit: items } = sampling
  const record = async (): Promise<void> => {
    const { id, rowVersion } = await create.save({
      params: { siteId: site.id },
      input: {
        watchId,
        countedOn: site.today,
        units: Array.from({ length: count }, () => ({})),
        unit: { one, many, items },
      },
    })
    undo.offer(t('scouting.nothingSaid', { name, count, units: many }), () =>
      remove.save({ params: { siteId: site.id, roundId: id }, input: { rowVersion } }),
    )
  }
  // Two taps of one thumb are one round.
  const press = (): void => {
    setBusy(true)
    void record().finally(() => setBusy(false))
  }
  return (
    <Tap
      $plain
      isDisabled={create.isBarred || isBusy}
      onPress={press}
      aria-label={t('scouting.nothingNamed', { name, count, units: many })}
    >
      {t('scouting.nothing', { count, units: many })}
    </Tap>
  )
}
