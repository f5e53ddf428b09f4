import { endpoints, type CropEntry, type Planting } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBlocks, usePlaces, useRead } from '../api/hooks.js'
import { nameOf } from '../api/unsent.js'
import { useEntry } from '../api/useEntry.js'
import { useRecorded } from '../api/useRecorded.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { PHONE } from '../design/theme.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useUndo } from '../shell/Undo.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import '../messages/en/crops.js'

type Stage = Planting['stages'][number]['stage']

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 8px 20px;
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
    button {
      min-height: 48px;
    }
  }
`

/** So many stages ahead are named; what lies behind them is wider still. */
const AHEAD = 2

/** What stands where this season, stage by stage: what was seen, one tap for what comes next, and what is expected. */
export function CropCalendar() {
  const t = useText()
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const params = { siteId: site.id }
  const { data: plantings } = useRead(endpoints.crops.list, { params, input: { season: site.season.start } })
  const { data: known } = useRead(endpoints.crops.known, { params, input: {} })
  const [adding, setAdding] = useState(false)
  if (!plantings || !known) return null
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('crops.title')}</Heading>
        <Line>
          <Link to={`/sites/${site.id}/schedule/prevention`}>{t('crops.when')}</Link>
          {adding || isPast ? null : <TextButton onPress={() => setAdding(true)}>{t('crops.add')}</TextButton>}
        </Line>
      </Line>
      {adding ? <PlantingForm known={known} onDone={() => setAdding(false)} /> : null}
      {plantings.length === 0 && !adding ? <p>{t('crops.none')}</p> : null}
      <UnsentHere of={(item) => item.what === nameOf(endpoints.crops.addStage)} />
      <Rows data-testid="crop-calendar">
        {plantings.map((planting) => (
          <PlantingRow key={planting.id} planting={planting} known={known} />
        ))}
      </Rows>
    </Stack>
  )
}

function PlantingRow({ planting, known }: { planting: Planting; known: readonly CropEntry[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { isPast: isPastSeason } = useSeasonChoice()
  const { cropName, placeName, stages, flowers } = planting
  const seen = stages.flatMap(({ stage, seen: one }) =>
    one ? [t('crops.seen', { stage: t(`crops.stage.${stage}`), date: f.date(one.on) })] : [],
  )
  const ahead = stages.flatMap(({ stage, expected }) =>
    expected && (planting.standsUntil === null || expected.from <= planting.standsUntil) && expected.until >= site.today
      ? [t('crops.expected', { stage: t(`crops.stage.${stage}`), span: f.span(expected.from, expected.until) })]
      : [],
  )
  const next = stages.find((one) => one.seen === null && !one.isPast)
  const stoodLong = planting.standsFrom < site.season.start
  const mayFlower = known.find(({ id }) => id === planting.crop)?.stages.some((stage) => stage === 'first-flower') === true
  return (
    <Row>
      <Stack $gap={4}>
        <span>
          <b>{cropName}</b> {planting.variety} <Quiet>{placeName}</Quiet>{' '}
          <Quiet>
            {planting.standsUntil === null
              ? stoodLong
                ? t('crops.sinceYear', { date: f.withYear(planting.standsFrom) })
                : t('crops.since', { date: f.date(planting.standsFrom) })
              : t('crops.cleared', { date: f.date(planting.standsUntil) })}
          </Quiet>
        </span>
        {seen.length > 0 ? <span>{seen.join(' · ')}</span> : null}
        {ahead.length > 0 ? <Small>{t('crops.ahead', { list: ahead.slice(0, AHEAD).join(' · ') })}</Small> : null}
        {flowers && flowers.until >= site.today ? (
          <Small>{t('crops.flowers', { span: f.span(flowers.from, flowers.until), how: flowers.how })}</Small>
        ) : !flowers && mayFlower ? (
          <Small>{t('crops.flowersNot')}</Small>
        ) : null}
        {planting.sameFamily.length > 0 ? (
          <Caution>
            {t('crops.family', {
              list: planting.sameFamily
                .map(({ cropName: crop, until }) => t('crops.familyOne', { crop, date: f.withYear(until) }))
                .join(', '),
            })}
          </Caution>
        ) : null}
        <Unfold title={t('crops.more')}>
          <Changes planting={planting} known={known} />
        </Unfold>
      </Stack>
      {next && planting.standsUntil === null && !isPastSeason ? <SeenNow planting={planting} stage={next.stage} /> : null}
    </Row>
  )
}

/** The next stage of a planting, seen today: one tap, taken back by another. */
function SeenNow({ planting, stage }: { planting: Planting; stage: Stage }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const add = useRecorded(endpoints.crops.addStage)
  const words = { crop: planting.cropName, place: planting.placeName, stage: t(`crops.stage.${stage}`) }
  const record = async (): Promise<void> => {
    const says = t('crops.written', words)
    const { takeBack } = await add.save(
      { params: { siteId: site.id }, input: { plantingId: planting.id, stage, seenOn: site.today } },
      says,
    )
    if (takeBack) undo.offer(says, takeBack)
  }
  return (
    <div>
      <Button $plain isDisabled={add.isBarred} onPress={() => void record()} aria-label={t('crops.todayOne', words)}>
        {t('crops.today', { stage: words.stage })}
      </Button>
    </div>
  )
}

/** Stages of other days, and the planting itself. */
function Changes({ planting, known }: { planting: Planting; known: readonly CropEntry[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [edits, setEdits] = useState(false)
  const form = useEntry(endpoints.crops.addStage, { stage: null as Stage | null, seenOn: site.today as string | null }, null, planting.id)
  const { values, bind } = form
  const save = async (): Promise<void> => {
    const says = t('crops.written', {
      crop: planting.cropName,
      place: planting.placeName,
      stage: values.stage ? t(`crops.stage.${values.stage}`) : '',
    })
    const input = (v: typeof values) => ({ ...v, seenOn: v.seenOn ?? '', plantingId: planting.id })
    if (await form.put({ siteId: site.id }, says, 'bloom?panel=crops', input)) form.discard()
  }
  const open = planting.stages.filter(({ seen }) => seen === null)
  return (
    <Stack>
      {planting.stages.map(({ stage, seen }) => {
        if (!seen) return null
        const words = { stage: t(`crops.stage.${stage}`), date: f.date(seen.on) }
        return (
          <Line key={stage}>
            {t('crops.seen', words)} <Quiet>{seen.personName}</Quiet>
            {seen.record ? (
              <RemoveButton
                remove={endpoints.crops.removeStage}
                restore={endpoints.crops.restoreStage}
                params={{ siteId: site.id, recordId: seen.record.id }}
                rowVersion={seen.record.rowVersion}
                label={t('crops.removeStage', words)}
                said={t('crops.stageRemoved', words)}
              />
            ) : (
              <Small as="span">{t('crops.byHarvest')}</Small>
            )}
          </Line>
        )
      })}
      {open.length > 0 ? (
        <Sheet>
          <Stack>
            <Fields>
              <Select
                label={t('crops.stage')}
                placeholder={t('choose')}
                width="22ch"
                options={open.map(({ stage }) => ({ id: stage, label: t(`crops.stage.${stage}`) }))}
                {...bind.choice('stage')}
              />
              <DateField label={t('crops.day')} {...bind.day('seenOn')} />
            </Fields>
            <FormError text={form.general} />
            <FormLine onSave={save} isBarred={form.isBarred}>
              <Button $plain onPress={() => void save()} isDisabled={form.isBarred}>
                {t('save')}
              </Button>
            </FormLine>
          </Stack>
        </Sheet>
      ) : null}
      {edits ? (
        <PlantingForm known={known} planting={planting} onDone={() => setEdits(false)} />
      ) : (
        <Line>
          <TextButton onPress={() => setEdits(true)}>{t('edit')}</TextButton>
          <RemoveButton
            remove={endpoints.crops.remove}
            restore={endpoints.crops.restore}
            params={{ siteId: site.id, plantingId: planting.id }}
            rowVersion={planting.rowVersion}
            label={t('crops.removeOne', { crop: planting.cropName, place: planting.placeName })}
            said={t('crops.removed', { crop: planting.cropName, place: planting.placeName })}
          />
        </Line>
      )}
    </Stack>
  )
}

const BEGINNINGS = ['sown', 'planted'] as const

interface PlantingFormProps {
  known: readonly CropEntry[]
  planting?: Planting
  onDone: () => void
}

/** The form stands once it is known where something may stand. */
function PlantingForm(p: PlantingFormProps) {
  const site = useSite()
  const { data: blocks } = useBlocks(site.id)
  const { data: parts } = usePlaces(site.id)
  return blocks && parts ? <PlantingFields {...p} places={[...blocks, ...parts]} /> : null
}

/** What stands somewhere, since when, and with what it began. */
function PlantingFields({ known, planting, onDone, places }: PlantingFormProps & { places: readonly { id: string; name: string }[] }) {
  const t = useText()
  const site = useSite()
  const initial = {
    placeId: planting?.placeId ?? (places.length === 1 ? (places[0]?.id ?? null) : null),
    crop: planting?.crop ?? null,
    variety: planting?.variety ?? '',
    standsFrom: planting?.standsFrom ?? (site.today as string | null),
    standsUntil: planting?.standsUntil ?? null,
    note: planting?.note ?? '',
    begins: null as string | null,
  }
  const add = useEntry(endpoints.crops.add, initial, null, planting ? undefined : site.id)
  const update = useEntry(endpoints.crops.update, initial, planting, planting?.id)
  const entry = planting ? update : add
  const { values, bind } = entry
  const crop = known.find(({ id }) => id === values.crop)
  const beginnings = BEGINNINGS.filter((stage) => crop?.stages.includes(stage))
  const asked = planting === undefined && beginnings.length > 0
  const input = ({ begins, ...v }: typeof initial) => ({
    ...v,
    placeId: v.placeId ?? '',
    crop: v.crop ?? '',
    standsFrom: v.standsFrom ?? '',
    ...(asked ? { begins: BEGINNINGS.find((one) => one === begins) ?? null } : {}),
  })
  const save = async (): Promise<void> => {
    const done = planting
      ? await update.submit({ siteId: site.id, plantingId: planting.id }, (v, rowVersion) => ({ ...input(v), rowVersion }))
      : await add.submit({ siteId: site.id }, input)
    if (done) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('crops.crop')}
            placeholder={t('choose')}
            width="20ch"
            options={known.map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('crop')}
          />
          <Select
            label={t('crops.where')}
            placeholder={t('choose')}
            width="22ch"
            options={places.map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('placeId')}
          />
          <TextField label={t('crops.variety')} width="20ch" hint={t('optional')} {...bind.text('variety')} />
          <DateField label={t('crops.from')} {...bind.day('standsFrom')} />
          {asked ? (
            <Select
              label={t('crops.begins')}
              placeholder={t('choose')}
              width="22ch"
              options={[...beginnings, 'stood' as const].map((id) => ({ id, label: t(`crops.begins.${id}`) }))}
              {...bind.choice('begins')}
            />
          ) : null}
          {planting ? <DateField label={t('crops.until')} hint={t('optional')} {...bind.day('standsUntil')} /> : null}
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
