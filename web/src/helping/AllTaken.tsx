import { endpoints, type HelpDay } from '@bocado/contract'
import { useState } from 'react'
import { RequestProblem } from '../api/client.js'
import { useRecorded } from '../api/useRecorded.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { useText } from '../messages/useText.js'

/** One tap: nothing stands there any more, by one’s own hand, or as one sees it where one only looks. */
export function AllTaken(p: { flag: HelpDay['flags'][number]; on: string; byHand: boolean; isBarred?: boolean }) {
  const { flag, on, byHand, isBarred = false } = p
  const t = useText()
  const site = useSite()
  const work = useRecorded(endpoints.helping.work)
  const [refused, setRefused] = useState<string | null>(null)
  const { number } = flag
  const take = async (): Promise<void> => {
    setRefused(null)
    try {
      const input = { flagId: flag.id, sight: 'none' as const, taken: null, helpedOn: on, note: '' }
      await work.save({ params: { siteId: site.id }, input }, t('helping.saysWork', { number, sight: byHand ? 'none' : 'unseen' }))
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      setRefused(error.problem.detail)
    }
  }
  return (
    <>
      <Button
        aria-label={byHand ? t('helping.clearNamed', { number }) : t('helping.noneNamed', { number })}
        isDisabled={work.isPending || isBarred}
        onPress={() => void take()}
        style={{ minHeight: 48 }}
      >
        {byHand ? t('helping.clear') : t('helping.none')}
      </Button>
      <FormError text={refused} />
    </>
  )
}
