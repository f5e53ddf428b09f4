import { endpoints, type Session } from '@bocado/contract'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { RequestProblem } from '../api/client.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Line, Rows, Small } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Door } from './Door.js'
import { Sent } from './Sent.js'

const DIGITS = 4

type SharedPhone = NonNullable<Session['phone']>

/** The door of a phone that is handed on: whoever takes it presses their name and types their code. */
export function OnPhone({ phone, onOther }: { phone: SharedPhone; onOther: () => void }) {
  const t = useText()
  const [who, setWho] = useState<SharedPhone['people'][number] | null>(null)
  if (who) return <Code who={who} onBack={() => setWho(null)} />
  return (
    <Door title={t('phone.who')} text={t('phone.of', { phone: phone.name, site: phone.site })}>
      {phone.people.length === 0 ? (
        <Small>{t('phone.nobody')}</Small>
      ) : (
        <Rows>
          {phone.people.map((person) => (
            <li key={person.id}>
              <Button $plain style={{ width: '100%', minHeight: 56, textAlign: 'left' }} onPress={() => setWho(person)}>
                {t('account.demoPerson', { name: person.name, role: t(`role.${person.role}`) })}
              </Button>
            </li>
          ))}
        </Rows>
      )}
      <TextButton onPress={onOther}>{t('phone.otherWay')}</TextButton>
    </Door>
  )
}

function Code({ who, onBack }: { who: SharedPhone['people'][number]; onBack: () => void }) {
  const t = useText()
  const { save, isBarred } = useWrite(endpoints.account.signInByCode)
  const [code, setCode] = useState('')
  const [refused, setRefused] = useState<string | null>(null)
  const comeIn = async (typed: string): Promise<void> => {
    try {
      await save({ params: {}, input: { personId: who.id, code: typed } })
    } catch (error) {
      setCode('')
      const problem = error instanceof RequestProblem ? error.problem : undefined
      setRefused(problem?.fields?.length ? t('phone.wrong') : error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <Door title={who.name}>
      <Sent onSend={() => comeIn(code)}>
        <TextField
          label={t('phone.code')}
          digits={DIGITS}
          autoFocus
          value={code}
          onChange={(typed) => {
            setCode(typed)
            // The last digit is the Enter key.
            if (typed.length === DIGITS && !isBarred) void comeIn(typed)
          }}
        />
        <FormError text={refused} />
        <Line>
          <Button type="submit" isDisabled={isBarred || code.length < DIGITS}>
            {t('account.comeIn')}
          </Button>
          <Button $plain onPress={onBack}>
            {t('phone.back')}
          </Button>
        </Line>
      </Sent>
      <Small>{t('phone.forgot')}</Small>
    </Door>
  )
}
