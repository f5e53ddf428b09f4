import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { Page, Quiet, Rows, Small, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import '../messages/en/alerts.js'

/** Often enough for whoever waits for a letter. */
const LOOK_EVERY_MS = 5000

/** Mail that the demonstration would have sent. */
export function InboxScreen() {
  const t = useText()
  const f = useFormat()
  usePageTitle(t('inbox.title'))
  const { data } = useRead(endpoints.alerts.inbox, { params: {}, input: {} }, true, LOOK_EVERY_MS)
  if (!data) return <Waiting />
  return (
    <Page>
      <Title>{t('inbox.title')}</Title>
      <Small>{t(data.length === 0 ? 'inbox.none' : 'inbox.text')}</Small>
      <Rows data-testid="inbox">
        {data.map(({ id, to, subject, text, sentAt }) => (
          <li key={id}>
            <b>{subject}</b> <Quiet>{t('inbox.to', { to, when: f.moment(sentAt) })}</Quiet>
            <p style={{ whiteSpace: 'pre-wrap' }}>{text}</p>
          </li>
        ))}
      </Rows>
    </Page>
  )
}
