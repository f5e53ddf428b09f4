import { endpoints } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { hasPasskeys, makePasskey, wasLetBe } from './passkeys.js'
import '../messages/en/account.js'

/** One's passkeys, and the way to another. */
export function Passkeys() {
  const t = useText()
  const client = useQueryClient()
  const { data = [] } = useRead(endpoints.account.passkeys, { params: {}, input: {} })
  const { save, isBarred } = useWrite(endpoints.account.removePasskey)
  const [name, setName] = useState<string | null>(null)
  const [refused, setRefused] = useState<string | null>(null)
  const make = async (): Promise<void> => {
    try {
      await makePasskey((name ?? '').trim())
      setName(null)
      setRefused(null)
    } catch (error) {
      setRefused(wasLetBe(error) ? t('account.passkeyLetBe') : error instanceof Error ? error.message : String(error))
    }
    await client.invalidateQueries({ queryKey: [endpoints.account.passkeys.path] })
  }
  const day = (iso: string): string => new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(iso))
  return (
    <Stack>
      <Heading>{t('account.passkeys')}</Heading>
      <Small>{t('account.passkeysText')}</Small>
      {data.length > 0 ? (
        <Rows>
          {data.map(({ id, name: called, since, usedAt }) => (
            <li key={id}>
              <Line>
                <span>
                  {called} <Quiet>{t('account.passkeySince', { since: day(since), used: usedAt ? day(usedAt) : 'never' })}</Quiet>
                </span>
                <TextButton
                  isDisabled={isBarred}
                  aria-label={t('account.passkeyRemove', { name: called })}
                  onPress={() => void save({ params: { passkeyId: id }, input: {} })}
                >
                  {t('remove')}
                </TextButton>
              </Line>
            </li>
          ))}
        </Rows>
      ) : null}
      {!hasPasskeys() ? (
        <Small>{t('account.passkeyNotHere')}</Small>
      ) : name === null ? (
        <TextButton onPress={() => setName('')}>{t('account.passkeyAdd')}</TextButton>
      ) : (
        <>
          <TextField label={t('account.passkeyName')} value={name} onChange={setName} autoFocus />
          <Line>
            <Button onPress={() => void make()} isDisabled={name.trim() === ''}>
              {t('account.passkeyMake')}
            </Button>
            <Button $plain onPress={() => setName(null)}>
              {t('cancel')}
            </Button>
          </Line>
        </>
      )}
      <FormError text={refused} />
    </Stack>
  )
}
