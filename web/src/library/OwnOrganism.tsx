import { endpoints, plantParts, signKinds, type Method } from '@bocado/contract'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { useOrganisms, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { QuantityField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Several } from '../design/Several.js'
import { Fields, Heading, Line, Small, Stack } from '../design/text.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import { measureOf } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Faults, ItsHazards, OwnEntryStart, WholeEntry, type OwnRow, type PartProps } from './OwnEntryForm.js'
import { at, figureAt, linesOf, listAt, monthsOf, put, putFigure, textAt, typedMonths, type Entry, type Json } from './ownEntry.js'
import '../messages/en/field.js'
import '../messages/en/library.js'

/** An organism that the library lacks, or has otherwise: begun from one that is like it, part by part, each checked with its reason. */
export function OwnOrganism() {
  const t = useText()
  usePageTitle(t('own.title'))
  const { data: organisms = [] } = useOrganisms()
  return (
    <OwnEntryStart kind="organism" title={t('own.title')} choices={organisms}>
      {(given, row) => <OrganismForm given={given} row={row} />}
    </OwnEntryStart>
  )
}

function OrganismForm({ given, row }: { given: Entry; row: OwnRow | null }) {
  const t = useText()
  const site = useSite()
  const navigate = useNavigate()
  const form = useEntry(
    endpoints.library.saveOrganism,
    { entry: given, shared: row?.shared ?? false } as { entry: Entry; shared: boolean },
    row,
    `${site.id} ${textAt(given, 'id')}`,
  )
  const { entry } = form.values
  const change = (next: Entry): void => form.set({ entry: next })
  const part: PartProps = {
    entry,
    set: (path, value) => change(put(entry, path, value)),
    setFigure: (path, value) => (value === null ? undefined : change(putFigure(entry, path, value))),
    wrong: (path) => form.errors[`entry.${path}`] ?? form.errors[`entry.${path}.value`],
  }
  const save = async (): Promise<void> => {
    const saved = await form.submit({ siteId: site.id }, (values, version) => ({ ...values, rowVersion: version }))
    if (saved) await navigate(`/sites/${site.id}/library/organisms/${saved.entryId}`)
  }
  return (
    // Fields that hold a text of their own begin anew with a draft.
    <Stack $gap={22} key={form.draftSince}>
      <DraftNote entry={form} />
      <WhatItIs {...part} />
      <ItsYear {...part} />
      <ItsStages {...part} />
      <ItsSigns {...part} />
      <ItsCharacters {...part} />
      <WhatHelps {...part} />
      <ItsVarieties {...part} />
      <ItsHazards {...part} />
      <WholeEntry entry={entry} onChange={change} />
      <Faults errors={form.errors} />
      <SharedCheckbox bound={form.bind.check('shared')} />
      <FormError text={form.general} />
      <FormLine onSave={save} isBarred={form.isBarred}>
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('own.save')}
        </Button>
        <a href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(entry, null, 2))}`} download="organism.json">
          {t('organism.export')}
        </a>
      </FormLine>
    </Stack>
  )
}

function WhatItIs({ entry, set, wrong }: PartProps) {
  const t = useText()
  const field = (path: string, label: Parameters<Say>[0], width = '28ch') => (
    <TextField label={t(label)} width={width} value={textAt(entry, path)} onChange={(value) => set(path, value)} error={wrong(path)} />
  )
  const lines = (path: string, label: Parameters<Say>[0]) => <Lines path={path} label={t(label)} entry={entry} set={set} wrong={wrong} />
  return (
    <Stack>
      <Heading>{t('own.part.what')}</Heading>
      <Fields>
        {field('name', 'own.name')}
        {field('scientificName', 'own.scientificName')}
        {field('about.family', 'own.family')}
      </Fields>
      <Fields>
        {lines('crops', 'own.crops')}
        {lines('about.hosts', 'own.hosts')}
      </Fields>
      <Fields>
        {field('about.winters.as', 'own.winterAs')}
        {field('about.winters.where', 'own.winterWhere', '36ch')}
      </Fields>
    </Stack>
  )
}

function Lines({ path, label, entry, set, wrong }: { path: string; label: string } & Pick<PartProps, 'entry' | 'set' | 'wrong'>) {
  const [typed, setTyped] = useState(listAt(entry, path).map(String).join('\n'))
  return (
    <TextField
      label={label}
      width="34ch"
      rows={3}
      value={typed}
      onChange={(text) => {
        setTyped(text)
        set(path, linesOf(text))
      }}
      error={wrong(path)}
    />
  )
}

/** Months where no number is known, otherwise the heat rule and each event with its figures. */
function ItsYear({ entry, set, setFigure, wrong }: PartProps) {
  const t = useText()
  const { measures } = useFormat()
  const monthsOnly = at(entry, 'monthsOnly') === true
  const number = (path: string, label: Parameters<Say>[0], unit: string) => (
    <QuantityField
      key={path}
      label={t(label)}
      measure={measureOf(unit, measures)}
      width="13ch"
      value={figureAt(entry, path)}
      onChange={(value) => setFigure(path, value)}
      error={wrong(path)}
    />
  )
  return (
    <Stack>
      <Heading>{t('own.part.year')}</Heading>
      {monthsOnly ? (
        <Small>{t('own.monthsOnly')}</Small>
      ) : (
        <Fields>
          {number('heat.lower', 'own.lower', '°C')}
          {figureAt(entry, 'heat.upper') === null ? null : number('heat.upper', 'own.upper', '°C')}
          <Select
            label={t('own.method')}
            placeholder={t('choose')}
            width="22ch"
            options={(['average', 'clamped-average', 'single-sine', 'double-sine', 'single-triangle', 'double-triangle'] as const).map(
              (id) => ({
                id,
                label: t(`method.${id}`),
              }),
            )}
            value={textAt(entry, 'heat.method')}
            onChange={(method) => set('heat.method', method)}
          />
        </Fields>
      )}
      {listAt(entry, 'generations').map((_, g) => {
        const path = `generations.${g}`
        return (
          <Stack key={path}>
            <Fields>
              <TextField
                label={t('own.generation')}
                width="24ch"
                value={textAt(entry, `${path}.name`)}
                onChange={(v) => set(`${path}.name`, v)}
                error={wrong(`${path}.name`)}
              />
              {at(entry, `${path}.usual`) ? (
                <>
                  <Months path={`${path}.usual.months`} label={t('own.months')} entry={entry} set={set} wrong={wrong} />
                  <TextField
                    label={t('own.bloom')}
                    width="34ch"
                    value={textAt(entry, `${path}.usual.bloom`)}
                    onChange={(v) => set(`${path}.usual.bloom`, v)}
                    error={wrong(`${path}.usual.bloom`)}
                  />
                </>
              ) : null}
            </Fields>
            {listAt(entry, `${path}.events`).map((__, e) => {
              const event = `${path}.events.${e}`
              return (
                <Fields key={event}>
                  <TextField
                    label={t('own.event')}
                    width="22ch"
                    value={textAt(entry, `${event}.name`)}
                    onChange={(v) => set(`${event}.name`, v)}
                    error={wrong(`${event}.name`)}
                  />
                  {number(`${event}.heat`, 'own.heat', '°C·d')}
                  {figureAt(entry, `${event}.spread`) === null ? null : number(`${event}.spread`, 'own.spread', '°C·d')}
                  {number(`${event}.heatSe`, 'own.heatSe', '°C·d')}
                </Fields>
              )
            })}
          </Stack>
        )
      })}
    </Stack>
  )
}

function Months({ path, label, entry, set, wrong }: { path: string; label: string } & Pick<PartProps, 'entry' | 'set' | 'wrong'>) {
  const t = useText()
  const [typed, setTyped] = useState(typedMonths(listAt(entry, path)))
  const months = monthsOf(typed)
  return (
    <TextField
      label={label}
      width="14ch"
      value={typed}
      onChange={(text) => {
        setTyped(text)
        const read = monthsOf(text)
        if (read) set(path, read)
      }}
      error={months ? wrong(path) : t('own.noMonths')}
    />
  )
}

function ItsStages({ entry, set, wrong }: PartProps) {
  const t = useText()
  return (
    <Stack>
      <Heading>{t('own.part.stages')}</Heading>
      {listAt(entry, 'stages').map((_, i) => (
        <Line key={i}>
          <TextField
            label={t('own.stage')}
            width="20ch"
            value={textAt(entry, `stages.${i}.name`)}
            onChange={(v) => set(`stages.${i}.name`, v)}
            error={wrong(`stages.${i}.name`)}
          />
          <TextField
            label={t('own.stageWhere')}
            width="44ch"
            value={textAt(entry, `stages.${i}.where`)}
            onChange={(v) => set(`stages.${i}.where`, v)}
            error={wrong(`stages.${i}.where`)}
          />
        </Line>
      ))}
    </Stack>
  )
}

function ItsSigns({ entry, set, wrong }: PartProps) {
  const t = useText()
  const signs = listAt(entry, 'about.signs')
  const named = <T extends string>(all: readonly T[], prefix: string) =>
    all.map((id) => ({ id, label: t(`${prefix}.${id}` as Parameters<Say>[0]) }))
  return (
    <Stack>
      <Heading>{t('own.part.signs')}</Heading>
      {signs.map((_, i) => {
        const path = `about.signs.${i}`
        return (
          <Line key={`${signs.length} ${i}`}>
            <Select
              label={t('suspects.part')}
              placeholder={t('choose')}
              width="14ch"
              options={named(plantParts, 'part')}
              value={textAt(entry, `${path}.part`)}
              onChange={(v) => set(`${path}.part`, v)}
            />
            <Select
              label={t('suspects.sign')}
              placeholder={t('choose')}
              width="20ch"
              options={named(signKinds, 'sign')}
              value={textAt(entry, `${path}.sign`)}
              onChange={(v) => set(`${path}.sign`, v)}
            />
            <Months path={`${path}.months`} label={t('own.months')} entry={entry} set={set} wrong={wrong} />
            <TextField
              label={t('own.tell')}
              width="40ch"
              value={textAt(entry, `${path}.tell`)}
              onChange={(v) => set(`${path}.tell`, v)}
              error={wrong(`${path}.tell`)}
            />
            <TextButton
              aria-label={t('own.dropSign', { number: i + 1 })}
              onPress={() =>
                set(
                  'about.signs',
                  signs.filter((__, k) => k !== i),
                )
              }
            >
              {t('suspects.drop')}
            </TextButton>
          </Line>
        )
      })}
      <Line>
        <Button $plain onPress={() => set('about.signs', [...signs, { part: 'leaf', sign: 'holes', months: [6], typical: 0.5, tell: '' }])}>
          {t('own.addSign')}
        </Button>
      </Line>
    </Stack>
  )
}

function ItsCharacters({ entry, set, wrong }: PartProps) {
  const t = useText()
  const path = 'about.identity.characters'
  return (
    <Stack>
      <Heading>{t('own.part.identity')}</Heading>
      {listAt(entry, path).map((_, i) => (
        <Fields key={i}>
          <TextField
            label={t('own.ask')}
            width="30ch"
            value={textAt(entry, `${path}.${i}.ask`)}
            onChange={(v) => set(`${path}.${i}.ask`, v)}
            error={wrong(`${path}.${i}.ask`)}
          />
          <TextField
            label={t('own.here')}
            width="28ch"
            value={textAt(entry, `${path}.${i}.here.text`)}
            onChange={(v) => set(`${path}.${i}.here.text`, v)}
            error={wrong(`${path}.${i}.here.text`)}
          />
          <TextField
            label={t('own.others')}
            width="28ch"
            value={textAt(entry, `${path}.${i}.others.text`)}
            onChange={(v) => set(`${path}.${i}.others.text`, v)}
            error={wrong(`${path}.${i}.others.text`)}
          />
        </Fields>
      ))}
    </Stack>
  )
}

/** Which kinds of a method do it, where the wrong one does nothing. */
function StrainsOf(p: Pick<PartProps, 'entry' | 'set' | 'wrong'> & { methods: readonly Method[]; path: string }) {
  const t = useText()
  const strains = p.methods.find(({ id }) => id === textAt(p.entry, `${p.path}.method`))?.strains ?? []
  if (strains.length === 0) return null
  return (
    <Several
      label={t('own.strains')}
      placeholder={t('choose')}
      width="30ch"
      options={strains.map(({ id, name }) => ({ id, label: name }))}
      value={listAt(p.entry, `${p.path}.strains`).map(String)}
      onChange={(chosen) => p.set(`${p.path}.strains`, chosen)}
      dropWords={(name) => t('several.drop', { name })}
      error={p.wrong(`${p.path}.strains`)}
    />
  )
}

/** A variety a line; what follows a bar is how it bears it. */
const varietiesText = (entry: Entry): string =>
  listAt(entry, 'about.varieties')
    .map((_, i) => [textAt(entry, `about.varieties.${i}.what`), textAt(entry, `about.varieties.${i}.effect`)].join(' | '))
    .join('\n')

/** Varieties as they are typed; one that stands as it was keeps what it rests on. */
function varietiesOf(text: string, entry: Entry): Json {
  const before = listAt(entry, 'about.varieties')
  return linesOf(text).map((line) => {
    const [what = '', effect = ''] = line.split('|').map((part) => part.trim())
    const same = before.find(
      (_, i) => textAt(entry, `about.varieties.${i}.what`) === what && textAt(entry, `about.varieties.${i}.effect`) === effect,
    )
    return same ?? { what, effect, confidence: 'approximate', region: 'this site', source: { kind: 'none' } }
  })
}

/** Varieties that bear it well or badly, as this site knows them. */
function ItsVarieties({ entry, set, wrong }: PartProps) {
  const t = useText()
  const [text, setText] = useState(varietiesText(entry))
  return (
    <Stack>
      <Heading>{t('own.part.varieties')}</Heading>
      <TextField
        label={t('own.varieties')}
        width="70ch"
        rows={4}
        hint={t('own.varietiesHint')}
        value={text}
        onChange={(typed) => {
          setText(typed)
          set('about.varieties', varietiesOf(typed, entry))
        }}
        error={wrong('about.varieties.0.what') ?? wrong('about.varieties.0.effect')}
      />
    </Stack>
  )
}

function WhatHelps({ entry, set, wrong }: PartProps) {
  const t = useText()
  const site = useSite()
  const { data: methods = [] } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  const reach = listAt(entry, 'about.reach')
  const stages = listAt(entry, 'stages').map((_, i) => ({ id: textAt(entry, `stages.${i}.id`), label: textAt(entry, `stages.${i}.name`) }))
  return (
    <Stack>
      <Heading>{t('own.part.helps')}</Heading>
      {reach.map((_, i) => {
        const path = `about.reach.${i}`
        const reached = listAt(entry, `${path}.stages`).map(String)
        return (
          <Line key={`${reach.length} ${i}`}>
            <Select
              label={t('organism.method')}
              placeholder={t('choose')}
              width="30ch"
              options={methods.map(({ id, name }) => ({ id, label: name }))}
              value={textAt(entry, `${path}.method`)}
              onChange={(v) => set(`${path}.method`, v)}
              error={wrong(`${path}.method`)}
            />
            <StrainsOf methods={methods} path={path} entry={entry} set={set} wrong={wrong} />
            {stages.map(({ id, label }) => (
              <Checkbox
                key={id}
                label={label}
                value={reached.includes(id)}
                onChange={(on) => set(`${path}.stages`, on ? [...reached, id] : reached.filter((s) => s !== id))}
              />
            ))}
            <TextButton
              aria-label={t('own.dropMethod', { number: i + 1 })}
              onPress={() =>
                set(
                  'about.reach',
                  reach.filter((__, k) => k !== i),
                )
              }
            >
              {t('suspects.drop')}
            </TextButton>
          </Line>
        )
      })}
      <Line>
        <Button
          $plain
          onPress={() => set('about.reach', [...reach, { method: 'hand-picking', stages: stages.slice(0, 1).map(({ id }) => id) }])}
        >
          {t('own.addMethod')}
        </Button>
      </Line>
      <TextField
        label={t('own.tooLate')}
        width="70ch"
        rows={2}
        value={textAt(entry, 'tooLate')}
        onChange={(v) => set('tooLate', v)}
        error={wrong('tooLate')}
      />
    </Stack>
  )
}
