import { endpoints, type ResponseOf } from '@bocado/contract'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useLocation, useNavigate } from 'react-router'
import { call } from '../api/client.js'
import { watched } from '../api/hooks.js'
import { useSession } from '../api/session.js'
import { useEntry } from '../api/useEntry.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Line, Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Door } from './Door.js'
import { Sent } from './Sent.js'
import '../messages/en/account.js'

type Given = ResponseOf<typeof endpoints.account.lookAtLink>

/** Where a link leads: a place at a site, or a new password. What stands behind its # is sent in no address. */
export function ComeInScreen() {
  const t = useText()
  const token = useLocation().hash.slice(1)
  const { data, error } = useQuery({
    queryKey: ['link', token],
    enabled: token !== '',
    throwOnError: false,
    queryFn: () => watched(call(endpoints.account.lookAtLink, { params: {}, input: { token } }, { idempotencyKey: crypto.randomUUID() })),
  })
  if (token === '') return <Closed words={t('account.noLink')} />
  if (error) return <Closed words={error.message} />
  if (!data) return <Door title={t('account.comeIn')}>{t('account.looking')}</Door>
  return <Given given={data} token={token} />
}

function Closed({ words }: { words: string }) {
  const t = useText()
  return (
    <Door title={t('account.comeIn')}>
      <FormError text={words} />
      <Link to="/">{t('account.toSignIn')}</Link>
    </Door>
  )
}

function Given({ given, token }: { given: Given; token: string }) {
  const t = useText()
  const navigate = useNavigate()
  const person = useSession()?.person ?? null
  const isReset = given.kind === 'reset'
  const [asOther, setAsOther] = useState(false)
  const asSelf = !isReset && person !== null && !asOther
  const entry = useEntry(endpoints.account.useLink, { name: given.name, signInName: '', password: '' })
  const { bind } = entry
  const until = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(given.expiresAt))
  const comeIn = async (): Promise<void> => {
    const session = await entry.submit({}, (v) => (asSelf ? { token } : isReset ? { token, password: v.password } : { token, ...v }))
    if (session) await navigate('/', { replace: true })
  }
  return (
    <Door
      title={isReset ? t('account.reset', { name: given.name }) : t('account.comeInTo', { site: given.site ?? '' })}
      text={
        isReset
          ? t('account.resetText', { by: given.invitedBy, until })
          : t('account.comeInText', { by: given.invitedBy, role: t(`role.${given.role ?? 'viewer'}`), until })
      }
    >
      <Sent onSend={comeIn}>
        {asSelf ? (
          <Small>{t('account.comeInAs', { name: person.name })}</Small>
        ) : (
          <>
            {isReset ? null : (
              <>
                <TextField label={t('account.name')} autoComplete="name" {...bind.text('name')} />
                <TextField label={t('account.signInName')} autoComplete="username" autoFocus {...bind.text('signInName')} />
              </>
            )}
            <TextField label={t('account.passwordNew')} autoComplete="new-password" {...bind.text('password')} />
            <Small>{t('account.passwordHint')}</Small>
          </>
        )}
        <FormError text={entry.general} />
        <Line>
          <Button type="submit" isDisabled={entry.isBarred}>
            {isReset ? t('account.resetDo') : asSelf ? t('account.comeInAsSelf', { name: person.name }) : t('account.comeIn')}
          </Button>
          {asSelf ? <TextButton onPress={() => setAsOther(true)}>{t('account.comeInOther')}</TextButton> : null}
        </Line>
      </Sent>
    </Door>
  )
}
