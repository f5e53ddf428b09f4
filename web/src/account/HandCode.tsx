import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Heading, Line, Quiet, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Sent } from './Sent.js'

/** One's code of four digits, by which one comes in on a phone that is handed on. */
export function HandCode() {
  const t = useText()
  const { data } = useRead(endpoints.account.code, { params: {}, input: {} })
  const { save, isBarred } = useWrite(endpoints.account.removeCode)
  const [isOpen, setOpen] = useState(false)
  if (!data) return null
  const since = data.since === null ? null : new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' }).format(new Date(data.since))
  return (
    <Stack>
      <Heading>{t('phone.codeTitle')}</Heading>
      <Small>{t('phone.codeText')}</Small>
      {isOpen ? (
        <SetCode onDone={() => setOpen(false)} />
      ) : (
        <Line>
          {since === null ? null : <Quiet>{t('phone.codeSince', { since })}</Quiet>}
          <TextButton onPress={() => setOpen(true)}>{t(since === null ? 'phone.codeSet' : 'phone.codeChange')}</TextButton>
          {since === null ? null : (
            <TextButton isDisabled={isBarred} onPress={() => void save({ params: {}, input: {} })}>
              {t('phone.codeRemove')}
            </TextButton>
          )}
        </Line>
      )}
    </Stack>
  )
}

function SetCode({ onDone }: { onDone: () => void }) {
  const t = useText()
  const entry = useEntry(endpoints.account.setCode, { code: '' })
  const set = async (): Promise<void> => {
    if (await entry.submit({})) onDone()
  }
  return (
    <Sent onSend={set} onLeave={onDone}>
      <TextField label={t('phone.code')} digits={4} autoFocus {...entry.bind.text('code')} />
      <FormError text={entry.general} />
      <Line>
        <Button type="submit" isDisabled={entry.isBarred}>
          {t('phone.codeSet')}
        </Button>
        <Button $plain onPress={onDone}>
          {t('cancel')}
        </Button>
      </Line>
    </Sent>
  )
}
