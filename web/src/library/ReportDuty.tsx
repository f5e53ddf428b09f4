import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Caution } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/duties.js'

/** Whom to tell of an organism that must be reported here; what to check, where the library knows of such a duty elsewhere. */
export function ReportDuty({ organismId }: { organismId: string }) {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.library.reportDuties, { params: { siteId: site.id }, input: {} })
  const duty = data?.listed.find((one) => one.organismId === organismId)
  if (duty)
    return (
      <Caution data-testid="report-duty">
        <b>{t('duty.must')}</b> {t('duty.tell', { whom: duty.whom })} {duty.note}
      </Caution>
    )
  const check = data?.toCheck.find((one) => one.organismId === organismId)
  return check ? <Caution data-testid="report-duty">{t('duty.check', { text: check.text })}</Caution> : null
}
