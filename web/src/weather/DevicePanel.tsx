import { endpoints, type Station } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Caution, Heading, Line, Sheet, Small, Stack } from '../design/text.js'
import { font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Code = styled.code`
  font-family: ${font.figures};
  overflow-wrap: anywhere;
`

/** A device that pushes its readings: how it fares, and the token that lets it. */
export function DevicePanel({ station }: { station: Station }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { save, isBarred } = useWrite(endpoints.weather.issueToken)
  const [token, setToken] = useState<string | null>(null)
  const issue = async (): Promise<void> => {
    const issued = await save({ params: { siteId: site.id, stationId: station.id }, input: {} })
    setToken(issued.token)
  }
  const end = useWrite(endpoints.weather.endToken)
  const sendAway = async (): Promise<void> => {
    await end.save({ params: { siteId: site.id, stationId: station.id }, input: {} })
    setToken(null)
  }
  const { device, lastHour, silent, refused } = station
  return (
    <Stack>
      <Heading>{t('device.title')}</Heading>
      <p>{device === 'none' ? t('device.none') : lastHour ? t(`device.${device}`, { when: f.moment(lastHour) }) : t('device.waiting')}</p>
      {silent && lastHour ? <Caution>{t('device.silent', { when: f.moment(lastHour) })}</Caution> : null}
      {refused ? <Caution>{t('device.refused', { when: f.moment(refused.at), because: refused.because })}</Caution> : null}
      {token ? (
        <Sheet>
          <Stack $gap={6}>
            <p>{t('device.address')}</p>
            <Code>{`${window.location.origin}/api/v1/stations/${station.id}/readings`}</Code>
            <p>{t('device.token')}</p>
            <Code data-testid="token">{token}</Code>
            <Small>{t('device.once')}</Small>
          </Stack>
        </Sheet>
      ) : null}
      <Line>
        <Button $plain isDisabled={isBarred} onPress={() => void issue()}>
          {t(device === 'none' ? 'device.issue' : 'device.issueNew')}
        </Button>
        {device === 'pushed' ? (
          <TextButton isDisabled={end.isBarred} onPress={() => void sendAway()}>
            {t('device.end')}
          </TextButton>
        ) : null}
      </Line>
      {device === 'simulated' ? <Small>{t('device.simulatedNote')}</Small> : null}
    </Stack>
  )
}
