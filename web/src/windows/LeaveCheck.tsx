import type { Block, Organism, WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { TextButton } from '../design/buttons.js'
import { Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'
import { AddCheckArea } from '../scouting/AddCheckArea.js'
import { partLater } from '../shell/partLater.js'
import '../messages/en/leaveCheck.js'
import '../messages/en/work.js'

const CheckTells = partLater(async () => (await import('./CheckTells.js')).CheckTells)

/** A check is left before something is done, or never: that it is missing, what it would tell, and where to mark it out. */
export function LeaveCheck(p: { forecast: WatchForecast; organism: Organism; block: Block }) {
  const t = useText()
  const [isAdding, setAdding] = useState(false)
  const { checkAreas } = p.block
  return (
    <Stack $gap={4} data-part="check" data-testid="leave-check">
      <Small>
        {checkAreas.length > 0 ? t('leave.some', { names: checkAreas.map(({ name }) => name).join(', ') }) : t('leave.none')}{' '}
        {isAdding || checkAreas.length > 0 ? null : <TextButton onPress={() => setAdding(true)}>{t('check.add')}</TextButton>}
      </Small>
      {isAdding ? <AddCheckArea block={p.block} onDone={() => setAdding(false)} /> : null}
      <Unfold title={t('leave.open')}>
        <CheckTells {...p} />
      </Unfold>
    </Stack>
  )
}
