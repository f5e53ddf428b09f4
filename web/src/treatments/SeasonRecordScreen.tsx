import { Link } from 'react-router'
import { useState } from 'react'
import { useBand, useBlocks } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { activesOn, doneDeeds, REPORT_BY, reportBy, wasteOf, type ActiveSum, type ReportBy, type ReportLine } from '../band/report.js'
import { Button } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Bullets, Caution, Heading, Line, Page, PlainTable, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type MessageId } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import '../messages/en/record.js'
import '../messages/en/report.js'

const MINUTES_PER_HOUR = 60

/** What was done in a season, put together for an inspector, a buyer or oneself: by place, product, group, person; actives against their caps. */
export function SeasonRecordScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  usePageTitle(t('report.title'))
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const [by, setBy] = useState<ReportBy>('place')
  if (!band || !blocks) return <Waiting />
  const deeds = doneDeeds(band.watches, (id) => blocks.find((block) => block.id === id)?.name ?? '')
  const lines = reportBy(by, deeds)
  const actives = activesOn(deeds, new Map(blocks.map(({ id, areaHa }) => [id, areaHa])))
  const waste = wasteOf(deeds)
  const [unsigned, departed] = [lines.reduce((sum, one) => sum + one.unsigned, 0), lines.reduce((sum, one) => sum + one.departed, 0)]
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <div>
          <Title>{t('report.of', { site: site.name, from: f.withYear(site.season.start), to: f.withYear(site.season.end) })}</Title>
          <Small>{t('report.says', { count: deeds.length, departed, unsigned })}</Small>
        </div>
        <div className="off-paper">
          <Line>
            <Button $plain onPress={() => window.print()}>
              {t('report.print')}
            </Button>
            <a href={`/api/v1/sites/${site.id}/treatments.csv?season=${site.season.start}`} download>
              {t('report.csv')}
            </a>
            <Link to={`/sites/${site.id}/treatments`}>{t('report.back')}</Link>
          </Line>
        </div>
      </Line>
      <div className="off-paper">
        <Choice label={t('report.by')} options={REPORT_BY.map((id) => ({ id, label: t(`report.by.${id}`) }))} value={by} onChange={setBy} />
      </div>
      {deeds.length === 0 ? <p>{t('report.nothing')}</p> : <Lines by={by} lines={lines} />}
      {actives.length > 0 ? <Actives actives={actives} nameOf={(id) => blocks.find((block) => block.id === id)?.name ?? ''} /> : null}
      {waste.length > 0 ? (
        <Stack $gap={6}>
          <Heading>{t('report.waste')}</Heading>
          <Bullets>
            {waste.map(({ way, times, bags }) => (
              <li key={way}>{t('report.wasteOf', { way: t(`disposal.${way}` as MessageId), times, bags })}</li>
            ))}
          </Bullets>
        </Stack>
      ) : null}
      {deeds.some(({ treatment, done }) => treatment.deviation || done.departures.length > 0) ? (
        <Stack $gap={6}>
          <Heading>{t('report.departed')}</Heading>
          {deeds
            .filter(({ treatment, done }) => treatment.deviation || done.departures.length > 0)
            .map(({ treatment, done, blockName }) => (
              <Caution key={treatment.id}>
                {f.moment(done.startedAt)}, {treatment.name}, {blockName}:{' '}
                {[
                  treatment.deviation?.reason,
                  ...done.departures.map(({ because }) => t(`report.departure.${because}`)),
                  done.departureReason,
                ]
                  .filter(Boolean)
                  .join('; ')}
              </Caution>
            ))}
        </Stack>
      ) : null}
    </Page>
  )
}

function Lines({ by, lines }: { by: ReportBy; lines: readonly ReportLine[] }) {
  const t = useText()
  const f = useFormat()
  return (
    <PlainTable>
      <thead>
        <tr>
          <th scope="col">{t(`report.by.${by}`)}</th>
          <th scope="col">{t('report.times')}</th>
          <th scope="col">{t('report.area')}</th>
          <th scope="col">{t('report.used')}</th>
          <th scope="col">{t('report.hours')}</th>
          <th scope="col">{t('report.bags')}</th>
          <th scope="col">{t('report.notByTheBook')}</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={line.name}>
            <th scope="row">{line.name === '' ? t('report.noneSaid') : line.name}</th>
            <td>{f.number(line.times)}</td>
            <td>{line.areaHa === 0 ? '' : f.area(line.areaHa)}</td>
            <td>
              {[
                ...line.amounts.map(({ name, amount, unit }) => `${name} ${f.number(amount, 2)} ${unit}`),
                line.amountsUnknown > 0 ? t('report.unknown', { count: line.amountsUnknown }) : '',
              ]
                .filter(Boolean)
                .join('; ')}
            </td>
            <td>{line.minutes === 0 ? '' : f.number(line.minutes / MINUTES_PER_HOUR, 1)}</td>
            <td>{line.bags === 0 ? '' : f.number(line.bags)}</td>
            <td>{line.departed === 0 ? '' : f.number(line.departed)}</td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  )
}

/** What was put on each block of each active, against the most that label or law allow. */
function Actives({ actives, nameOf }: { actives: readonly ActiveSum[]; nameOf: (blockId: string) => string }) {
  const t = useText()
  const f = useFormat()
  return (
    <Stack $gap={6}>
      <Heading>{t('report.actives')}</Heading>
      <Small>{t('report.activesHow')}</Small>
      <PlainTable>
        <thead>
          <tr>
            <th scope="col">{t('report.by.place')}</th>
            <th scope="col">{t('report.active')}</th>
            <th scope="col">{t('report.kgHa')}</th>
            <th scope="col">{t('report.most')}</th>
          </tr>
        </thead>
        <tbody>
          {actives.map((one) => (
            <tr key={`${one.blockId}${one.active}`}>
              <th scope="row">{nameOf(one.blockId)}</th>
              <td>{one.active}</td>
              <td>
                {one.kgHa === null ? t('report.notKnown', { count: one.unknown }) : f.number(one.kgHa, 2)}
                {one.isOver ? <Caution>{t('report.over')}</Caution> : null}
              </td>
              <td>{one.mostKgHa === null ? '' : f.number(one.mostKgHa, 2)}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Stack>
  )
}
