import type { PlantingDates } from '@bocado/contract'
import type { SowingPlan } from '../band/planting.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/prevent.js'

/** The dates that each way of choosing comes to, with what they meet. */
export function SowingPlans({
  dates,
  plans,
  day,
  onChoose,
}: {
  dates: PlantingDates
  plans: readonly SowingPlan[]
  day: number
  onChoose: (day: number) => void
}) {
  const t = useText()
  const f = useFormat()
  const dateOf = (at: number): string => f.date(f.seasonDay(dates.season.start, at))
  return (
    <Stack>
      <Heading>{t('prevent.plans')}</Heading>
      {plans.length === 0 ? <p>{t('prevent.noPlan')}</p> : null}
      <Rows data-testid="sowing-plans">
        {plans.map((plan) => (
          <li key={plan.kind}>
            <b>{t(`prevent.plan.${plan.kind}`)}</b>
            <Line $gap={10} style={{ alignItems: 'center' }}>
              {plan.days.map((at) => (
                <TextButton key={at} aria-current={at === day} onPress={() => onChoose(at)}>
                  {dateOf(at)}
                </TextButton>
              ))}
              {dates.meetings.length > 0 ? <Small as="span">{t('prevent.planMeets', { share: f.percent(plan.met) })}</Small> : null}
            </Line>
          </li>
        ))}
      </Rows>
    </Stack>
  )
}
