import type { Treatment, WatchForecast } from '@bocado/contract'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBlocks } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Empty, Line, Page, PlainTable, Stack, Title } from '../design/text.js'
import { colour, font, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useNow } from '../shell/useNow.js'
import '../messages/en/job.js'
import '../messages/en/work.js'

const Door = styled.section`
  border: 3px solid ${colour.ink};
  background: ${colour.white};
  padding: 28px;
  display: grid;
  gap: 16px;
  font-size: ${size.large};
  h2 {
    font: 650 ${size.title} ${font.heading};
    margin: 0;
  }
`

/** What is hung at the gate of treated ground: what was used, from when to when, and until when nobody goes in. */
export function Posting({ row, treatment }: { row: WatchForecast; treatment: Treatment }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const now = useNow()
  const { data: blocks = [] } = useBlocks(site.id)
  const { done } = treatment
  const block = blocks.find(({ id }) => id === row.watch.blockId)
  if (!done?.label || done.reEntryUntil === null)
    return (
      <Page>
        <Empty>
          <p>{t('posting.none')}</p>
          <Link to={`/sites/${site.id}/treatments`}>{t('job.back')}</Link>
        </Empty>
      </Page>
    )
  const { label } = done
  const isShut = Date.parse(done.reEntryUntil) > now
  const lines = [
    [t('posting.what'), label.name],
    [t('posting.registration'), label.registration],
    [t('posting.active'), label.active],
    [t('posting.where'), [block?.name ?? '', treatment.placeName === block?.name ? '' : treatment.placeName].filter(Boolean).join(', ')],
    [t('posting.begun'), f.moment(done.startedAt)],
    [t('posting.ended'), done.endedAt === null ? '' : f.moment(done.endedAt)],
    [t('posting.harvest'), label.preHarvestDays === 0 ? '' : f.date(f.nudge(done.day, label.preHarvestDays))],
    [t('posting.gear'), label.protection],
    [t('posting.by'), done.doneByName],
  ].filter(([, value]) => value !== '')
  return (
    <Page>
      <div className="off-paper">
        <Stack>
          <Title>{t('posting.title')}</Title>
          <Line>
            <Button onPress={() => window.print()}>{t('job.print')}</Button>
            <Link to={`/sites/${site.id}/treatments`}>{t('job.back')}</Link>
          </Line>
        </Stack>
      </div>
      <Door>
        <h2>
          {isShut
            ? t('posting.keepOut', { until: f.moment(done.reEntryUntil) })
            : t('posting.open', { since: f.moment(done.reEntryUntil) })}
        </h2>
        <PlainTable>
          <tbody>
            {lines.map(([name, value]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td>{value}</td>
              </tr>
            ))}
          </tbody>
        </PlainTable>
        <p>{t('posting.ask', { site: site.name })}</p>
      </Door>
    </Page>
  )
}
