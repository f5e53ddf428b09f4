import { endpoints, methodKinds } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { useNavigate, useSearchParams } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, NumberField, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Fields, Line, Small, Stack, Title } from '../design/text.js'
import { useText, type Say } from '../messages/useText.js'
import { figureAt, linesOf, listAt, put, textAt, type Entry, type Json } from './ownEntry.js'
import { ItsHazards, WholeEntry } from './OwnOrganism.js'

/** A way to act of the site's own, begun from one that is like it. */
export function OwnMethod() {
  const t = useText()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const from = search.get('from')
  const [entry, setEntry] = useState<Entry | null>(null)
  const [unread, setUnread] = useState<string | null>(null)
  const { data: methods = [] } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  useEffect(() => {
    if (!from) return
    let current = true
    void fetch(`/api/v1/sites/${site.id}/library/methods/${from}/file`)
      .then((answer) => answer.json())
      .then((read: Entry) => {
        if (current)
          setEntry(textAt(read, 'id').startsWith('own-') ? read : { ...read, name: t('own.like', { name: textAt(read, 'name') }) })
      })
    return () => {
      current = false
    }
  }, [from, site.id, t])
  const read = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    try {
      setEntry(JSON.parse(await file.text()) as Entry)
      setUnread(null)
    } catch (error) {
      setUnread(t('own.unread', { name: file.name, why: error instanceof Error ? error.message : '' }))
    }
  }
  return (
    <Stack $gap={18}>
      <Title as="h2">{t('own.methodTitle')}</Title>
      <Line>
        <Select
          label={t('own.from')}
          placeholder={t('choose')}
          width="30ch"
          options={methods.map(({ id, name }) => ({ id, label: name }))}
          value={from}
          onChange={(id) => setSearch({ from: id })}
        />
        <FileTrigger acceptedFileTypes={['application/json', '.json']} onSelect={(files) => void read(files)}>
          <Button $plain>{t('own.import')}</Button>
        </FileTrigger>
      </Line>
      <Small>
        {t('own.schema')} <a href="/api/v1/schemas/method.json">method.json</a>
      </Small>
      <FormError text={unread} />
      {entry ? <MethodForm key={from ?? 'file'} given={entry} /> : null}
    </Stack>
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

function MethodForm({ given }: { given: Entry }) {
  const t = useText()
  const site = useSite()
  const navigate = useNavigate()
  const form = useEntry(endpoints.library.saveMethod, { entry: given })
  const { entry } = form.values
  const [steps, setSteps] = useState(stepsText(given))
  const set = (path: string, value: Json): void => form.set({ entry: put(entry, path, value) })
  const wrong = (path: string): string | undefined => form.errors[`entry.${path}`]
  const field = (path: string, label: Parameters<Say>[0], width = '44ch') => (
    <TextField label={t(label)} width={width} value={textAt(entry, path)} onChange={(v) => set(path, v)} error={wrong(path)} />
  )
  const save = async (): Promise<void> => {
    const saved = await form.submit({ siteId: site.id })
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
        onChange={(text) => {
          setSteps(text)
          set('steps', stepsOf(text))
        }}
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
      {Object.entries(form.errors).map(([path, message]) => (
        <FormError key={path} text={`${path.replace(/^entry\.?/, '')}: ${message}`} />
      ))}
      <FormError text={form.general} />
      <Line>
        <Button onPress={() => void save()} isDisabled={form.isSaving}>
          {t('own.save')}
        </Button>
      </Line>
    </Stack>
  )
}
