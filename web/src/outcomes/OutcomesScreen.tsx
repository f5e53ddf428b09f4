import type { Outcome } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOutcomes } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Explained } from '../design/Explained.js'
import { Columns, Empty, Figure, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { partLater } from '../shell/partLater.js'
import { BeforeAfter } from './BeforeAfter.js'
import { seasonSum } from './seasonSum.js'
import { verdictSentence } from './verdictWords.js'
import '../messages/en/field.js'
import '../messages/en/known.js'
import '../messages/en/plan.js'
import '../messages/en/work.js'

const Case = styled.article`
  border-top: 2px solid ${colour.ink};
  padding-top: 14px;
`
const Formulas = styled.table`
  td {
    white-space: nowrap;
  }
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

const WaysPart = partLater(async () => (await import('./WaysPart.js')).WaysPart)
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
  // The newest first; of many only the first of which there is anything to see stands open.
  const newest = outcomes.toSorted((a, b) => b.treatedOn.localeCompare(a.treatedOn))
  const first = newest.find(isCounted)
  const shown = newest.map((outcome) => ({ outcome, isOpen: outcome === first }))
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t('outcomes.title')}</Title>
        <Line $gap={18} className="off-paper">
          <Link to={`/sites/${site.id}/outcomes/years`}>{t('known.years')}</Link>
          <Link to={`/sites/${site.id}/outcomes/forecasts`}>{t('known.skill')}</Link>
          <Link to={`/sites/${site.id}/outcomes/review`}>{t('known.review')}</Link>
        </Line>
      </Line>
      {outcomes.length === 0 ? (
        <Empty>
          <p>{t('outcomes.empty')}</p>
          <Link to={`/sites/${site.id}/treatments`}>{t('outcomes.toTreatments')}</Link>
        </Empty>
      ) : null}
      {outcomes.length > 0 ? <SumOfSeason outcomes={outcomes} /> : null}
      {shown.map(({ outcome, isOpen }) => {
        const row = band.watches.find(({ watch }) => watch.id === outcome.watchId)
        const block = blocks.find(({ id }) => id === row?.watch.blockId)
        return (
          <OutcomeCase
            key={outcome.treatmentId}
            isOpen={isOpen}
            outcome={outcome}
            organism={row?.organismName ?? ''}
            block={block?.name ?? ''}
          />
        )
      })}
      <WaysPart />
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

function OutcomeCase(p: { outcome: Outcome; organism: string; block: string; isOpen: boolean }) {
  const { outcome, organism, block } = p
  const [isOpen, setOpen] = useState(p.isOpen)
  const t = useText()
  const f = useFormat()
  if (!isCounted(outcome))
    return (
      <Case>
        <p data-testid="verdict">
          <b>{organism}</b> <Quiet>{block}</Quiet>{' '}
          {t('outcomes.notJudged', { product: outcome.productName, date: f.date(outcome.treatedOn) })}
        </p>
      </Case>
    )
  if (!isOpen)
    return (
      <Case>
        <Line style={{ justifyContent: 'space-between', flexWrap: 'nowrap' }}>
          <p data-testid="verdict">
            <b>{organism}</b> <Quiet>{block}</Quiet>{' '}
            {t('outcomes.treatment', { product: outcome.productName, date: f.date(outcome.treatedOn) })}:{' '}
            {outcome.isEarly && outcome.judgeFrom !== null
              ? t('verdict.early', { product: outcome.productName, date: f.date(outcome.judgeFrom) })
              : verdictSentence(outcome, block, t, f)}
          </p>
          <TextButton
            aria-label={`${t('known.counts')}: ${outcome.productName}, ${f.date(outcome.treatedOn)}`}
            onPress={() => setOpen(true)}
          >
            {t('known.counts')}
          </TextButton>
        </Line>
      </Case>
    )
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
          {outcome.alsoDone.length > 0 ? (
            <p>
              {t('known.also', {
                what: outcome.alsoDone.map(({ name, on }) => t('known.alsoOne', { name, date: f.date(on) })).join(', '),
              })}
            </p>
          ) : null}
          {outcome.isEarly ? null : <ClaimSentence outcome={outcome} />}
          {outcome.coverage ? (
            <p>
              <Explained>
                {t('outcomes.coverage', {
                  share: f.number(100 * outcome.coverage.p50),
                  low: f.number(100 * outcome.coverage.p10),
                  high: f.number(100 * outcome.coverage.p90),
                })}
              </Explained>{' '}
              {outcome.betterOn
                ? t('known.better', {
                    date: f.date(outcome.betterOn.day),
                    days: Math.abs(f.seasonIndex(outcome.treatedOn, outcome.betterOn.day)),
                    way: outcome.betterOn.day > outcome.treatedOn ? 'later' : 'earlier',
                    share: f.percent(outcome.betterOn.coverage),
                  })
                : null}
            </p>
          ) : outcome.deviation ? (
            <p data-testid="no-coverage">
              {t('outcomes.deviation', { reason: t(`gate.${outcome.deviation}`, { name: outcome.productName }) })}
            </p>
          ) : null}
          <Missing outcome={outcome} />
        </Stack>
        <Stack>
          <BeforeAfter outcome={outcome} block={block} />
          {outcome.comparison ? <FormulaTable outcome={outcome} /> : null}
        </Stack>
      </Columns>
    </Case>
  )
}

/** Whether anything was counted that a picture could show. */
const isCounted = ({ treated, check }: Outcome): boolean =>
  [treated.before, treated.after, check?.before, check?.after].some((count) => count != null)

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
