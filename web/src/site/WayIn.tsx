import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** How a phone reaches this server: shown where it is asked for. */
export function WayIn() {
  const t = useText()
  const [isOpen, setOpen] = useState(false)
  return (
    <Stack>
      <TextButton onPress={() => setOpen(!isOpen)} aria-expanded={isOpen}>
        {t('way.title')}
      </TextButton>
      {isOpen ? <Ways /> : null}
    </Stack>
  )
}

function Ways() {
  const t = useText()
  const { data } = useRead(endpoints.account.wayIn, { params: {}, input: {} })
  if (!data) return <Small>{t('waiting')}</Small>
  const { addresses, trust, fingerprint, code } = data
  if (addresses.length === 0) return <Small>{t('way.none')}</Small>
  return (
    <Stack>
      {code ? (
        <img
          src={`data:image/svg+xml;utf8,${encodeURIComponent(code)}`}
          alt={t('way.code', { address: trust ?? addresses[0] })}
          width={180}
          height={180}
        />
      ) : null}
      {trust ? (
        <>
          <p>{t('way.trust', { trust })}</p>
          <Caution>
            {t('way.fingerprint')} <code>{fingerprint}</code>
          </Caution>
          <p>{t('way.then')}</p>
        </>
      ) : (
        <p>{t('way.open')}</p>
      )}
      <Rows>
        {addresses.map((address) => (
          <li key={address}>
            <Quiet>{address}</Quiet>
          </li>
        ))}
      </Rows>
    </Stack>
  )
}
