import { endpoints, type OpenSignIn, type Settings } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { useRead, useWrite } from '../api/hooks.js'
import { useSession } from '../api/session.js'
import { takeSession } from '../api/takeSession.js'
import { useEntry } from '../api/useEntry.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'
import { Door } from './Door.js'
import { HandCode } from './HandCode.js'
import { Passkeys } from './Passkeys.js'
import { Sent } from './Sent.js'
import '../messages/en/account.js'

/** One's own account: where one is signed in, the password, and out. */
export function AccountScreen() {
  const t = useText()
  const session = useSession()
  const out = useWrite(endpoints.account.signOut)
  const [changes, setChanges] = useState(false)
  const [isChanged, setChanged] = useState(false)
  const person = session?.person
  if (!person) return null
  const leave = (everywhere: boolean): Promise<unknown> => out.save({ params: {}, input: { everywhere } })
  return (
    <Door title={t('account.title')}>
      <Stack $gap={18}>
        <p>
          <b>{t('account.signedInAs', { name: person.name })}</b>{' '}
          <Quiet>{person.signInName === null ? t('account.noAccount') : t('account.byName', { signInName: person.signInName })}</Quiet>
        </p>
        <SignIns />
        {person.byCode ? <Small>{t('may.lacking.self')}</Small> : <HandCode />}
        {person.signInName === null || person.byCode ? null : <Passkeys />}
        {isChanged ? <Small role="status">{t('account.changed')}</Small> : null}
        {person.signInName === null || person.byCode ? null : changes ? (
          <ChangePassword
            onDone={(now) => {
              setChanges(false)
              setChanged(now)
            }}
          />
        ) : (
          <TextButton onPress={() => setChanges(true)}>{t('account.change')}</TextButton>
        )}
        {person.byCode ? null : <HowIRead settings={person.settings} />}
        {person.byCode ? null : <KeptOfMe />}
        <Line>
          <Button onPress={() => void leave(false)} isDisabled={out.isBarred}>
            {t(person.byCode ? 'phone.handOver' : 'account.out')}
          </Button>
          {person.byCode ? null : (
            <Button $plain onPress={() => void leave(true)} isDisabled={out.isBarred}>
              {t('account.outEverywhere')}
            </Button>
          )}
          <Link to="/">{t('account.back')}</Link>
        </Line>
      </Stack>
    </Door>
  )
}

const AS_IT_IS = 'own'

/** Units and dates of one's own, on every machine where one is signed in. */
function HowIRead({ settings }: { settings: Settings }) {
  const t = useText()
  const client = useQueryClient()
  const session = useSession()
  const { save, isBarred } = useWrite(endpoints.account.setSettings)
  const choose = async (change: Partial<Settings>): Promise<void> => {
    await save({ params: {}, input: { ...settings, ...change } }, (chosen) => {
      if (session?.person) void takeSession(client, { ...session, person: { ...session.person, settings: chosen } })
    })
    // The page is written anew in the order of dates that was chosen.
    if (change.dates !== undefined) location.reload()
  }
  return (
    <Fields>
      <Select
        label={t('settings.units')}
        placeholder={t('choose')}
        width="26ch"
        isDisabled={isBarred}
        options={[
          { id: AS_IT_IS, label: t('settings.units.own') },
          { id: 'metric', label: t('settings.units.metric') },
          { id: 'us', label: t('settings.units.us') },
        ]}
        value={settings.units ?? AS_IT_IS}
        onChange={(id) => void choose({ units: id === AS_IT_IS ? null : (id as Settings['units']) })}
      />
      <Select
        label={t('settings.dates')}
        placeholder={t('choose')}
        width="22ch"
        isDisabled={isBarred}
        options={[
          { id: AS_IT_IS, label: t('settings.dates.own') },
          { id: 'dmy', label: t('settings.dates.dmy') },
          { id: 'mdy', label: t('settings.dates.mdy') },
        ]}
        value={settings.dates ?? AS_IT_IS}
        onChange={(id) => void choose({ dates: id === AS_IT_IS ? null : (id as Settings['dates']) })}
      />
    </Fields>
  )
}

/** What is kept of who is signed in, and why; shown where it is asked for. */
function KeptOfMe() {
  const t = useText()
  return (
    <Unfold title={t('kept.title')}>
      <Small>{t('kept.text')}</Small>
      <Small>{t('kept.end')}</Small>
      <a href="/api/v1/account/data.json">{t('kept.file')}</a>
    </Unfold>
  )
}

const SYSTEMS = [
  ['Android', /Android/],
  ['iPhone', /iPhone/],
  ['iPad', /iPad/],
  ['Windows', /Windows/],
  ['Mac', /Macintosh/],
  ['Linux', /Linux/],
] as const

/** On what kind of machine a program runs, by what it says of itself. */
export const systemOf = (agent: string): string | undefined => SYSTEMS.find(([, says]) => says.test(agent))?.[0]

function SignIns() {
  const t = useText()
  const { data = [] } = useRead(endpoints.account.signIns, { params: {}, input: {} })
  const { save, isBarred } = useWrite(endpoints.account.endSignIn)
  const agentWords = (agent: string): string => {
    const system = systemOf(agent)
    return system ? t('account.browser', { system }) : t('account.program', { agent: agent || 'none' })
  }
  const moment = (iso: string): string =>
    new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(iso))
  return (
    <Stack>
      <Heading>{t('account.where')}</Heading>
      <Rows>
        {data.map(({ id, how, agent, since, seenAt, isThis }: OpenSignIn) => (
          <li key={id}>
            <Line>
              <span>
                {isThis ? <b>{t('account.here')}</b> : agentWords(agent)}{' '}
                <Quiet>
                  {t(`account.how.${how}`)}, {t('account.since', { since: moment(since), seen: moment(seenAt) })}
                </Quiet>
              </span>
              {isThis ? null : (
                <TextButton isDisabled={isBarred} onPress={() => void save({ params: { signInId: id }, input: {} })}>
                  {t('account.end')}
                </TextButton>
              )}
            </Line>
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function ChangePassword({ onDone }: { onDone: (isChanged: boolean) => void }) {
  const t = useText()
  const entry = useEntry(endpoints.account.changePassword, { current: '', password: '' })
  const { bind } = entry
  const change = async (): Promise<void> => {
    if (await entry.submit({})) onDone(true)
  }
  return (
    <Sent onSend={change} onLeave={() => onDone(false)}>
      <TextField label={t('account.current')} autoComplete="current-password" autoFocus {...bind.text('current')} />
      <TextField label={t('account.passwordNew')} autoComplete="new-password" {...bind.text('password')} />
      <Small>{t('account.passwordHint')}</Small>
      <FormError text={entry.general} />
      <Line>
        <Button type="submit" isDisabled={entry.isBarred}>
          {t('account.change')}
        </Button>
        <Button $plain onPress={() => onDone(false)}>
          {t('cancel')}
        </Button>
      </Line>
    </Sent>
  )
}
