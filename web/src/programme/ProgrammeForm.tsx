import { cropStages, endpoints, whenKinds, type Programme, type ProgrammeStep, type WatchForecast } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { stepKey } from '../band/programme.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Several } from '../design/Several.js'
import { Fields, Heading, Line, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { hoursHere } from '../band/hoursHere.js'
import { useMethods, useOffered, useShelfFor } from '../windows/useShelfFor.js'
import { useBloomChoices } from './useBloomChoices.js'
import '../messages/en/crops.js'
import '../messages/en/field.js'
import '../messages/en/programme.js'

/** A step as it is typed: everything that any kind of condition asks for. */
interface Typed {
  means: string | null
  kind: (typeof whenKinds)[number]
  step: number
  days: number | null
  months: string[]
  cm: number | null
  per100: number | null
  bloom: string | null
  stage: (typeof cropStages)[number] | null
  everyDays: number | null
  emptyChecks: number | null
  visits: (number | null)[]
  hours: number | null
  litres: number | null
  bags: number | null
  money: number | null
}

const NEW: Typed = {
  means: null,
  kind: 'at-once',
  step: 0,
  days: null,
  months: [],
  cm: null,
  per100: null,
  bloom: null,
  stage: null,
  everyDays: null,
  emptyChecks: null,
  visits: [null, null, null],
  hours: null,
  litres: null,
  bags: null,
  money: null,
}

const typedOf = (step: ProgrammeStep): Typed => ({
  ...NEW,
  ...step,
  means: stepKey(step),
  kind: step.when.kind,
  step: step.when.kind === 'after' ? step.when.step : 0,
  days: step.when.kind === 'after' || step.when.kind === 'bloom' ? step.when.days : null,
  bloom: step.when.kind === 'bloom' ? `${step.when.plantId} ${step.when.event}` : null,
  stage: step.when.kind === 'crop-stage' ? step.when.stage : null,
  months: step.when.kind === 'months' ? step.when.months.map(String) : [],
  cm: step.when.kind === 'regrowth' ? step.when.cm : null,
  per100: step.when.kind === 'count' ? step.when.per100 : null,
})

/** The condition of a step as the endpoint takes it. */
function whenOf({ kind, step, days, months, cm, per100, bloom, stage }: Typed): object {
  if (kind === 'bloom') {
    const [plantId, event] = (bloom ?? '').split(' ')
    return { kind, plantId, event, days: days ?? 0 }
  }
  if (kind === 'crop-stage') return { kind, stage: stage ?? undefined }
  if (kind === 'after') return { kind, step, days: days ?? undefined }
  if (kind === 'months') return { kind, months: months.map(Number).sort((a, b) => a - b) }
  if (kind === 'regrowth') return { kind, cm: cm ?? undefined }
  if (kind === 'count') return { kind, per100: per100 ?? undefined }
  return { kind }
}

const inputOf = (typed: Typed): object => {
  const { means, everyDays, emptyChecks, visits, hours, litres, bags, money } = typed
  const [kind, id] = [means?.split(' ')[0], means?.slice((means.indexOf(' ') ?? 0) + 1)]
  return {
    productId: kind === 'product' ? id : null,
    methodId: kind === 'method' ? id : null,
    when: whenOf(typed),
    everyDays,
    emptyChecks,
    visits: visits.map((one) => one ?? 0),
    hours,
    litres,
    bags,
    money,
  }
}

/** A programme: its steps in their order, each with what it is done with, when, how often, and what a visit takes. */
export function ProgrammeForm({ forecast, programme, onDone }: { forecast: WatchForecast; programme?: Programme; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const initial = {
    name: programme?.name ?? '',
    followed: programme?.followed ?? false,
    hourly: programme?.hourly ?? (null as number | null),
    steps: programme?.steps.map(typedOf) ?? [NEW],
  }
  const add = useEntry(endpoints.programmes.add, initial, null, programme ? undefined : forecast.watch.id)
  const update = useEntry(endpoints.programmes.update, initial, programme, programme?.id)
  const entry = programme ? update : add
  const { values, bind, errors, set } = entry
  const typed = (v: typeof initial) => ({ ...v, steps: v.steps.map(inputOf) })
  const save = async (): Promise<void> => {
    const saved = programme
      ? await update.submit({ siteId: site.id, programmeId: programme.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id, watchId: forecast.watch.id }, typed)
    if (saved) onDone()
  }
  const change = (at: number, by: Partial<Typed>): void =>
    set({ steps: values.steps.map((one, i) => (i === at ? { ...one, ...by } : one)) })
  return (
    <Sheet>
      <Stack>
        <TextField label={t('programme.name')} width="100%" {...bind.text('name')} autoFocus />
        {values.steps.map((step, i) => (
          <StepFields
            key={i}
            at={i}
            step={step}
            forecast={forecast}
            errors={errors}
            onChange={(by) => change(i, by)}
            onDrop={values.steps.length > 1 ? () => set({ steps: values.steps.filter((_, k) => k !== i) }) : undefined}
          />
        ))}
        <FormError text={errors['steps'] ?? null} />
        <Line>
          <TextButton onPress={() => set({ steps: [...values.steps, { ...NEW, kind: 'after', step: values.steps.length - 1 }] })}>
            {t('programme.addStep')}
          </TextButton>
        </Line>
        <NumberField label={t('programme.hourly')} width="18ch" digits={2} hint={t('optional')} {...bind.number('hourly')} />
        <Checkbox label={t('programme.followed')} {...bind.check('followed')} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}

const COSTS = ['hours', 'litres', 'bags', 'money'] as const

function StepFields(p: {
  at: number
  step: Typed
  forecast: WatchForecast
  errors: Readonly<Record<string, string>>
  onChange: (by: Partial<Typed>) => void
  /** Undefined for the only step. */
  onDrop: (() => void) | undefined
}) {
  const { at, step, errors, onChange, onDrop } = p
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const shelf = useShelfFor(p.forecast.watch)
  const offered = useOffered(shelf)
  const { data: methods = [] } = useMethods()
  const blooms = useBloomChoices()
  const error = (path: string): string | undefined =>
    errors[`steps.${at}.${path}`] ?? (path === 'methodId' ? errors[`steps.${at}.productId`] : undefined)
  const whenError = (path: string): string | undefined => error(`when.${path}`) ?? error('when')
  const number = (name: 'days' | 'cm' | 'per100' | 'everyDays' | 'emptyChecks' | (typeof COSTS)[number], of = error) => ({
    value: step[name],
    onChange: (value: number | null) => onChange({ [name]: value }),
    error: of(name),
  })
  const take = (key: string): void => {
    const method = methods.find(({ id }) => key === `method ${id}`)
    const here = method && hoursHere(method.hours, shelf.block?.areaHa ?? null)
    onChange({ means: key, ...(step.hours === null && here !== undefined ? { hours: Number(here.toPrecision(2)) } : {}) })
  }
  const month = (m: number): string => f.month(`${site.today.slice(0, 4)}-${String(m).padStart(2, '0')}-01`)
  return (
    <Stack $gap={8} role="group" aria-label={t('programme.step', { nth: at + 1 })}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading as="h4">{t('programme.step', { nth: at + 1 })}</Heading>
        {onDrop ? (
          <TextButton aria-label={t('programme.dropStep', { nth: at + 1 })} onPress={onDrop}>
            {t('programme.drop')}
          </TextButton>
        ) : null}
      </Line>
      <Fields>
        <Select
          label={t('programme.means')}
          placeholder={t('choose')}
          width="28ch"
          options={offered.map(({ means: { key, name } }) => ({ id: key, label: name }))}
          value={step.means}
          onChange={take}
          error={error('methodId')}
        />
        <Select
          label={t('programme.when')}
          placeholder={t('choose')}
          width="26ch"
          options={whenKinds.filter((kind) => kind !== 'after' || at > 0).map((id) => ({ id, label: t(`programme.when.${id}`) }))}
          value={step.kind}
          onChange={(kind) => onChange({ kind: kind as Typed['kind'] })}
          error={error('when')}
        />
      </Fields>
      <Fields>
        {step.kind === 'after' ? (
          <>
            <Select
              label={t('programme.afterStep')}
              placeholder={t('choose')}
              width="12ch"
              options={Array.from({ length: at }, (_, i) => ({ id: String(i), label: String(i + 1) }))}
              value={String(step.step)}
              onChange={(id) => onChange({ step: Number(id) })}
            />
            <NumberField label={t('programme.days')} width="13ch" digits={0} unit={t('days')} {...number('days', whenError)} />
          </>
        ) : null}
        {step.kind === 'bloom' ? (
          <>
            <Select
              label={t('programme.bloom')}
              placeholder={t('choose')}
              width="28ch"
              options={blooms}
              value={step.bloom}
              onChange={(bloom) => onChange({ bloom })}
              error={whenError('event') ?? whenError('plantId')}
            />
            <NumberField
              label={t('programme.days')}
              width="13ch"
              digits={0}
              unit={t('days')}
              hint={t('optional')}
              {...number('days', whenError)}
            />
          </>
        ) : null}
        {step.kind === 'crop-stage' ? (
          <Select
            label={t('programme.stage')}
            placeholder={t('choose')}
            width="24ch"
            options={cropStages.map((id) => ({ id, label: t(`crops.stage.${id}`) }))}
            value={step.stage}
            onChange={(id) => onChange({ stage: id as Typed['stage'] })}
            error={whenError('stage')}
          />
        ) : null}
        {step.kind === 'months' ? (
          <Several
            label={t('programme.months')}
            placeholder={t('choose')}
            options={Array.from({ length: 12 }, (_, i) => ({ id: String(i + 1), label: month(i + 1) }))}
            value={step.months}
            onChange={(months) => onChange({ months })}
            dropWords={(name) => t('several.drop', { name })}
            error={whenError('months')}
          />
        ) : null}
        {step.kind === 'regrowth' ? (
          <NumberField label={t('programme.cm')} width="12ch" digits={0} unit="cm" {...number('cm', whenError)} />
        ) : null}
        {step.kind === 'count' ? (
          <NumberField label={t('programme.per100')} width="14ch" digits={2} {...number('per100', whenError)} />
        ) : null}
        <NumberField
          label={t('programme.everyDays')}
          width="14ch"
          digits={0}
          unit={t('days')}
          hint={t('optional')}
          {...number('everyDays')}
        />
        <NumberField label={t('programme.emptyChecks')} width="20ch" digits={0} hint={t('optional')} {...number('emptyChecks')} />
      </Fields>
      <Fields>
        {step.visits.map((visits, year) => (
          <NumberField
            key={year}
            label={t('programme.visits', { year: year + 1 })}
            width="15ch"
            digits={0}
            value={visits}
            onChange={(value) => onChange({ visits: step.visits.map((one, i) => (i === year ? value : one)) })}
            error={error(`visits.${year}`)}
          />
        ))}
        {COSTS.map((name) => (
          <NumberField key={name} label={t(`programme.${name}`)} width="13ch" digits={2} hint={t('optional')} {...number(name)} />
        ))}
      </Fields>
    </Stack>
  )
}
