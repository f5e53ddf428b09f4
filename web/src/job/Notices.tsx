import { endpoints, noticeWays, type JobSheet, type Notice } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/job.js'

/** Consents and permits that hold for a job, who was told of it, and a line to add whom one has told. */
export function Notices({ treatmentId, found }: { treatmentId: string; found: JobSheet }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [isTelling, setTelling] = useState(false)
  const { permissions, notices } = found
  return (
    <Stack $gap={8}>
      <Heading>{t('job.allowed')}</Heading>
      {permissions.length === 0 && notices.length === 0 ? <Small>{t('job.nobodyAsked')}</Small> : null}
      <Rows>
        {permissions.map((one) => (
          <li key={one.id}>
            {t(`permission.says.${one.kind}`, { who: one.byWhom })},{' '}
            <Quiet>
              {[
                one.validUntil === null ? t('permission.noEnd') : t('permission.until', { date: f.withYear(one.validUntil) }),
                one.reference,
              ]
                .filter(Boolean)
                .join(', ')}
            </Quiet>
          </li>
        ))}
        {notices.map((notice) => (
          <li key={notice.id}>
            {t('job.told', { who: notice.toWhom, way: notice.way, date: f.date(notice.givenOn) })}{' '}
            <span className="off-paper">
              <RemoveButton
                remove={endpoints.permissions.removeNotice}
                restore={endpoints.permissions.restoreNotice}
                params={{ siteId: site.id, noticeId: notice.id }}
                rowVersion={notice.rowVersion}
                label={t('job.removeTold', { who: notice.toWhom })}
                said={t('job.toldRemoved', { who: notice.toWhom })}
              />
            </span>
          </li>
        ))}
      </Rows>
      <div className="off-paper">
        {isTelling ? (
          <TellForm treatmentId={treatmentId} onDone={() => setTelling(false)} />
        ) : (
          <Line $gap={14}>
            <TextButton onPress={() => setTelling(true)}>{t('job.tell')}</TextButton>
            <Link to="?notice">{t('job.printNotice')}</Link>
          </Line>
        )}
      </div>
    </Stack>
  )
}

function TellForm({ treatmentId, onDone }: { treatmentId: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.permissions.giveNotice,
    { toWhom: '', way: 'told' as Notice['way'], givenOn: site.today as string | null },
    null,
    treatmentId,
  )
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, (values) => ({ ...values, treatmentId }))) onDone()
  }
  return (
    <Stack>
      <Fields>
        <TextField label={t('job.toWhom')} width="24ch" {...entry.bind.text('toWhom')} autoFocus />
        <Select
          label={t('job.way')}
          placeholder={t('choose')}
          width="18ch"
          options={noticeWays.map((id) => ({ id, label: t(`job.way.${id}`) }))}
          {...entry.bind.choice('way')}
        />
        <DateField label={t('job.toldOn')} {...entry.bind.day('givenOn')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
