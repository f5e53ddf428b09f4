import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { Caution, Quiet, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'

/** How a phone reaches this server: shown where it is asked for. */
export function WayIn() {
  return (
    <Unfold title={useText()('way.title')}>
      <Ways />
    </Unfold>
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
