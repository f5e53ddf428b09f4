import { endpoints, type InputOf } from '@bocado/contract'
import { useRead, useWrite } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useSite } from '../api/workplace.js'
import { jobFor } from '../band/planting.js'
import { TextButton } from '../design/buttons.js'
import { Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import '../messages/en/prevent.js'

/** Puts work on the schedule by one press; once it stands there, it says for when. */
export function PutOnSchedule({
  placeId,
  name,
  kind,
  day,
}: {
  placeId: string
  name: string
  kind: InputOf<typeof endpoints.schedule.addJob>['kind']
  day: string
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const may = useMay('tend')
  const params = { siteId: site.id }
  const { data: schedule } = useRead(endpoints.schedule.read, { params, input: { season: site.season.start } })
  const add = useWrite(endpoints.schedule.addJob)
  const remove = useWrite(endpoints.schedule.removeJob)
  const there = schedule && jobFor(schedule.jobs, placeId, name)
  if (there) return <Small as="span">{t('prevent.isPut', { date: f.date(there.plannedOn) })}</Small>
  if (!may || !schedule) return null
  const put = async (): Promise<void> => {
    const job = await add.save({ params, input: { placeId, name, kind, plannedOn: day } })
    undo.offer(t('prevent.put.said', { name, date: f.date(day) }), () =>
      remove.save({ params: { siteId: site.id, jobId: job.id }, input: { rowVersion: job.rowVersion } }),
    )
  }
  return (
    <TextButton isDisabled={add.isBarred} aria-label={t('prevent.putOne', { name, date: f.date(day) })} onPress={() => void put()}>
      {t('prevent.put')}
    </TextButton>
  )
}
