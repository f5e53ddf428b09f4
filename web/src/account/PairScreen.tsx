import { endpoints } from '@bocado/contract'
import { Link, useLocation, useNavigate } from 'react-router'
import { useEntry } from '../api/useEntry.js'
import { Button } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Line, Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Door } from './Door.js'
import { Sent } from './Sent.js'
import '../messages/en/account.js'

/** Where the link of a shared phone leads: opened on that phone it pairs it. What stands behind its # is sent in no address. */
export function PairScreen() {
  const t = useText()
  const navigate = useNavigate()
  const token = useLocation().hash.slice(1)
  const entry = useEntry(endpoints.phones.pair, { token })
  const pair = async (): Promise<void> => {
    if (await entry.submit({})) await navigate('/', { replace: true })
  }
  return (
    <Door title={t('phone.pair')} text={t('phone.pairText')}>
      {token === '' ? (
        <FormError text={t('account.noLink')} />
      ) : (
        <Sent onSend={pair}>
          <Small>{t('phone.pairNote')}</Small>
          <FormError text={entry.general ?? entry.errors['token'] ?? null} />
          <Line>
            <Button type="submit" isDisabled={entry.isBarred}>
              {t('phone.pairDo')}
            </Button>
            <Link to="/">{t('account.back')}</Link>
          </Line>
        </Sent>
      )}
    </Door>
  )
}
