import { endpoints, type Trap } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Line, Sheet, Small, Stack } from '../design/text.js'
import { font } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Code = styled.code`
  font-family: ${font.figures};
  overflow-wrap: anywhere;
`

/** A counter that sends what a trap catches, and the token that lets it. */
export function CounterPart({ trap }: { trap: Trap }) {
  const t = useText()
  const site = useSite()
  const params = { siteId: site.id, trapId: trap.id }
  const issue = useWrite(endpoints.traps.issueToken)
  const end = useWrite(endpoints.traps.endToken)
  const [token, setToken] = useState<string | null>(null)
  if (issue.lacking) return null
  const let_ = async (): Promise<void> => setToken((await issue.save({ params, input: {} })).token)
  const sendAway = async (): Promise<void> => {
    await end.save({ params, input: {} })
    setToken(null)
  }
  return (
    <Stack>
      <Small>{t(trap.hasCounter ? 'traps.counterThere' : 'traps.counterNone')}</Small>
      {token ? (
        <Sheet>
          <Stack $gap={6}>
            <p>{t('traps.address')}</p>
            <Code>{`${window.location.origin}/api/v1/traps/${trap.id}/catches`}</Code>
            <p>{t('traps.token')}</p>
            <Code data-testid="token">{token}</Code>
            <p>{t('traps.body')}</p>
            <Code>{`{"catches":[{"day":"${site.today}","caught":3}]}`}</Code>
          </Stack>
        </Sheet>
      ) : null}
      <Line>
        <Button $plain isDisabled={issue.isBarred} onPress={() => void let_()}>
          {t(trap.hasCounter ? 'traps.issueNew' : 'traps.issue')}
        </Button>
        {trap.hasCounter ? (
          <TextButton isDisabled={end.isBarred} onPress={() => void sendAway()}>
            {t('traps.end')}
          </TextButton>
        ) : null}
      </Line>
    </Stack>
  )
}
