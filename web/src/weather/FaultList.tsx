import { endpoints, type Fault, type Station } from '@bocado/contract'
import styled from 'styled-components'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/controls.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

const Row = styled.div<{ $open: boolean }>`
  border-left: 5px solid ${({ $open }) => ($open ? colour.pollen : 'transparent')};
  padding-left: 10px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 4px 16px;
  @media (max-width: 720px) {
    grid-template-columns: minmax(0, 1fr);
  }
`

/** Readings of the season that are not believed, what stands in for them, and what somebody decided. */
export function FaultList({ station, season }: { station: Station; season: string }) {
  const t = useText()
  const site = useSite()
  const params = { siteId: site.id, stationId: station.id }
  const { data: faults = [] } = useRead(endpoints.weather.faults, { params, input: { season } })
  const { save, isSaving } = useWrite(endpoints.weather.decideFaults)
  const decide = (decision: Fault['decision'], which: readonly Fault[]): void =>
    void save({ params, input: { decision, faults: which.map(({ variable, from, to }) => ({ variable, from, to })) } })
  const open = faults.filter(({ decision }) => decision === 'open')
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('faults.title', { open: open.length })}</Heading>
        {open.length > 1 ? (
          <TextButton isDisabled={isSaving} onPress={() => decide('accepted', open)}>
            {t('faults.acceptAll', { count: open.length })}
          </TextButton>
        ) : null}
      </Line>
      <Small>{t('faults.explain')}</Small>
      <Rows>
        {faults.map((fault) => (
          <li key={`${fault.variable}${fault.from}`}>
            <FaultRow fault={fault} onDecide={(decision) => decide(decision, [fault])} />
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function FaultRow({ fault, onDecide }: { fault: Fault; onDecide: (decision: Fault['decision']) => void }) {
  const t = useText()
  const f = useFormat()
  const value = (v: number): string => {
    if (fault.variable === 'temperature') return f.temperature(v)
    if (fault.variable === 'humidity') return `${f.number(v)} %`
    if (fault.variable === 'wetness') return f.percent(v)
    if (fault.variable === 'soil') return f.temperature(v)
    return fault.variable === 'rain' ? f.rain(v) : f.wind(v)
  }
  const span = (s: Fault['read']): string =>
    s === null ? '' : value(s.low) === value(s.high) ? value(s.low) : t('interval', { low: value(s.low), high: value(s.high) })
  const read = fault.read ? t('faults.read', { span: span(fault.read) }) : t('faults.notRead')
  const methods = fault.methods.map((method) => t(`method.fill.${method}`)).join(', ')
  const standsIn = fault.standsIn ? t('faults.standsIn', { span: span(fault.standsIn), methods }) : t('faults.unknown')
  return (
    <Row $open={fault.decision === 'open'}>
      <span>
        <b>{t('faults.what', { variable: t(`variable.${fault.variable}`), flag: t(`flag.${fault.flag}`) })}</b> {f.moment(fault.from)}
        {fault.hours > 1 ? t('faults.hours', { hours: fault.hours }) : ''}: {read}{' '}
        {fault.decision === 'overruled'
          ? t('faults.believed')
          : fault.flag === 'drift' && fault.decision === 'open'
            ? t('faults.suspected', { span: span(fault.standsIn), methods })
            : standsIn}{' '}
        {fault.decidedBy ? <Quiet>{t('faults.by', { person: fault.decidedBy })}</Quiet> : null}
      </span>
      <Line>
        {fault.decision === 'open' ? (
          <>
            <TextButton onPress={() => onDecide('accepted')}>{t('faults.accept')}</TextButton>
            {fault.read ? <TextButton onPress={() => onDecide('overruled')}>{t('faults.believe')}</TextButton> : null}
          </>
        ) : (
          <TextButton onPress={() => onDecide('open')}>{t('faults.reopen')}</TextButton>
        )}
      </Line>
    </Row>
  )
}
