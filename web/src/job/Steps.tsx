import type { Method, Product } from '@bocado/contract'
import { MS_PER_MINUTE } from '@bocado/core/time'
import { useEffect, useState } from 'react'
import { stepsOf, type Step } from '../band/job.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox } from '../design/controls.js'
import { Heading, Line, Quiet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import type { KeptSheet } from './keptSheet.js'
import '../messages/en/job.js'

/** The steps of a job in their order, those of the method last; each is ticked as it is done, and what takes a time is timed. */
export function Steps(p: {
  product: Product | null
  methods: readonly Method[]
  sheet: KeptSheet
  onSheet: (changes: Partial<KeptSheet>) => void
  /** How much is looked at afterwards. */
  units: { count: number; of: string } | null
}) {
  const t = useText()
  const { product, sheet, onSheet } = p
  const living = product?.formulation === 'living' || p.methods.some(({ living: lives }) => lives)
  const steps = stepsOf({
    ways: product ? product.ways : null,
    formulation: product?.formulation ?? null,
    living,
    asksOfWater: (product?.mixing ?? '') !== '',
  })
  const tick = (name: string, isDone: boolean): void =>
    onSheet({ ticked: isDone ? [...sheet.ticked, name] : sheet.ticked.filter((one) => one !== name) })
  const says = ({ step }: Step): string => t(`job.step.${step}`, { count: p.units?.count ?? 0, units: p.units?.of ?? 'none' })
  return (
    <Stack>
      <Heading>{t('job.steps')}</Heading>
      <ul className="on-paper" style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {steps.map((step) => (
          <li key={step.step}>
            {t('job.box', { is: sheet.ticked.includes(step.step) ? 'done' : 'open', says: says(step) })}
            {step.minutes === null ? '' : ` (${t('job.time', { minutes: step.minutes })})`}
          </li>
        ))}
      </ul>
      <Stack $gap={0} className="off-paper">
        {steps.map((step) => (
          <Line key={step.step} style={{ justifyContent: 'space-between', flexWrap: 'nowrap', alignItems: 'center' }}>
            <Checkbox label={says(step)} value={sheet.ticked.includes(step.step)} onChange={(isDone) => tick(step.step, isDone)} />
            {step.minutes === null ? null : <Timer minutes={step.minutes} onOver={() => tick(step.step, true)} />}
          </Line>
        ))}
      </Stack>
      {p.methods
        .filter(({ steps: own }) => own.length > 0)
        .map((method) => (
          <Stack key={method.id} $gap={4}>
            <Small>{t('job.ofMethod', { method: method.name })}</Small>
            <ol style={{ margin: 0, paddingLeft: 22 }}>
              {method.steps.map(({ do: what, within }) => (
                <li key={what}>
                  {what} {within === undefined ? null : <Quiet>{within}</Quiet>}
                </li>
              ))}
            </ol>
            <Small>{t('job.good', { good: method.goodJob, failed: method.failedJob })}</Small>
          </Stack>
        ))}
    </Stack>
  )
}

/** Counts the minutes of a step down, and says when they are over. */
function Timer({ minutes, onOver }: { minutes: number; onOver: () => void }) {
  const t = useText()
  const f = useFormat()
  const [endsAt, setEndsAt] = useState<number | null>(null)
  const [left, setLeft] = useState(minutes * 60)
  useEffect(() => {
    if (endsAt === null) return
    const clock = setInterval(() => {
      const seconds = Math.max(0, Math.round((endsAt - Date.now()) / 1000))
      setLeft(seconds)
      if (seconds > 0) return
      setEndsAt(null)
      onOver()
    }, 250)
    return () => clearInterval(clock)
  }, [endsAt, onOver])
  return (
    <div className="off-paper">
      {endsAt === null ? (
        <TextButton onPress={() => setEndsAt(Date.now() + minutes * MS_PER_MINUTE)}>
          {left === 0 ? t('job.timeOver') : t('job.time', { minutes })}
        </TextButton>
      ) : (
        <span role="timer">{t('job.timeLeft', { minutes: Math.floor(left / 60), seconds: f.number(left % 60).padStart(2, '0') })}</span>
      )}
    </div>
  )
}
