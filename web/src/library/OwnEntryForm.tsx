import { endpoints, hazardGroups, type LibraryBrief } from '@bocado/contract'
import { useEffect, useState, type ReactNode } from 'react'
import { FileTrigger } from 'react-aria-components'
import { useSearchParams } from 'react-router'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Sheet, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { at, listAt, textAt, type Entry, type Json } from './ownEntry.js'

/* What an organism and a method of the site's own have in common while they are written. */

export interface PartProps {
  entry: Entry
  set: (path: string, value: Json) => void
  setFigure: (path: string, value: number | null) => void
  wrong: (path: string) => string | undefined
}

export type OwnRow = NonNullable<LibraryBrief['own']>

/** Begins an entry from one that is like it, chosen by `from` in the address, or from a file. */
export function OwnEntryStart(p: {
  kind: 'organism' | 'method'
  title: string
  choices: readonly { id: string; name: string }[]
  /** The row of the own entry that is changed; null where a new one is begun. */
  children: (given: Entry, row: OwnRow | null) => ReactNode
}) {
  const { kind } = p
  const t = useText()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const from = search.get('from')
  const [given, setGiven] = useState<{ entry: Entry; key: string } | null>(null)
  const [filesRead, setFilesRead] = useState(0)
  const [unread, setUnread] = useState<string | null>(null)
  useEffect(() => {
    if (!from) return
    let current = true
    void fetch(`/api/v1/sites/${site.id}/library/${kind}s/${from}/file`)
      .then((answer) => answer.json())
      .then((read: Entry) => {
        if (!current) return
        const own = textAt(read, 'id').startsWith('own-')
        setGiven({ entry: own ? read : { ...read, name: t('own.like', { name: textAt(read, 'name') }) }, key: from })
      })
    return () => {
      current = false
    }
  }, [from, kind, site.id, t])
  const { data: briefs = [] } = useRead(endpoints.library.list, { params: { siteId: site.id }, input: {} })
  const rowOf = (entry: Entry): OwnRow | null => briefs.find(({ id, own }) => own && id === textAt(entry, 'id'))?.own ?? null
  const read = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    try {
      const parsed = JSON.parse(await file.text()) as Json
      if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) throw new Error(t('own.noObject'))
      setUnread(null)
      setGiven({ entry: parsed, key: `file ${filesRead}` })
      setFilesRead(filesRead + 1)
    } catch (error) {
      setUnread(t('own.unread', { name: file.name, why: error instanceof Error ? error.message : '' }))
    }
  }
  return (
    <Stack $gap={18}>
      <Title as="h2">{p.title}</Title>
      <Sheet>
        <Stack>
          <p>{t('own.begin')}</p>
          <Line>
            <Select
              label={t('own.from')}
              placeholder={t('choose')}
              width="30ch"
              options={p.choices.map(({ id, name }) => ({ id, label: name }))}
              value={from}
              onChange={(id) => setSearch({ from: id })}
            />
            <FileTrigger acceptedFileTypes={['application/json', '.json']} onSelect={(files) => void read(files)}>
              <Button $plain>{t('own.import')}</Button>
            </FileTrigger>
          </Line>
          <Small>
            {t('own.schema')} <a href={`/api/v1/schemas/${kind}.json`}>{kind}.json</a>
          </Small>
          <FormError text={unread} />
        </Stack>
      </Sheet>
      <Overwritten kind={kind} />
      {given ? <div key={given.key}>{p.children(given.entry, rowOf(given.entry))}</div> : null}
    </Stack>
  )
}

/** What was once lost under another entry of a like name, to be brought back beside it. */
function Overwritten({ kind }: { kind: 'organism' | 'method' }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data = [] } = useRead(endpoints.library.overwritten, { params: { siteId: site.id }, input: {} })
  const bringBack = useWrite(endpoints.library.bringBackOverwritten)
  const lost = data.filter((entry) => entry.kind === kind)
  if (lost.length === 0) return null
  return (
    <Caution>
      {t('own.overwritten', { count: lost.length })}
      <ul>
        {lost.map(({ auditId, name, overwrittenBy, at: when }) => (
          <li key={auditId}>
            {t('own.overwrittenBy', { name, by: overwrittenBy, date: f.moment(when) })}{' '}
            <TextButton
              isDisabled={bringBack.isBarred}
              onPress={() => void bringBack.save({ params: { siteId: site.id, auditId }, input: {} })}
            >
              {t('own.bringBack')}
            </TextButton>
          </li>
        ))}
      </ul>
    </Caution>
  )
}

/** Everything that is wrong, each with its path in the entry. */
export function Faults({ errors }: { errors: Readonly<Record<string, string>> }) {
  const t = useText()
  const faults = Object.entries(errors)
  if (faults.length === 0) return null
  return (
    <Stack role="alert" data-testid="own-faults">
      <b>{t('own.faults', { count: faults.length })}</b>
      <ul>
        {faults.map(([path, message]) => (
          <li key={path}>
            <code>{path.replace(/^entry\.?/, '') || 'entry'}</code> {message}
          </li>
        ))}
      </ul>
    </Stack>
  )
}

export function ItsHazards({ entry, set, wrong }: Pick<PartProps, 'entry' | 'set' | 'wrong'>) {
  const t = useText()
  const hazards = listAt(entry, 'hazards')
  return (
    <Stack>
      <Heading>{t('own.part.hazards')}</Heading>
      <Caution>{t('own.hazards')}</Caution>
      {hazards.map((_, i) => (
        <Line key={`${hazards.length} ${i}`}>
          <Select
            label={t('own.hazardGroup')}
            placeholder={t('choose')}
            width="20ch"
            options={hazardGroups.map((id) => ({ id, label: t(`hazard.${id}`) }))}
            value={textAt(entry, `hazards.${i}.group`)}
            onChange={(v) => set(`hazards.${i}.group`, v)}
          />
          <TextField
            label={t('own.hazardText')}
            width="60ch"
            value={textAt(entry, `hazards.${i}.text`)}
            onChange={(v) => set(`hazards.${i}.text`, v)}
            error={wrong(`hazards.${i}.text`)}
          />
          <Checkbox
            label={t('own.hazardTouch')}
            value={at(entry, `hazards.${i}.touch`) === true}
            onChange={(v) => set(`hazards.${i}.touch`, v)}
          />
          <TextButton
            aria-label={t('own.dropHazard', { number: i + 1 })}
            onPress={() =>
              set(
                'hazards',
                hazards.filter((__, k) => k !== i),
              )
            }
          >
            {t('suspects.drop')}
          </TextButton>
        </Line>
      ))}
      <Line>
        <Button $plain onPress={() => set('hazards', [...hazards, { group: 'people', text: '' }])}>
          {t('own.addHazard')}
        </Button>
      </Line>
    </Stack>
  )
}

/** The whole entry as it will be kept, for what has no field. */
export function WholeEntry({ entry, onChange }: { entry: Entry; onChange: (entry: Entry) => void }) {
  const t = useText()
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const [wrong, setWrong] = useState<string | null>(null)
  if (!open)
    return (
      <Line>
        <TextButton
          onPress={() => {
            setTyped(JSON.stringify(entry, null, 2))
            setOpen(true)
          }}
        >
          {t('own.whole')}
        </TextButton>
      </Line>
    )
  return (
    <Stack>
      <TextField label={t('own.wholeText')} rows={18} width="100%" value={typed} onChange={setTyped} error={wrong ?? undefined} />
      <Line>
        <Button
          $plain
          onPress={() => {
            try {
              onChange(JSON.parse(typed) as Entry)
              setOpen(false)
              setWrong(null)
            } catch (error) {
              setWrong(error instanceof Error ? error.message : String(error))
            }
          }}
        >
          {t('own.takeWhole')}
        </Button>
        <TextButton onPress={() => setOpen(false)}>{t('cancel')}</TextButton>
      </Line>
    </Stack>
  )
}
