import styled from 'styled-components'
import { sumOf, schools, type School, type SeasonPlan } from '../band/season.js'
import { Heading, PlainTable, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/plans.js'

/** On a phone it is moved sideways. */
const Wide = styled.div`
  overflow-x: auto;
`
const COLUMNS = ['treatments', 'waiting', 'counts', 'hours', 'reached', 'chemicals', 'bees', 'undone'] as const

/** What each school comes to: how often, how much work, what it reaches, what it harms and what it leaves. */
export function SchoolsTable({ plans, chosen }: { plans: readonly SeasonPlan[]; chosen: School }) {
  const t = useText()
  const f = useFormat()
  const sums = schools.flatMap((school) => plans.filter((plan) => plan.school === school).map(sumOf))
  return (
    <Stack>
      <Heading>{t('plans.compare')}</Heading>
      <Wide tabIndex={0} role="region" aria-label={t('plans.compare')}>
        <PlainTable data-testid="schools">
          <thead>
            <tr>
              <th scope="col">{t('plans.col.school')}</th>
              {COLUMNS.map((column) => (
                <th key={column} scope="col" style={{ textAlign: 'right' }}>
                  {t(`plans.col.${column}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sums.map((sum) => (
              <tr key={sum.school} aria-current={sum.school === chosen}>
                <th scope="row">{sum.school === chosen ? <b>{t(`plans.school.${sum.school}`)}</b> : t(`plans.school.${sum.school}`)}</th>
                {COLUMNS.map((column) => (
                  <td key={column} style={{ textAlign: 'right' }}>
                    {column === 'reached'
                      ? sum.reached === null
                        ? t('plans.unknown')
                        : f.percent(sum.reached)
                      : column === 'hours'
                        ? t('plans.hoursOf', { hours: f.number(sum.hours), untimed: sum.untimed })
                        : f.number(sum[column])}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </PlainTable>
      </Wide>
    </Stack>
  )
}
