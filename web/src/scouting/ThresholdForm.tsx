import { cropStages, endpoints, type Economics, type Organism, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { actionPer100 } from '../band/crossing.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { EconomicPicture } from './EconomicPicture.js'
import { perWords } from './perWords.js'
import '../messages/en/crops.js'
import '../messages/en/threshold.js'

type Typed = { [K in keyof Economics]: number | null }
interface Step {
  from: string | null
  per100: number | null
}
interface Values extends Record<string, unknown> {
  per100: number | null
  reason: string
  steps: Step[]
  economics: Typed | null
}

const NO_ECONOMICS: Typed = { cost: null, price: null, loss: null, control: null, lagDays: 0, doublingDays: null }

/** What was typed, as soon as it is enough to reckon from. */
function completed(typed: Typed | null): Economics | null {
  if (!typed) return null
  const { cost, price, loss, control, lagDays, doublingDays } = typed
  if (!cost || !price || !loss || !control || control > 1 || cost < 0 || price < 0 || loss < 0 || control < 0) return null
  return { cost, price, loss, control, lagDays: lagDays ?? 0, doublingDays: doublingDays && doublingDays > 0 ? doublingDays : null }
}

/** The site's own threshold of a watch: a number and why, another from a stage of the crop on, and what it was reckoned from. */
export function ThresholdForm(p: { row: WatchForecast; organism: Organism; begins: number | null; onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { watch } = p.row
  const { sampling } = p.organism
  const kind = sampling.scale === 'presence' ? 'classes' : sampling.scale
  const own = watch.threshold?.scale === kind ? watch.threshold : null
  const initial: Values = {
    per100: p.begins ?? own?.per100 ?? null,
    reason: own?.reason ?? '',
    steps: own?.steps ?? [],
    economics: own?.economics ?? null,
  }
  const entry = useEntry(endpoints.watches.update, initial, watch, `threshold ${watch.id}`)
  const { values, set, errors } = entry
  const [byStage, setByStage] = useState(initial.steps.length > 0)
  const items = perWords(sampling, t)
  const reckoned = completed(values.economics)
  const level = reckoned && actionPer100(reckoned)
  const save = async (): Promise<void> => {
    const { biofix, biofixNote, sourceKnown } = watch
    const saved = await entry.submit({ siteId: site.id, watchId: watch.id }, (v, rowVersion) => ({
      biofix,
      biofixNote,
      sourceKnown,
      rowVersion,
      threshold:
        v.per100 === null
          ? null
          : {
              per100: v.per100,
              reason: v.reason,
              scale: kind,
              steps: v.steps as { from: (typeof cropStages)[number]; per100: number }[],
              economics: v.economics as Economics | null,
            },
    }))
    if (saved) p.onDone()
  }
  const setStep = (i: number, change: Partial<Step>): void =>
    set({ steps: values.steps.map((step, k) => (k === i ? { ...step, ...change } : step)) })
  const typed = values.economics ?? NO_ECONOMICS
  return (
    <Sheet>
      <Stack>
        <Fields>
          <NumberField
            label={t('actFrom.per100', { items })}
            width="20ch"
            digits={2}
            value={values.per100}
            onChange={(per100) => set({ per100 })}
            error={errors['threshold.per100']}
            hint={t('actFrom.empty')}
          />
          <TextField
            label={t('actFrom.reason')}
            width="40ch"
            value={values.reason}
            onChange={(reason) => set({ reason })}
            error={errors['threshold.reason']}
          />
        </Fields>
        {byStage ? (
          <Stack $gap={6}>
            {values.steps.map((step, i) => (
              <Line key={i}>
                <Select
                  label={t('actFrom.from')}
                  placeholder={t('actFrom.chooseStage')}
                  width="22ch"
                  options={cropStages.map((id) => ({ id, label: t(`crops.stage.${id}`) }))}
                  value={step.from}
                  onChange={(from) => setStep(i, { from })}
                  error={errors[`threshold.steps.${i}.from`]}
                />
                <NumberField
                  label={t('actFrom.then', { items })}
                  width="20ch"
                  digits={2}
                  value={step.per100}
                  onChange={(per100) => setStep(i, { per100 })}
                  error={errors[`threshold.steps.${i}.per100`]}
                />
                <TextButton onPress={() => set({ steps: values.steps.filter((_, k) => k !== i) })}>
                  {t('actFrom.withoutStep', { number: i + 1 })}
                </TextButton>
              </Line>
            ))}
            <FormError text={errors['threshold.steps'] ?? null} />
            <TextButton onPress={() => set({ steps: [...values.steps, { from: null, per100: null }] })}>{t('actFrom.addStep')}</TextButton>
            <Small>{t('actFrom.stagesFrom')}</Small>
          </Stack>
        ) : (
          <TextButton
            onPress={() => {
              setByStage(true)
              set({ steps: [{ from: null, per100: null }] })
            }}
          >
            {t('actFrom.byStage')}
          </TextButton>
        )}
        {values.economics === null ? (
          <TextButton onPress={() => set({ economics: NO_ECONOMICS })}>{t('actFrom.byCost')}</TextButton>
        ) : (
          <Stack $gap={8}>
            <Small>{t('actFrom.costExplain', { items })}</Small>
            <Fields>
              {(
                [
                  ['cost', 2, ''],
                  ['price', 2, ''],
                  ['loss', 2, 'kg'],
                ] as const
              ).map(([id, digits, unit]) => (
                <NumberField
                  key={id}
                  label={t(`actFrom.${id}`, { items })}
                  width="26ch"
                  digits={digits}
                  unit={unit}
                  value={typed[id]}
                  onChange={(value) => set({ economics: { ...typed, [id]: value } })}
                  error={errors[`threshold.economics.${id}`]}
                />
              ))}
              <NumberField
                label={t('actFrom.control')}
                width="20ch"
                digits={0}
                unit="%"
                value={typed.control === null ? null : Math.round(1000 * typed.control) / 10}
                onChange={(percent) => set({ economics: { ...typed, control: percent === null ? null : percent / 100 } })}
                error={errors['threshold.economics.control']}
              />
              <NumberField
                label={t('actFrom.lag')}
                width="20ch"
                digits={0}
                value={typed.lagDays}
                onChange={(lagDays) => set({ economics: { ...typed, lagDays } })}
                error={errors['threshold.economics.lagDays']}
              />
              {p.row.breedsOn ? (
                <NumberField
                  label={t('actFrom.doubling')}
                  width="20ch"
                  digits={1}
                  hint={t('optional')}
                  value={typed.doublingDays}
                  onChange={(doublingDays) => set({ economics: { ...typed, doublingDays } })}
                  error={errors['threshold.economics.doublingDays']}
                />
              ) : null}
            </Fields>
            {reckoned && level ? (
              <>
                <EconomicPicture economics={reckoned} injury={level.injury} action={level.action} items={items} />
                <p aria-live="polite">
                  {t('actFrom.level', {
                    injury: f.number(level.injury, 2),
                    action: f.number(level.action, 2),
                    items,
                    same: level.injury === level.action ? 'yes' : 'no',
                  })}{' '}
                  <TextButton onPress={() => set({ per100: Math.round(100 * level.action) / 100 })}>{t('actFrom.take')}</TextButton>
                </p>
              </>
            ) : null}
            <TextButton onPress={() => set({ economics: null })}>{t('actFrom.withoutCost')}</TextButton>
          </Stack>
        )}
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} words={t('actFrom.save')} />
      </Stack>
    </Sheet>
  )
}
