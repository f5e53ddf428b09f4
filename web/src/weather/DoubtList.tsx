import { endpoints, type Doubt, type Station } from '@bocado/contract'
import styled from 'styled-components'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { readingWords } from './readingWords.js'

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
export function DoubtList({ station, season }: { station: Station; season: string }) {
  const t = useText()
  const site = useSite()
  const params = { siteId: site.id, stationId: station.id }
  const { data: doubts = [] } = useRead(endpoints.weather.doubts, { params, input: { season } })
  const { save, isBarred } = useWrite(endpoints.weather.decideDoubts)
  const decide = (decision: Doubt['decision'], which: readonly Doubt[]): void =>
    void save({ params, input: { decision, doubts: which.map(({ variable, from, to }) => ({ variable, from, to })) } })
  const open = doubts.filter(({ decision }) => decision === 'open')
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('doubts.title', { open: open.length })}</Heading>
        {open.length > 1 ? (
          <TextButton isDisabled={isBarred} onPress={() => decide('accepted', open)}>
            {t('doubts.acceptAll', { count: open.length })}
          </TextButton>
        ) : null}
      </Line>
      <Small>{t('doubts.explain')}</Small>
      <Rows>
        {doubts.map((doubt) => (
          <li key={`${doubt.variable}${doubt.from}`}>
            <DoubtRow doubt={doubt} onDecide={(decision) => decide(decision, [doubt])} />
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function DoubtRow({ doubt, onDecide }: { doubt: Doubt; onDecide: (decision: Doubt['decision']) => void }) {
  const t = useText()
  const f = useFormat()
  const value = (v: number): string => readingWords(doubt.variable, v, f)
  const span = (s: Doubt['read']): string =>
    s === null ? '' : value(s.low) === value(s.high) ? value(s.low) : t('interval', { low: value(s.low), high: value(s.high) })
  const read = doubt.read ? t('doubts.read', { span: span(doubt.read) }) : t('doubts.notRead')
  const methods = doubt.methods.map((method) => t(`method.fill.${method}`)).join(', ')
  // Of whole days of a file nothing stands in here: they are filled as days that are missing.
  const notThere = doubt.methods.length > 0 ? t('doubts.unknown') : t('doubts.leftOut')
  const standsIn = doubt.standsIn ? t('doubts.standsIn', { span: span(doubt.standsIn), methods }) : notThere
  return (
    <Row $open={doubt.decision === 'open'}>
      <span>
        <b>{t('doubts.what', { variable: t(`variable.${doubt.variable}`), flag: t(`flag.${doubt.flag}`) })}</b> {f.moment(doubt.from)}
        {doubt.hours > 1 ? t('doubts.hours', { hours: doubt.hours }) : ''}: {read}{' '}
        {doubt.decision === 'overruled'
          ? t('doubts.believed')
          : doubt.flag === 'drift' && doubt.decision === 'open'
            ? t('doubts.suspected', { span: span(doubt.standsIn), methods })
            : standsIn}{' '}
        {doubt.decidedBy ? <Quiet>{t('doubts.by', { person: doubt.decidedBy })}</Quiet> : null}
      </span>
      <Line>
        {doubt.decision === 'open' ? (
          <>
            <TextButton onPress={() => onDecide('accepted')}>{t('doubts.accept')}</TextButton>
            {doubt.read ? <TextButton onPress={() => onDecide('overruled')}>{t('doubts.believe')}</TextButton> : null}
          </>
        ) : (
          <TextButton onPress={() => onDecide('open')}>{t('doubts.reopen')}</TextButton>
        )}
      </Line>
    </Row>
  )
}
