import { endpoints, type Block, type Organism, type Replacement, type WantedPlant } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { usePlaceOptions } from '../api/usePlaceOptions.js'
import { useSite } from '../api/workplace.js'
import { AreaField } from '../design/AreaField.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Sheet, Stack } from '../design/text.js'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '../design/units.js'
import { useText } from '../messages/useText.js'

export interface PlanKnown {
  blocks: readonly Block[]
  weeds: readonly Organism[]
  wanted: readonly WantedPlant[]
}

const NONE = 'none'
const PERCENT = 100

interface TypedLine {
  wantedPlantId: string | null
  percent: number | null
}

const typedOf = (plan: Replacement | null, today: string) => ({
  placeId: plan?.placeId ?? (null as string | null),
  organismId: plan?.organismId ?? NONE,
  areaM2: plan?.areaM2 ?? (null as number | null),
  lines: plan?.lines.map(({ wantedPlantId, share }): TypedLine => ({ wantedPlantId, percent: Math.round(PERCENT * share) })) ?? [
    { wantedPlantId: null, percent: PERCENT } as TypedLine,
  ],
  plannedOn: (plan?.plannedOn ?? today) as string | null,
  doneOn: plan?.doneOn ?? (null as string | null),
  note: plan?.note ?? '',
})
type Typed = ReturnType<typeof typedOf>

const inputOf = ({ doneOn: _, ...v }: Typed) => ({
  ...v,
  placeId: v.placeId ?? '',
  organismId: v.organismId === NONE ? null : v.organismId,
  areaM2: v.areaM2 ?? NaN,
  lines: v.lines.map(({ wantedPlantId, percent }) => ({ wantedPlantId: wantedPlantId ?? '', share: (percent ?? NaN) / PERCENT })),
  plannedOn: v.plannedOn ?? '',
})

/** Plans what is planted or sown somewhere. */
export function PlanAdd(p: PlanKnown & { onDone: () => void }) {
  const site = useSite()
  const entry = useEntry(endpoints.replacement.add, typedOf(null, site.today), null, site.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, inputOf)) p.onDone()
  }
  return (
    <Sheet>
      <Stack>
        <PlanFields {...p} entry={entry} />
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}

/** Changes it, or says that it is done. */
export function PlanEdit(p: PlanKnown & { plan: Replacement; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.replacement.update, typedOf(p.plan, site.today), p.plan, p.plan.id)
  const save = async (): Promise<void> => {
    const params = { siteId: site.id, replacementId: p.plan.id }
    if (await entry.submit(params, (v, rowVersion) => ({ ...inputOf(v), doneOn: v.doneOn, rowVersion }))) p.onDone()
  }
  return (
    <Stack>
      <PlanFields {...p} entry={entry} />
      <DateField
        label={t('instead.doneOn')}
        value={entry.values.doneOn}
        onChange={(doneOn) => entry.set({ doneOn })}
        error={entry.errors['doneOn']}
        hint={t('optional')}
      />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
    </Stack>
  )
}

function PlanFields({
  weeds,
  wanted,
  entry: { values, set, errors },
}: PlanKnown & {
  entry: { values: Typed; set: (changes: Partial<Typed>) => void; errors: Readonly<Record<string, string>> }
}) {
  const t = useText()
  const places = usePlaceOptions()
  const change = (at: number, changes: Partial<TypedLine>): void =>
    set({ lines: values.lines.map((line, i) => (i === at ? { ...line, ...changes } : line)) })
  // The rest of the ground is for the next one.
  const left = Math.max(0, PERCENT - values.lines.reduce((sum, { percent }) => sum + (percent ?? 0), 0))
  return (
    <>
      <Fields>
        <Select
          label={t('instead.where')}
          placeholder={t('choose')}
          width="24ch"
          options={places}
          value={values.placeId}
          onChange={(placeId) => set({ placeId })}
          error={errors['placeId']}
        />
        <Select
          label={t('instead.of')}
          placeholder=""
          width="24ch"
          options={[{ id: NONE, label: t('instead.ofNone') }, ...weeds.map(({ id, name }) => ({ id, label: name }))]}
          value={values.organismId}
          onChange={(organismId) => set({ organismId })}
          error={errors['organismId']}
        />
        <AreaField
          label={t('instead.area')}
          isSmall
          value={values.areaM2 === null ? null : hectaresFromSquareMetres(values.areaM2)}
          onChange={(ha) => set({ areaM2: ha === null ? null : squareMetresFromHectares(ha) })}
          error={errors['areaM2']}
        />
        <DateField
          label={t('instead.on')}
          value={values.plannedOn}
          onChange={(plannedOn) => set({ plannedOn })}
          error={errors['plannedOn']}
        />
      </Fields>
      {values.lines.map((line, i) => (
        <Fields key={i}>
          <Select
            label={t('instead.plant', { number: i + 1 })}
            placeholder={t('choose')}
            width="26ch"
            options={wanted.map(({ id, name }) => ({ id, label: name }))}
            value={line.wantedPlantId}
            onChange={(wantedPlantId) => change(i, { wantedPlantId })}
            error={errors[`lines.${i}.wantedPlantId`]}
          />
          <NumberField
            label={t('instead.share')}
            unit="%"
            width="11ch"
            digits={0}
            value={line.percent}
            onChange={(percent) => change(i, { percent })}
            error={errors[`lines.${i}.share`]}
          />
          {values.lines.length > 1 ? (
            <TextButton
              aria-label={t('instead.without', { number: i + 1 })}
              onPress={() => set({ lines: values.lines.filter((_, at) => at !== i) })}
            >
              {t('remove')}
            </TextButton>
          ) : null}
        </Fields>
      ))}
      <FormError text={errors['lines'] ?? null} />
      <Line>
        {values.lines.length < wanted.length ? (
          <TextButton onPress={() => set({ lines: [...values.lines, { wantedPlantId: null, percent: left }] })}>
            {t('instead.another')}
          </TextButton>
        ) : null}
      </Line>
      <TextField label={t('note')} width="36ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
    </>
  )
}
