import type { Outcome } from '@bocado/contract'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOutcomes } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Explained } from '../design/Explained.js'
import { Columns, Empty, Figure, Heading, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { partLater } from '../shell/partLater.js'
import { BeforeAfter } from './BeforeAfter.js'
import { seasonSum } from './seasonSum.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/work.js'

const Case = styled.article`
  border-top: 2px solid ${colour.ink};
  padding-top: 14px;
`
const Formulas = styled.table`
  td,
  th {
    padding: 4px 16px 4px 0;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid ${colour.rule};
  }
  thead th {
    font-size: 13px;
    color: ${colour.inkSoft};
  }
`

const TrialsPart = partLater(async () => (await import('../trials/TrialsPart.js')).TrialsPart)

/** Of each treatment: what the counts say, what it can claim, and what cannot be said. */
export function OutcomesScreen() {
  const t = useText()
  usePageTitle(t('nav.outcomes'))
  const site = useSite()
  const { data: outcomes } = useOutcomes(site.id, site.season.start)
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  if (!outcomes || !band || !blocks) return <Waiting />
  return (
    <Page>
      <Title>{t('outcomes.title')}</Title>
      {outcomes.length === 0 ? (
        <Empty>
          <p>{t('outcomes.empty')}</p>
          <Link to={`/sites/${site.id}/treatments`}>{t('outcomes.toTreatments')}</Link>
        </Empty>
      ) : null}
      {outcomes.length > 0 ? <SumOfSeason outcomes={outcomes} /> : null}
      {outcomes.map((outcome) => {
        const row = band.watches.find(({ watch }) => watch.id === outcome.watchId)
        const block = blocks.find(({ id }) => id === row?.watch.blockId)
        return <OutcomeCase key={outcome.treatmentId} outcome={outcome} organism={row?.organismName ?? ''} block={block?.name ?? ''} />
      })}
      <TrialsPart />
    </Page>
  )
}

/** Whether what was done all season had anything in reach. */
function SumOfSeason({ outcomes }: { outcomes: readonly Outcome[] }) {
  const t = useText()
  const f = useFormat()
  const { nothing, minutesForNothing, names, ...sum } = seasonSum(outcomes)
  return (
    <p data-testid="season-sum">
      {t('outcomes.sum', sum)}{' '}
      {nothing > 0
        ? t('outcomes.sumNothing', {
            nothing,
            names: names.join(', '),
            hours: minutesForNothing === null ? 'none' : f.number(minutesForNothing / 60, 1),
          })
        : null}
    </p>
  )
}

function OutcomeCase({ outcome, organism, block }: { outcome: Outcome; organism: string; block: string }) {
  const t = useText()
  const f = useFormat()
  return (
    <Case>
      <Columns $left="5fr" $right="6fr">
        <Stack>
          <Heading>
            {organism} <Quiet style={{ fontSize: 15 }}>{block}</Quiet>
          </Heading>
          <p>{t('outcomes.treatment', { product: outcome.productName, date: f.date(outcome.treatedOn) })}</p>
          {outcome.isEarly && outcome.judgeFrom !== null ? (
            // What shows only later is not judged by what was counted so far.
            <>
              <p data-testid="verdict">
                <b>{t('verdict.early', { product: outcome.productName, date: f.date(outcome.judgeFrom) })}</b>
              </p>
              <p data-testid="so-far">{t('verdict.soFar', { says: verdictSentence(outcome, block, t, f) })}</p>
            </>
          ) : (
            <p data-testid="verdict">
              <b>{verdictSentence(outcome, block, t, f)}</b>
            </p>
          )}
          <p>
            <Explained>{thresholdSentence(outcome, t, f)}</Explained>
          </p>
          {outcome.isEarly ? null : <ClaimSentence outcome={outcome} />}
          {outcome.coverage ? (
            <p>
              <Explained>
                {t('outcomes.coverage', {
                  share: f.number(100 * outcome.coverage.p50),
                  low: f.number(100 * outcome.coverage.p10),
                  high: f.number(100 * outcome.coverage.p90),
                })}
              </Explained>
            </p>
          ) : outcome.deviation ? (
            <p data-testid="no-coverage">
              {t('outcomes.deviation', { reason: t(`gate.${outcome.deviation}`, { name: outcome.productName }) })}
            </p>
          ) : null}
          <Missing outcome={outcome} />
        </Stack>
        <Stack>
          {isCounted(outcome) ? <BeforeAfter outcome={outcome} block={block} /> : null}
          {outcome.comparison ? <FormulaTable outcome={outcome} /> : null}
        </Stack>
      </Columns>
    </Case>
  )
}

/** Whether anything was counted that a picture could show. */
const isCounted = ({ treated, check }: Outcome): boolean =>
  [treated.before, treated.after, check?.before, check?.after].some((count) => count != null)

/** One honest sentence. With one treated and one check area it never says more than "lower here than in the check". */
function verdictSentence(outcome: Outcome, block: string, t: Say, f: Format): string {
  const { comparison } = outcome
  if (!comparison) return t(outcome.treated.before && outcome.treated.after ? 'verdict.noCheck' : 'verdict.noCounts')
  const { value, withAreas } = comparison.hendersonTilton
  const interval = { low: f.percent(withAreas.low), high: f.percent(withAreas.high), block, check: outcome.check?.name ?? '' }
  if (comparison.verdict === 'lower-than-check') return t('verdict.lower', { ...interval, value: f.percent(value) })
  if (comparison.verdict === 'higher-than-check') return t('verdict.higher', { ...interval, value: f.percent(-value) })
  return t('verdict.notSeparable', { ...interval, value: f.percent(value) })
}

function thresholdSentence(outcome: Outcome, t: Say, f: Format): string {
  const { before, after } = outcome.treated
  const { threshold } = outcome
  const words = (crossed: boolean) => (threshold === null ? 'outcomes.counted' : crossed ? 'outcomes.over' : 'outcomes.under')
  const one = (count: typeof before): string =>
    count ? t(words(count.crossed), { per100: f.number(count.per100, 1), date: f.date(count.countedOn) }) : t('outcomes.notCounted')
  if (threshold === null) return t('outcomes.noThreshold', { before: one(before), after: one(after) })
  return t('outcomes.threshold', { threshold: f.number(threshold.per100, 1), items: outcome.item, before: one(before), after: one(after) })
}

function ClaimSentence({ outcome }: { outcome: Outcome }) {
  const t = useText()
  const f = useFormat()
  const { comparison, treated } = outcome
  if (!comparison || !treated.before || !treated.after) return null
  const expected = comparison.expectedWithoutTreatment
  return (
    <p>
      <Explained>
        {t('outcomes.claim', {
          expected: f.number(expected, 1),
          after: f.number(treated.after.per100, 1),
          items: outcome.item,
          fell: expected < treated.before.per100 ? 'yes' : 'no',
          before: f.number(treated.before.per100, 1),
        })}
      </Explained>
    </p>
  )
}

function Missing({ outcome }: { outcome: Outcome }) {
  const t = useText()
  if (outcome.missing.length === 0) return null
  return (
    <Rows>
      {outcome.missing.map((what) => (
        <li key={what}>{t(`missing.${what}`)}</li>
      ))}
    </Rows>
  )
}

function FormulaTable({ outcome }: { outcome: Outcome }) {
  const t = useText()
  const f = useFormat()
  const { comparison } = outcome
  if (!comparison) return null
  const interval = ({ low, high }: { low: number; high: number }): string => t('interval', { low: f.percent(low), high: f.percent(high) })
  const rows = [
    ['formula.hendersonTilton', comparison.hendersonTilton],
    ['formula.abbott', comparison.abbott],
  ] as const
  return (
    <Stack>
      <Formulas>
        <thead>
          <tr>
            <th scope="col">{t('formula.name')}</th>
            <th scope="col">{t('formula.efficacy')}</th>
            <th scope="col">{t('formula.sampling')}</th>
            <th scope="col">{t('formula.withAreas')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, e]) => (
            <tr key={name}>
              <th scope="row">
                <Explained>{t(name)}</Explained>
              </th>
              <td>
                <Figure>{f.percent(e.value)}</Figure>
              </td>
              <td>
                <Figure>{interval(e.sampling)}</Figure>
              </td>
              <td>
                <Figure>{interval(e.withAreas)}</Figure>
              </td>
            </tr>
          ))}
        </tbody>
      </Formulas>
      <Small>
        {t(`formula.method.${comparison.method}`)} {t('formula.areas', { sd: f.number(comparison.areaSdLog, 1) })}{' '}
        {comparison.zeroAdjusted ? t('formula.zero') : ''}
      </Small>
    </Stack>
  )
}
