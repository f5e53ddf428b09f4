import { endpoints, scales, type Organism, type Scale } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { planBegins, planOfTyped, useSpread } from './typedPlan.js'
import '../messages/en/rule.js'

const PlanFields = partLater(async () => (await import('./PlanFields.js')).PlanFields)

/** How it is counted here: the library's way, or the site's own with its reason. */
export function CountingRule({ organism, per100 }: { organism: Organism; per100: number | null }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [editing, setEditing] = useState(false)
  const { how, classes, rule } = organism.sampling
  if (editing) return <RuleForm organism={organism} per100={per100} onDone={() => setEditing(false)} />
  const weights = classes.map(({ name, weight }) => t('rule.weight', { name, weight: f.number(weight, 3) })).join(', ')
  return (
    <Stack $gap={4}>
      <Small>{rule?.frame || how}</Small>
      {rule ? (
        <Small>
          {t('rule.own', { weights, reason: rule.reason })} {rule.plan ? t('rule.planNow', { kind: rule.plan.kind }) : null}
        </Small>
      ) : null}
      <Line>
        <TextButton aria-label={t('rule.editNamed', { name: organism.name })} onPress={() => setEditing(true)}>
          {t('rule.edit')}
        </TextButton>
        {rule ? (
          <RemoveButton
            remove={endpoints.scouting.removeRule}
            restore={endpoints.scouting.restoreRule}
            params={{ siteId: site.id, ruleId: rule.id }}
            rowVersion={rule.rowVersion}
            words={t('rule.asLibrary')}
            said={t('rule.removed', { name: organism.name })}
          />
        ) : null}
      </Line>
    </Stack>
  )
}

function RuleForm({ organism, per100, onDone }: { organism: Organism; per100: number | null; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { rule, how, unit, units, itemsPerUnit, suggestedUnits, scale, items } = organism.sampling
  const { data: spread } = useSpread(organism.id)
  const [isPlanOpen, setPlanOpen] = useState(Boolean(rule?.plan))
  // Weights are of the entry's own classes, also while it is counted by degrees.
  const classes = scale === 'classes' ? organism.sampling.classes : []
  // What is counted as a share has nothing to gain from it.
  const offered = scales.filter((id) => id !== 'presence' || organism.sampling.measure !== 'incidence')
  const entry = useEntry(
    endpoints.scouting.setRule,
    {
      weights:
        scale !== 'classes' ? (rule?.weights ?? {}) : Object.fromEntries(classes.map(({ id, weight }) => [id, weight as number | null])),
      ownUnit: rule?.hasUnit ?? false,
      unit: { one: unit, many: units, items: itemsPerUnit as number | null, suggested: suggestedUnits as number | null },
      scale: scale as string | null,
      plan: planBegins(rule?.plan ?? null, suggestedUnits),
      frame: rule?.frame || how,
      reason: rule?.reason ?? '',
    },
    rule,
    `${site.id} ${organism.id}`,
  )
  const save = async (): Promise<void> => {
    const params = { siteId: site.id, organismId: organism.id }
    const saved = await entry.submit(params, ({ weights, ownUnit, unit, scale, plan, frame, reason }, rowVersion) => ({
      scale: scale as Scale,
      plan: planOfTyped(plan, spread?.clumping ?? rule?.plan?.clumping ?? null),
      weights: Object.fromEntries(Object.entries(weights).map(([name, weight]) => [name, weight ?? 0])),
      unit: ownUnit ? unit : null,
      frame: frame === how ? '' : frame,
      reason,
      rowVersion,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Small>{t('rule.explain')}</Small>
        <Fields>
          {classes.map(({ id, name }) => (
            <NumberField key={id} label={name} width="16ch" digits={3} {...entry.bind.number(`weights.${id}`)} />
          ))}
        </Fields>
        <Select
          label={t('rule.scale')}
          placeholder=""
          width="38ch"
          options={offered.map((id) => ({ id, label: t(`rule.scale.${id}`) }))}
          {...entry.bind.choice('scale')}
        />
        {entry.values.scale === 'degrees' ? <Small>{t('rule.degrees', { items })}</Small> : null}
        {entry.values.scale === 'presence' ? <Small>{t('rule.presence', { unit })}</Small> : null}
        <Checkbox label={t('rule.ownUnit')} value={entry.values.ownUnit} onChange={(ownUnit) => entry.set({ ownUnit })} />
        {entry.values.ownUnit ? (
          <Fields>
            <NumberField label={t('rule.suggested')} width="12ch" digits={0} {...entry.bind.number('unit.suggested')} />
            <TextField label={t('rule.many')} width="20ch" {...entry.bind.text('unit.many')} />
            <TextField label={t('rule.one')} width="20ch" {...entry.bind.text('unit.one')} />
            <NumberField
              label={t('rule.items', { items: organism.sampling.items })}
              width="20ch"
              digits={0}
              {...entry.bind.number('unit.items')}
            />
          </Fields>
        ) : null}
        <TextButton onPress={() => setPlanOpen(!isPlanOpen)} aria-expanded={isPlanOpen}>
          {t('rule.plan')}
        </TextButton>
        {isPlanOpen ? (
          <PlanFields
            organism={organism}
            per100={per100}
            value={entry.values.plan}
            onChange={(change) => entry.set({ plan: { ...entry.values.plan, ...change } })}
            errorOf={(field) => entry.errors[['plan', field].join('.')]}
          />
        ) : null}
        <TextField label={t('rule.frame')} rows={3} width="60ch" {...entry.bind.text('frame')} />
        <TextField label={t('rule.reason')} width="60ch" {...entry.bind.text('reason')} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
