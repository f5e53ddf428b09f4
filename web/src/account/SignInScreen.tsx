import { endpoints, type Session } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { takeSession } from '../api/takeSession.js'
import { useEntry } from '../api/useEntry.js'
import { Button } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Line, Rows, Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Door } from './Door.js'
import { OnPhone } from './OnPhone.js'
import { Sent } from './Sent.js'
import { hasPasskeys, signInByPasskey, wasLetBe } from './passkeys.js'
import '../messages/en/account.js'

const NEW = 'new'

/** Where nobody is signed in: who comes in on a shared phone, the people of the demonstration, the first account of a server, or a name and a password. */
export function SignInScreen({ session }: { session: Session }) {
  const [byOther, setByOther] = useState(false)
  if (session.phone && !byOther) return <OnPhone phone={session.phone} onOther={() => setByOther(true)} />
  if (session.demo) return <Demonstration people={session.demo} />
  return session.first ? <FirstAccount people={session.first} /> : <ByPassword />
}

function Demonstration({ people }: { people: NonNullable<Session['demo']> }) {
  const t = useText()
  const { save, isBarred } = useWrite(endpoints.account.demoSignIn)
  const [refused, setRefused] = useState<string | null>(null)
  const comeIn = async (personId: string): Promise<void> => {
    try {
      await save({ params: {}, input: { personId } })
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <Door title={t('account.demo')} text={t('account.demoText')}>
      <Rows>
        {people.map(({ id, name, role }) => (
          <li key={id}>
            <Line>
              <Button $plain onPress={() => void comeIn(id)} isDisabled={isBarred}>
                {t('account.demoPerson', { name, role: t(`role.${role}`) })}
              </Button>
              <Small>{t(`does.${role}`)}</Small>
            </Line>
          </li>
        ))}
      </Rows>
      <FormError text={refused} />
    </Door>
  )
}

function ByPassword() {
  const t = useText()
  const client = useQueryClient()
  const entry = useEntry(endpoints.account.signIn, { signInName: '', password: '' })
  const { bind } = entry
  const comeIn = async (): Promise<void> => {
    await entry.submit({})
  }
  const [refused, setRefused] = useState<string | null>(null)
  const byPasskey = async (): Promise<void> => {
    try {
      await takeSession(client, await signInByPasskey())
    } catch (error) {
      setRefused(wasLetBe(error) ? null : error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <Door title={t('account.signIn')}>
      <Sent onSend={comeIn}>
        <TextField label={t('account.signInName')} autoComplete="username" autoFocus {...bind.text('signInName')} />
        <TextField label={t('account.password')} autoComplete="current-password" {...bind.text('password')} />
        <FormError text={entry.general ?? refused} />
        <Line>
          <Button type="submit" isDisabled={entry.isBarred}>
            {t('account.signIn')}
          </Button>
          {hasPasskeys() ? (
            <Button $plain onPress={() => void byPasskey()}>
              {t('account.byPasskey')}
            </Button>
          ) : null}
        </Line>
      </Sent>
      <Small>{t('account.forgot')}</Small>
      <Small>{t('account.invited')}</Small>
    </Door>
  )
}

function FirstAccount({ people }: { people: NonNullable<Session['first']> }) {
  const t = useText()
  const [only] = people
  const entry = useEntry(endpoints.account.begin, {
    personId: only?.id ?? NEW,
    name: only?.name ?? '',
    signInName: '',
    password: '',
  })
  const { bind, values, set } = entry
  const begin = async (): Promise<void> => {
    await entry.submit({}, (v) => ({ ...v, personId: v.personId === NEW ? null : v.personId }))
  }
  return (
    <Door title={t('account.begin')} text={t('account.beginText')}>
      <Sent onSend={begin}>
        {people.length > 0 ? (
          <Select
            label={t('account.beginAs')}
            placeholder={t('choose')}
            options={[
              ...people.map(({ id, name, site }) => ({ id, label: t('account.beginPerson', { name, site }) })),
              { id: NEW, label: t('account.beginNew') },
            ]}
            value={values.personId}
            error={entry.errors['personId']}
            onChange={(personId) => set({ personId, name: people.find(({ id }) => id === personId)?.name ?? '' })}
          />
        ) : null}
        {values.personId === NEW ? <TextField label={t('account.name')} autoComplete="name" autoFocus {...bind.text('name')} /> : null}
        <TextField label={t('account.signInName')} autoComplete="username" {...bind.text('signInName')} />
        <TextField label={t('account.passwordNew')} autoComplete="new-password" {...bind.text('password')} />
        <Small>{t('account.passwordHint')}</Small>
        <FormError text={entry.general} />
        <Line>
          <Button type="submit" isDisabled={entry.isBarred}>
            {t('account.beginDo')}
          </Button>
        </Line>
      </Sent>
    </Door>
  )
}
