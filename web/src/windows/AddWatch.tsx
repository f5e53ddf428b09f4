import { livesIn } from '@bocado/core/growing'
import { endpoints, type Block, type Organism, type Watch } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { useGrown } from './useGrown.js'
import { Button, TextButton } from '../design/buttons.js'
import { Picks, SearchField, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { Caution, Heading, Line, Page, Quiet, Sheet, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { SourceKnown } from './SourceKnown.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/windows.js'

/** Where a watch is begun, and what is done with it then. */
export interface NewWatch {
  blocks: readonly Block[]
  organisms: readonly Organism[]
  /** The block that is in view, if any. */
  blockId: string | undefined
  onAdded: (watchId: string) => void
  onCancel: () => void
}

/** More than this are not listed before somebody looks for one. */
const LISTED = 24

/** Watch what lives in a block: what attacks what grows there is proposed, several are taken at once, and one alone is asked what it needs. */
export function AddWatch({ blocks, organisms, blockId: inView, onAdded, onCancel }: NewWatch) {
  const t = useText()
  const site = useSite()
  const [blockId, setBlockId] = useState<string | null>(inView ?? blocks[0]?.id ?? null)
  const [words, setWords] = useState('')
  const [chosen, setChosen] = useState<readonly string[]>([])
  const { data: watches = [] } = useRead(endpoints.watches.list, { params: { siteId: site.id }, input: { season: site.season.start } })
  const several = useEntry(endpoints.watches.createSeveral, {})
  const block = blocks.find(({ id }) => id === blockId)
  const watched = new Set(watches.flatMap((watch) => (watch.blockId === blockId ? [watch.organismId] : [])))
  const { grows, alsoCalled } = useGrown(block)
  const open = organisms.filter(({ id }) => !watched.has(id))
  const likely =
    grows === ''
      ? []
      : open.filter(({ crops, hosts }) =>
          livesIn(
            alsoCalled,
            // What lives on many things is found by its name; proposed it would stand in every block.
            [...crops, ...hosts].filter((host) => !host.startsWith('many')),
          ),
        )
  const typed = words.trim().toLowerCase()
  const found = open.filter(({ name, scientificName, crops }) => [name, scientificName, ...crops].join(' ').toLowerCase().includes(typed))
  const listed = typed === '' ? likely : found
  const shown = [...open.filter(({ id }) => chosen.includes(id) && !listed.some((one) => one.id === id)), ...listed.slice(0, LISTED)]
  const only = chosen.length === 1 ? organisms.find(({ id }) => id === chosen[0]) : undefined
  const saveAll = async (): Promise<void> => {
    const made = await several.submit({ siteId: site.id }, () => ({
      organismIds: chosen,
      blockId: blockId ?? '',
      season: site.season.start,
    }))
    const [first] = made ?? []
    if (first) onAdded(first.id)
  }
  const refused = Object.values(several.errors)[0]
  return (
    <Page as="section" aria-labelledby="add-watch">
      <Sheet>
        <Stack>
          <Heading id="add-watch">{t('watch.add')}</Heading>
          <Line>
            <Select
              label={t('watch.block')}
              placeholder={t('choose')}
              width="24ch"
              options={blocks.map(({ id, name }) => ({ id, label: name }))}
              value={blockId}
              onChange={(id) => {
                setBlockId(id)
                setChosen([])
              }}
            />
            <SearchField label={t('watch.find')} width="28ch" value={words} onChange={setWords} />
          </Line>
          <Line>
            <Small>
              {typed !== ''
                ? t('watch.found', { count: found.length, words: words.trim() })
                : likely.length > 0
                  ? t('watch.likely', { grows, block: block?.name ?? '', count: likely.length })
                  : t('watch.nothingLikely', { grows: grows === '' ? 'none' : grows })}
            </Small>
            {typed === '' && likely.length > 1 && chosen.length === 0 ? (
              <TextButton onPress={() => setChosen(likely.map(({ id }) => id))}>{t('watch.all', { count: likely.length })}</TextButton>
            ) : null}
          </Line>
          <Picks
            label={t('watch.organism')}
            options={shown.map(({ id, name, gives }) => ({ id, text: name, more: <Quiet>{t(`watch.gives.${gives}`)}</Quiet> }))}
            value={chosen}
            onChange={setChosen}
          />
          {listed.length > LISTED ? <Small>{t('watch.more', { count: listed.length - LISTED })}</Small> : null}
          <FormError text={several.general ?? refused ?? null} />
          {only && blockId ? (
            <OneWatch key={only.id} organism={only} blockId={blockId} onAdded={onAdded} onCancel={onCancel} />
          ) : (
            <Line>
              <Button onPress={() => void saveAll()} isDisabled={several.isBarred || chosen.length === 0 || !blockId}>
                {t('watch.several', { count: chosen.length })}
              </Button>
              <Button $plain onPress={onCancel}>
                {t('cancel')}
              </Button>
              {chosen.length > 1 ? <Small>{t('watch.askedLater')}</Small> : null}
            </Line>
          )}
        </Stack>
      </Sheet>
    </Page>
  )
}

/** What one organism asks for before it is watched: all of it may stay open. */
function OneWatch(p: { organism: Organism; blockId: string; onAdded: (watchId: string) => void; onCancel: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(
    endpoints.watches.create,
    {
      biofix: null as string | null,
      biofixNote: '',
      sourceKnown: 'unknown' as Watch['sourceKnown'],
    },
    null,
    `${p.blockId} ${p.organism.id}`,
  )
  const { values, set, errors } = entry
  const { organism } = p
  const save = async (): Promise<void> => {
    const watch = await entry.submit({ siteId: site.id }, (v) => ({
      ...v,
      organismId: organism.id,
      blockId: p.blockId,
      season: site.season.start,
      threshold: null,
    }))
    if (watch) p.onAdded(watch.id)
  }
  return (
    <>
      <p>
        {organism.biofix.ask} {t('watch.biofixLater', { kind: organism.biofix.kind })}
      </p>
      <Line>
        <DateField label={t('watch.biofix')} value={values.biofix} onChange={(biofix) => set({ biofix })} error={errors['biofix']} />
        <TextField
          label={t('watch.biofixNote')}
          width="36ch"
          value={values.biofixNote}
          onChange={(biofixNote) => set({ biofixNote })}
          error={errors['biofixNote']}
        />
      </Line>
      {organism.infection ? (
        <>
          <p>{organism.infection.inoculum}</p>
          <SourceKnown value={values.sourceKnown} onChange={(sourceKnown) => set({ sourceKnown })} />
        </>
      ) : null}
      <Small>{t('watch.lookAlikes')}</Small>
      {organism.lookAlikes.map((text) => (
        <Caution key={text}>{text}</Caution>
      ))}
      <Small>{t('caution.identity')}</Small>
      <FormError text={errors['organismId'] ?? errors['blockId'] ?? null} />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onCancel} words={t('watch.start')} />
    </>
  )
}
