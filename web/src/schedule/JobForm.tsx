import { endpoints, jobKinds, type Block, type Job } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import '../messages/en/field.js'
import '../messages/en/weeks.js'

/** Work that no watch asks for: what is done, where, and when. */
export function JobForm({ job, blocks, onDone }: { job?: Job; blocks: readonly Block[]; onDone: (id: string | null) => void }) {
  const t = useText()
  const site = useSite()
  const initial = {
    placeId: job?.placeId ?? (blocks.length === 1 ? (blocks[0]?.id ?? null) : null),
    name: job?.name ?? '',
    kind: job?.kind ?? 'crop-work',
    plannedOn: job?.plannedOn ?? site.today,
    doneOn: job?.doneOn ?? null,
    note: job?.note ?? '',
  }
  const add = useEntry(endpoints.schedule.addJob, initial, null, job ? undefined : site.id)
  const update = useEntry(endpoints.schedule.updateJob, initial, job, job?.id)
  const entry = job ? update : add
  const save = async (): Promise<void> => {
    const stored = job
      ? await update.submit({ siteId: site.id, jobId: job.id }, (v, rowVersion) => ({ ...v, rowVersion }))
      : await add.submit({ siteId: site.id })
    if (stored) onDone(stored.id)
  }
  const where = usePlaceOptions()
  return (
    <Sheet>
      <Stack>
        <Fields>
          <TextField label={t('weeks.jobName')} width="28ch" autoFocus {...entry.bind.text('name')} />
          <Select
            label={t('weeks.jobKind')}
            placeholder={t('choose')}
            width="22ch"
            options={jobKinds.map((id) => ({ id, label: t(`weeks.jobKind.${id}`) }))}
            {...entry.bind.choice('kind')}
          />
          <Select label={t('weeks.jobWhere')} placeholder={t('choose')} width="24ch" options={where} {...entry.bind.choice('placeId')} />
          <DateField label={t('weeks.jobOn')} {...entry.bind.day('plannedOn')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={() => onDone(job?.id ?? null)} />
      </Stack>
    </Sheet>
  )
}
