import { endpoints, type Flag } from '@bocado/contract'
import { useRecorded } from '../api/useRecorded.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'

/** A look at a flag that found nothing: recorded by one tap, taken back by another. */
export function NoneStands({ flag, name }: { flag: Flag; name: string }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const visit = useRecorded(endpoints.flags.visit)
  const record = async (): Promise<void> => {
    const says = t('flags.visitSays', { number: flag.number, name, sight: t('flags.sight.none') })
    const { takeBack } = await visit.save(
      { params: { siteId: site.id }, input: { flagId: flag.id, seenOn: site.today, sight: 'none' } },
      says,
    )
    if (takeBack) undo.offer(says, takeBack)
  }
  return (
    <Button
      $plain
      isDisabled={visit.isBarred}
      onPress={() => void record()}
      aria-label={t('flags.noneNowNamed', { number: flag.number, name })}
    >
      {t('flags.noneNow')}
    </Button>
  )
}
