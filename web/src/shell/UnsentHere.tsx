import { Link, useParams } from 'react-router'
import { useUnsent, type Unsent } from '../api/unsent.js'
import { Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/unsent.js'

/** What was recorded of one thing and waits on this device, where the thing stands; nothing while all is stored. */
export function UnsentHere({ of }: { of: (item: Unsent) => boolean }) {
  const t = useText()
  const { siteId } = useParams()
  const waiting = useUnsent().filter((item) => item.params['siteId'] === siteId && of(item))
  return waiting.map(({ id, says, refused }) => (
    <Small key={id} data-testid="unsent-here">
      {refused === null ? (
        t('unsent.here', { what: says })
      ) : (
        <>
          <b>{t('unsent.hereRefused', { what: says })}</b> <Link to={`/sites/${siteId}/unsent`}>{t('unsent.look')}</Link>
        </>
      )}
    </Small>
  ))
}
