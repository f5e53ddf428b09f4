import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { RequestProblem } from '../api/client.js'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { useText } from '../messages/useText.js'
import { seasonName } from '../shell/screens.js'
import '../messages/en/review.js'

/** Watches in a season again what was watched in an earlier one; what is watched there already stays as it is. */
export function CarryOn({ from, season }: { from: string; season: string }) {
  const t = useText()
  const site = useSite()
  const carry = useWrite(endpoints.watches.carryOn)
  const [made, setMade] = useState<number | null>(null)
  const [error, setError] = useState<string | null>(null)
  const press = async (): Promise<void> => {
    setError(null)
    try {
      setMade((await carry.save({ params: { siteId: site.id }, input: { from, season } })).length)
    } catch (cause) {
      if (!(cause instanceof RequestProblem)) throw cause
      setError(cause.message)
    }
  }
  if (made !== null) return <p role="status">{t('carry.made', { count: made, season: seasonName(season) })}</p>
  return (
    <>
      <Button $plain onPress={() => void press()} isDisabled={carry.isBarred}>
        {t('carry.on', { from: seasonName(from), season: seasonName(season) })}
      </Button>
      <FormError text={error} />
    </>
  )
}
