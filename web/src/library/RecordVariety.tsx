import { countedParts, endpoints, type LibraryEntry, type ResponseOf, type VarietyLook } from '@bocado/contract'
import { useBlocks } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Choice, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField } from '../design/NumberField.js'
import { SuggestField } from '../design/SuggestField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Fields, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { DamageDegree } from './DamageDegree.js'

type Here = ResponseOf<typeof endpoints.varieties.get>

interface Typed {
  [field: string]: unknown
  blockId: string | null
  lookedOn: string | null
  variety: string
  libraryVariety: string
  part: VarietyLook['part']
  looked: number | null
  hit: number | null
  degree: string
  note: string
}
const NONE = 'none'
/** In a sentence: the degree was not judged. */
export const UNJUDGED = NONE

/** What each variety has of its own. */
const BLANK = { variety: '', libraryVariety: NONE, hit: null, degree: NONE, note: '' } as const

/** The part that the organism's most typical sign is seen on, of those that can be counted. */
const usualPart = ({ about }: LibraryEntry): VarietyLook['part'] =>
  [...about.signs]
    .sort((a, b) => b.typical - a.typical)
    .flatMap(({ part }) => countedParts.find((p) => p === part) ?? [])
    .at(0) ?? 'plant'

/** A look at one variety after another: block, day, part and number stay for the next. */
export function RecordVariety(p: { entry: LibraryEntry; here: Here; blockId: string | null; look?: VarietyLook; onDone: () => void }) {
  const { entry, here, look } = p
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const initial: Typed = {
    blockId: look?.blockId ?? p.blockId,
    lookedOn: look?.lookedOn ?? site.today,
    variety: look?.variety ?? '',
    libraryVariety: look?.libraryVariety ?? NONE,
    part: look?.part ?? here.looks[0]?.part ?? usualPart(entry),
    looked: look?.looked ?? null,
    hit: look?.hit ?? null,
    degree: look?.degree === null || look === undefined ? NONE : String(look.degree),
    note: look?.note ?? '',
  }
  const adding = useEntry<typeof endpoints.varieties.add, Typed>(
    endpoints.varieties.add,
    initial,
    null,
    look ? undefined : `${site.id} ${entry.id}`,
  )
  const changing = useEntry<typeof endpoints.varieties.update, Typed>(endpoints.varieties.update, initial, look, look?.id)
  const form = look ? changing : adding
  const { values, set, errors } = form
  const said = entry.about.varieties.map(({ what }) => what)
  const { drawing, degrees } = entry.about.damage

  /** What is said of a variety once is said of it again. */
  const name = (variety: string): void => {
    const before = here.looks.find((look) => look.variety.toLowerCase() === variety.trim().toLowerCase())
    set(before ? { variety, libraryVariety: before.libraryVariety ?? NONE } : { variety })
  }
  const save = async (): Promise<void> => {
    const sent = values
    const typed = (v: Typed) => ({
      ...v,
      blockId: v.blockId ?? '',
      lookedOn: v.lookedOn ?? '',
      libraryVariety: v.libraryVariety === NONE ? null : v.libraryVariety,
      degree: v.degree === NONE ? null : Number(v.degree),
    })
    if (look) {
      const corrected = await changing.submit({ siteId: site.id, lookId: look.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      if (corrected) p.onDone()
      return
    }
    const kept = await adding.submit({ siteId: site.id }, (v) => ({ ...typed(v), organismId: entry.id }))
    if (!kept) return
    // What was typed for the next variety while this one was stored stays.
    form.setValues((now) => {
      const next = { ...now }
      for (const [field, blank] of Object.entries(BLANK)) if (now[field] === sent[field]) next[field] = blank
      return next
    })
  }
  return (
    <Stack data-testid="record-variety">
      <Fields>
        <Select
          label={t('varieties.block')}
          placeholder={t('choose')}
          width="22ch"
          options={blocks.map(({ id, name: label }) => ({ id, label }))}
          value={values.blockId}
          onChange={(blockId) => set({ blockId })}
          error={values.blockId === null ? errors['blockId'] && t('varieties.chooseBlock') : errors['blockId']}
        />
        <DateField
          label={t('varieties.lookedOn')}
          value={values.lookedOn}
          onChange={(lookedOn) => set({ lookedOn })}
          error={errors['lookedOn']}
        />
        <Select
          label={t('varieties.part')}
          placeholder={t('choose')}
          width="20ch"
          options={countedParts.map((id) => ({ id, label: t(`part.${id}`) }))}
          value={values.part}
          onChange={(part) => set({ part: part as VarietyLook['part'], degree: NONE })}
          error={errors['part']}
        />
      </Fields>
      <Fields>
        <SuggestField
          label={t('varieties.variety')}
          width="24ch"
          words={here.names}
          value={values.variety}
          onChange={name}
          error={errors['variety']}
        />
        {said.length > 0 ? (
          <Select
            label={t('varieties.kind')}
            placeholder={t('choose')}
            width="32ch"
            options={[{ id: NONE, label: t('varieties.kind.none') }, ...said.map((what) => ({ id: what, label: what }))]}
            value={values.libraryVariety}
            onChange={(libraryVariety) => set({ libraryVariety })}
            error={errors['libraryVariety']}
          />
        ) : null}
        <NumberField
          label={t('varieties.looked')}
          width="10ch"
          digits={0}
          value={values.looked}
          onChange={(looked) => set({ looked })}
          error={errors['looked']}
        />
        <NumberField
          label={t('varieties.hit')}
          width="10ch"
          digits={0}
          value={values.hit}
          onChange={(hit) => set({ hit })}
          error={errors['hit']}
        />
      </Fields>
      {values.part === 'leaf' && drawing.startsWith('leaf') ? (
        <Stack $gap={4}>
          <Small>{t('varieties.degree')}</Small>
          <Line style={{ alignItems: 'center' }}>
            <Choice
              label={t('varieties.degree')}
              options={[
                { id: NONE, label: t('varieties.degree.none') },
                ...degrees.map((percent) => ({ id: String(percent), label: t('organism.degree', { percent: f.number(percent) }) })),
              ]}
              value={values.degree}
              onChange={(degree) => set({ degree })}
            />
            {values.degree === NONE ? null : (
              <div style={{ width: 92 }}>
                <DamageDegree drawing={drawing} percent={Number(values.degree)} label={t('organism.degree', { percent: values.degree })} />
              </div>
            )}
          </Line>
        </Stack>
      ) : null}
      <TextField label={t('varieties.note')} width="40ch" value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
      <p aria-live="polite">
        {values.variety.trim() === ''
          ? null
          : t('varieties.sentence', {
              variety: values.variety.trim(),
              block: blocks.find(({ id }) => id === values.blockId)?.name ?? '…',
              date: values.lookedOn ? f.withYear(values.lookedOn) : '…',
              hit: values.hit === null ? '…' : f.number(values.hit),
              looked: values.looked === null ? '…' : f.number(values.looked),
              part: t(`part.${values.part}`),
              degree: values.degree === NONE ? NONE : t('organism.degree', { percent: values.degree }),
            })}
      </p>
      <DraftNote entry={form} />
      <FormError text={form.general} />
      <FormLine onSave={save} onLeave={p.onDone} isBarred={form.isBarred}>
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('save')}
        </Button>
        <Button $plain onPress={p.onDone}>
          {t(look ? 'cancel' : 'varieties.done')}
        </Button>
      </FormLine>
    </Stack>
  )
}
