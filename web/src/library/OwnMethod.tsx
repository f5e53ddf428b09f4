import { endpoints, methodKinds } from '@bocado/contract'
import { useNavigate } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Fields, Stack } from '../design/text.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import { useText, type Say } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Faults, ItsHazards, OwnEntryStart, WholeEntry, type OwnRow } from './OwnEntryForm.js'
import { figureAt, linesOf, listAt, put, textAt, type Entry, type Json } from './ownEntry.js'
import '../messages/en/field.js'
import '../messages/en/library.js'

/** A way to act of the site's own, begun from one that is like it. */
export function OwnMethod() {
  const t = useText()
  usePageTitle(t('own.methodTitle'))
  const site = useSite()
  const { data: methods = [] } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  return (
    <OwnEntryStart kind="method" title={t('own.methodTitle')} choices={methods}>
      {(given, row) => <MethodForm given={given} row={row} />}
    </OwnEntryStart>
  )
}

/** A step a line; what follows a bar is the time in which it has to follow. */
const stepsText = (entry: Entry): string =>
  listAt(entry, 'steps')
    .map((_, i) => [textAt(entry, `steps.${i}.do`), textAt(entry, `steps.${i}.within`)].filter(Boolean).join(' | '))
    .join('\n')
const stepsOf = (text: string): Json =>
  linesOf(text).map((line) => {
    const [step = '', within] = line.split('|').map((part) => part.trim())
    return within ? { do: step, within } : { do: step }
  })

function MethodForm({ given, row }: { given: Entry; row: OwnRow | null }) {
  const t = useText()
  const site = useSite()
  const navigate = useNavigate()
  // Steps are held as they are typed: a line that is being begun is no step yet.
  const form = useEntry(
    endpoints.library.saveMethod,
    { entry: given, steps: stepsText(given), shared: row?.shared ?? false } as { entry: Entry; steps: string; shared: boolean },
    row,
    `${site.id} ${textAt(given, 'id')}`,
  )
  const { entry, steps } = form.values
  const set = (path: string, value: Json): void => form.set({ entry: put(entry, path, value) })
  const wrong = (path: string): string | undefined => form.errors[`entry.${path}`]
  const field = (path: string, label: Parameters<Say>[0], width = '44ch') => (
    <TextField label={t(label)} width={width} value={textAt(entry, path)} onChange={(v) => set(path, v)} error={wrong(path)} />
  )
  const save = async (): Promise<void> => {
    const saved = await form.submit({ siteId: site.id }, ({ entry, shared }, version) => ({ entry, shared, rowVersion: version }))
    if (saved) await navigate(`/sites/${site.id}/library/methods/${saved.entryId}`)
  }
  return (
    <Stack>
      <Fields>
        {field('name', 'own.name')}
        <Select
          label={t('own.kind')}
          placeholder={t('choose')}
          width="20ch"
          options={methodKinds.map((id) => ({ id, label: t(`methodKind.${id}`) }))}
          value={textAt(entry, 'kind')}
          onChange={(v) => set('kind', v)}
        />
        <Select
          label={t('organism.evidence')}
          placeholder={t('choose')}
          width="20ch"
          options={(['tested', 'mixed', 'anecdotal'] as const).map((id) => ({ id, label: t(`evidence.${id}`) }))}
          value={textAt(entry, 'evidence')}
          onChange={(v) => set('evidence', v)}
        />
      </Fields>
      {field('what', 'own.what', '70ch')}
      <TextField
        label={t('own.steps')}
        width="70ch"
        rows={5}
        value={steps}
        onChange={(text) => form.set({ steps: text, entry: put(entry, 'steps', stepsOf(text)) })}
        error={wrong('steps')}
      />
      <Fields>
        {field('goodJob', 'own.good')}
        {field('failedJob', 'own.failed')}
      </Fields>
      <Fields>
        {field('worksOn', 'own.worksOn')}
        {field('provokes', 'own.provokes')}
      </Fields>
      <Fields>
        <NumberField
          label={t('own.hours')}
          unit={textAt(entry, 'hours.unit')}
          width="16ch"
          value={figureAt(entry, 'hours.perUnit')}
          onChange={(v) => (v === null ? undefined : set('hours.perUnit', v))}
          error={wrong('hours.perUnit')}
        />
        <NumberField
          label={t('own.judge')}
          width="16ch"
          value={figureAt(entry, 'judgeAfterDays')}
          onChange={(v) => (v === null ? undefined : set('judgeAfterDays', v))}
          error={wrong('judgeAfterDays')}
        />
      </Fields>
      <ItsHazards entry={entry} set={set} wrong={wrong} />
      <WholeEntry entry={entry} onChange={(next) => form.set({ entry: next })} />
      <Faults errors={form.errors} />
      <SharedCheckbox bound={form.bind.check('shared')} />
      <DraftNote entry={form} />
      <FormError text={form.general} />
      <FormLine onSave={save} isBarred={form.isBarred}>
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('own.save')}
        </Button>
      </FormLine>
    </Stack>
  )
}
