import { disposals, endpoints, may, type Label } from '@bocado/contract'
import { useEffect, useState, type ReactNode } from 'react'
import styled from 'styled-components'
import type { Bindings, Bound } from '../api/bindings.js'
import { useOrganisms, useRead } from '../api/hooks.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { disposalOf, isFireClosed } from '../band/job.js'
import { amountUnit, usedOf } from '../band/mix.js'
import { AreaField } from '../design/AreaField.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { momentOf } from '../design/moments.js'
import { NumberField } from '../design/NumberField.js'
import { TakenFields } from '../design/TakenFields.js'
import { Caution, Fields, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useRulesAt } from '../windows/useRulesAt.js'
import { useText } from '../messages/useText.js'
import { ClearOf } from './ClearOf.js'
import { WindFromField } from './WindFromField.js'
import { windWords } from './windWords.js'
import { isAboveLabel, saysWhy, type DoneValues } from './doneValues.js'
import '../messages/en/record.js'

/** Parts of the sentence, each with the paths that belong to it: what is wrong there opens it. */
const PARTS = {
  what: ['rate', 'amountUsed', 'lotId', 'way', 'targetStage', 'taken'],
  where: ['areaHa', 'cropStage'],
  when: ['startedAt', 'endedAt', 'minutes'],
  weather: ['weather'],
  with: ['doneById', 'machineId', 'waterL'],
  after: ['bags', 'waste', 'note'],
} as const
type PartName = keyof typeof PARTS
const isPart = (name: string): name is PartName => name in PARTS

const Sentence = styled.p`
  line-height: 1.9;
`
const Missing = styled.b`
  color: ${colour.beet};
`

/** What was chosen by mistake, or filled in, can be taken out again. */
const NONE = 'none'
const none = (label: string) => ({ id: NONE, label })
const orNone = <B extends { onChange: (id: string) => void }>(bound: B, set: (id: string | null) => void): B => ({
  ...bound,
  onChange: (id) => set(id === NONE ? null : id),
})

interface DoneProps {
  values: DoneValues
  bind: Bindings<DoneValues>
  errors: Readonly<Record<string, string>>
  /** Puts in what is known without anybody typing it. */
  fill: (changes: Partial<DoneValues>) => void
  set: (changes: Partial<DoneValues>) => void
  /** Where it is done, what that is called, and how large it is, where anybody has said. */
  place: { id: string; name: string; areaHa: number | null }
  /** Null where it is done by hand. */
  label: Label | null
  /** Highest rate of the label here. */
  most: number | null
  watchId: string
  organismId: string
  /** The weather was typed or recorded before: it is not put over. */
  weatherStands: boolean
  /** Wind as it was measured on the spot: m/s, and degrees from which it blew; null where nobody did. */
  measured?: { windMs: number | null; windFrom: number | null }
  /** It was sent without a word to a rate above the label: that is asked for. */
  asksWhy: boolean
}

/** What was done, as a sentence to confirm: what is known stands in it, and what is pressed can be changed. What is missing is open. */
export function DoneFields(p: DoneProps) {
  const t = useText()
  const { height } = useFormat().measures
  const site = useSite()
  const { values, bind, errors, label, weatherStands, fill } = p
  const [typed, setTyped] = useState(false)
  const [opened, setOpened] = useState<readonly PartName[]>([])
  const stands = typed || weatherStands
  const startedAt = momentOf(values.day, values.time, site.timeZone)
  const { data: then } = useRead(
    endpoints.treatments.weatherAt,
    { params: { siteId: site.id, watchId: p.watchId }, input: { at: startedAt ?? '' } },
    startedAt !== null && !stands,
  )
  const { windMs = null, windFrom = null } = p.measured ?? {}
  useEffect(() => {
    // What was measured on the spot stands; the rest is of the station, in that hour.
    if (then && !stands) fill({ weather: { ...then, windMs: windMs ?? then.windMs, windFrom: windFrom ?? then.windFrom } })
  }, [then, stands, fill, windMs, windFrom])
  const says = useSaid(p)
  const missing: Record<PartName, boolean> = {
    what: label !== null && values.rate === null,
    where: label !== null && values.areaHa === null,
    when: startedAt === null,
    weather: false,
    with: false,
    after: false,
  }
  const isWrong = (part: PartName): boolean =>
    PARTS[part].some((path) => Object.keys(errors).some((at) => at === path || at.startsWith(`${path}.`)))
  // What was missing when the form was opened stays open while it is typed.
  const [atFirst] = useState(() =>
    // By hand it is what was taken that nobody else knows.
    (Object.keys(PARTS) as PartName[]).filter((part) => missing[part] || (part === 'what' && label === null && values.taken === null)),
  )
  const isOpen = (part: PartName): boolean => opened.includes(part) !== atFirst.includes(part) || missing[part] || isWrong(part)
  const toggle = (part: PartName): void => setOpened(opened.includes(part) ? opened.filter((one) => one !== part) : [...opened, part])
  const mark = (part: PartName): string => `\u0001${part}\u0001`
  const parts = Object.fromEntries((Object.keys(PARTS) as PartName[]).map((part) => [part, mark(part)]))
  const sentence = t(label ? 'record.sentence' : 'record.sentenceByHand', parts).split('\u0001')
  const fields: Record<PartName, ReactNode> = {
    what: <What {...p} />,
    where: <Where {...p} />,
    when: <When bind={bind} errors={errors} isWrong={values.time !== '' && startedAt === null} />,
    weather: <WeatherThen bind={bind} onTyped={() => setTyped(true)} />,
    with: <With {...p} />,
    after: <After {...p} />,
  }
  return (
    <>
      <Sentence data-testid="sentence">
        {sentence.map((piece, i) =>
          isPart(piece) && (piece !== 'weather' || label) ? (
            <TextButton
              key={piece}
              aria-expanded={isOpen(piece)}
              aria-label={t('record.change', { what: says[piece] })}
              onPress={() => toggle(piece)}
            >
              {missing[piece] ? <Missing>{says[piece]}</Missing> : says[piece]}
            </TextButton>
          ) : (
            <span key={`${i}${piece}`}>{piece}</span>
          ),
        )}
      </Sentence>
      {(Object.keys(PARTS) as PartName[]).map((part) =>
        isOpen(part) && (part !== 'weather' || label) ? (
          <Stack key={part} $gap={6} role="group" aria-label={t(`record.part.${part}`)}>
            {fields[part]}
          </Stack>
        ) : null,
      )}
      {label ? (
        <ClearOf
          key={p.place.id}
          placeId={p.place.id}
          placeHa={p.place.areaHa}
          metres={values.keptClearM}
          field={bind.number('keptClearM', height)}
          onLeft={p.set}
          label={label}
          day={values.day ?? site.today}
        />
      ) : null}
      {label && startedAt !== null ? (
        <Small>
          {stands
            ? t('record.weatherTyped')
            : then && Object.values(then).some((v) => v !== null)
              ? t('record.weatherRead')
              : t('record.weatherMissing')}
        </Small>
      ) : null}
      {isAboveLabel(values, label, p.most) || errors['departureReason'] !== undefined ? (
        <>
          <Caution>{t('record.above')}</Caution>
          <TextField
            label={t('record.departureReason')}
            width="60ch"
            {...bind.text('departureReason')}
            {...(p.asksWhy && !saysWhy(values) ? { error: t('record.sayReason') } : {})}
          />
        </>
      ) : null}
    </>
  )
}

/** The words of each part of the sentence. */
function useSaid({ values, label, place }: DoneProps): Record<PartName, string> {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { personId } = useWorkplace()
  const params = { params: { siteId: site.id }, input: {} }
  const { data: lots = [] } = useRead(endpoints.equipment.lots, params)
  const { data: machines = [] } = useRead(endpoints.equipment.machines, params)
  const list = (said: readonly (string | null | undefined)[]): string => said.filter(Boolean).join(', ')
  const { rate, areaHa, amountUsed, weather } = values
  const unit = label?.rateUnit ?? ''
  const used = label && usedOf({ typed: amountUsed, rate, areaHa }, label.rateUnit)
  const lot = lots.find(({ id }) => id === values.lotId)
  const what = label
    ? list([
        rate === null ? t('record.no.what') : `${f.number(rate, 4)} ${unit}`,
        used && t('record.inAll', { amount: `${f.number(used.amount, 3)} ${used.unit}` }),
        values.way && t(`use.${values.way}`),
        lot && t('record.ofLot', { lot: lot.number }),
      ])
    : values.taken === null
      ? t('record.nothingTaken')
      : t('treatments.taken', { amount: f.number(values.taken, 1), unit: t(`taken.${values.takenUnit}` as 'taken.pieces') })
  const day = values.day === null ? t('record.no.when') : f.date(values.day)
  const ended = values.endTime.trim() === '' ? null : values.endTime
  const doer = site.people.find(({ id }) => id === (values.doneById ?? personId))?.name
  const machine = machines.find(({ id }) => id === values.machineId)
  return {
    what,
    where: list([areaHa === null ? (label ? t('record.no.where') : null) : f.area(areaHa), place.name, values.cropStage]),
    when: values.time.trim() === '' ? t('record.no.begun', { day }) : `${day} ${values.time}${ended === null ? '' : `–${ended}`}`,
    weather:
      list([
        weather.tempC === null ? null : f.temperature(weather.tempC),
        weather.humidityPct === null ? null : `${f.number(weather.humidityPct)} %`,
        windWords(weather, t, f),
      ]) || t('record.no.weather'),
    with: list([machine?.name, values.waterL === null ? null : f.volume(values.waterL), doer]) || t('record.no.with'),
    after:
      list([
        values.bags === null ? null : t('record.bagsSaid', { count: values.bags }),
        values.waste && t(`disposal.${values.waste}`),
        values.note.trim() || null,
      ]) || t('record.no.after'),
  }
}

function What({ values, bind, errors, label, most, organismId, set }: DoneProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: lots = [] } = useRead(endpoints.equipment.lots, { params: { siteId: site.id }, input: {} }, label !== null)
  const { data: organisms = [] } = useOrganisms()
  const stages = organisms.find(({ id }) => id === organismId)?.stages ?? []
  if (!label)
    return (
      <Fields>
        <TakenFields amount={{ ...bind.number('taken'), error: errors['taken.amount'] }} unit={bind.choice('takenUnit')} />
      </Fields>
    )
  const own = lots.filter(({ productId }) => productId === label.id)
  return (
    <Fields>
      <NumberField
        label={t('record.rate')}
        width="16ch"
        digits={4}
        unit={label.rateUnit}
        hint={t('record.rateHint', { rate: f.number(most ?? label.labelRate, 3) })}
        {...bind.number('rate')}
      />
      <NumberField
        label={t('record.amountUsed')}
        width="14ch"
        digits={3}
        unit={amountUnit(label.rateUnit)}
        hint={t('record.amountHint')}
        {...bind.number('amountUsed')}
      />
      {own.length > 0 ? (
        <Select
          label={t('record.lot')}
          placeholder={t('record.noLot')}
          width="18ch"
          options={[none(t('record.noLot')), ...own.map(({ id, number }) => ({ id, label: number }))]}
          {...orNone(bind.choice('lotId'), (lotId) => set({ lotId }))}
        />
      ) : null}
      {label.ways.length > 1 ? (
        <Select
          label={t('record.way')}
          placeholder={t('choose')}
          width="20ch"
          options={label.ways.map((way) => ({ id: way, label: t(`use.${way}`) }))}
          value={values.way}
          onChange={(way) => set({ way: way as DoneValues['way'] })}
        />
      ) : null}
      {stages.length > 1 ? (
        <Select
          label={t('record.targetStage')}
          placeholder={t('optional')}
          width="20ch"
          options={[none(t('record.notSaid')), ...stages.map(({ name }) => ({ id: name, label: name }))]}
          value={values.targetStage === '' ? null : values.targetStage}
          onChange={(stage) => set({ targetStage: stage === NONE ? '' : stage })}
        />
      ) : null}
    </Fields>
  )
}

function Where({ bind, label }: DoneProps) {
  const t = useText()
  return (
    <Fields>
      <AreaField label={t('record.area')} {...(label ? {} : { hint: t('optional') })} {...bind.number('areaHa')} />
      <TextField label={t('record.cropStage')} width="22ch" hint={t('record.cropStageHint')} {...bind.text('cropStage')} />
    </Fields>
  )
}

function When({ bind, errors, isWrong }: Pick<DoneProps, 'bind' | 'errors'> & { isWrong: boolean }) {
  const t = useText()
  return (
    <Fields>
      <DateField label={t('record.day')} {...bind.day('day')} error={errors['startedAt']} />
      <TextField
        label={t('record.time')}
        width="12ch"
        hint={t('record.timeHint')}
        {...bind.text('time')}
        error={isWrong ? t('record.timeWrong') : undefined}
      />
      <TextField label={t('record.endTime')} width="12ch" hint={t('optional')} {...bind.text('endTime')} error={errors['endedAt']} />
      <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
    </Fields>
  )
}

/** Who did it, where several could have, and with what. */
function With({ bind, label, set }: DoneProps) {
  const t = useText()
  const { volume } = useFormat().measures
  const site = useSite()
  const { personId } = useWorkplace()
  const { data: machines = [] } = useRead(endpoints.equipment.machines, { params: { siteId: site.id }, input: {} })
  const bound = bind.choice('doneById')
  const could = site.people.filter(({ id, role }) => may(role, 'treat') || id === bound.value)
  const isOneOf = could.length > 1 || (bound.value !== null && bound.value !== personId)
  return (
    <Fields>
      {isOneOf ? (
        <Select
          label={t('record.doneBy')}
          placeholder={t('choose')}
          width="20ch"
          options={could.map(({ id, name }) => ({ id, label: name }))}
          {...bound}
          value={bound.value ?? personId}
        />
      ) : null}
      {machines.length > 0 ? (
        <Select
          label={t('record.machine')}
          placeholder={t('record.noMachine')}
          width="24ch"
          options={[none(t('record.noMachine')), ...machines.map(({ id, name }) => ({ id, label: name }))]}
          {...orNone(bind.choice('machineId'), (machineId) => set({ machineId }))}
        />
      ) : null}
      {label ? (
        <NumberField
          label={t('record.water')}
          width="14ch"
          unit={volume.unit}
          digits={1}
          hint={t('optional')}
          {...bind.number('waterL', volume)}
        />
      ) : null}
      {!isOneOf && machines.length === 0 && !label ? <Small>{t('record.onlyYou')}</Small> : null}
    </Fields>
  )
}

/** Bags, and where what was taken or left over went: what keeps it from somewhere is said beside it. */
function After({ values, bind, label, organismId, set }: DoneProps) {
  const t = useText()
  const site = useSite()
  const rules = useRulesAt(null)
  const { data: duties } = useRead(endpoints.library.reportDuties, { params: { siteId: site.id }, input: {} })
  const { data: organisms = [] } = useOrganisms()
  const organism = organisms.find(({ id }) => id === organismId)
  const listed = duties?.listed.some((one) => one.organismId === organismId) ?? false
  // Nobody has looked at what was taken: a weed may bear seed and root again, anything else lives on in it.
  const ways = disposalOf({
    ripens: organism?.kind === 'weed',
    regrows: organism?.kind === 'weed',
    carries: organism?.kind !== 'weed',
    listed,
    noFire: isFireClosed(rules, values.day ?? site.today),
  })
  const bars = ways.find(({ way }) => way === values.waste)?.bars ?? []
  return (
    <>
      <Fields>
        {label ? null : <NumberField label={t('record.bags')} width="11ch" digits={0} hint={t('optional')} {...bind.number('bags')} />}
        <Select
          label={label ? t('record.leftOver') : t('record.waste')}
          placeholder={t('optional')}
          width="26ch"
          options={[none(t('record.notSaid')), ...disposals.map((way) => ({ id: way, label: t(`disposal.${way}`) }))]}
          value={values.waste}
          onChange={(waste) => set({ waste: waste === NONE ? null : (waste as DoneValues['waste']) })}
        />
        <TextField label={t('note')} width="36ch" {...bind.text('note')} />
      </Fields>
      {!label && bars.length > 0 ? <Caution>{bars.map((bar) => t(`disposal.bar.${bar}`)).join(' ')}</Caution> : null}
      {!label && listed && values.waste !== 'leave' && values.waste !== null ? <Caution>{t('disposal.transport')}</Caution> : null}
    </>
  )
}

/** The weather in which it was done; what is typed stands over what the station read. */
function WeatherThen({ bind, onTyped }: { bind: Bindings<DoneValues>; onTyped: () => void }) {
  const t = useText()
  const { temperature, wind } = useFormat().measures
  const typed = (field: Bound<number | null>): Bound<number | null> => ({
    ...field,
    onChange: (value) => {
      onTyped()
      field.onChange(value)
    },
  })
  return (
    <Fields>
      <NumberField
        label={t('record.temperature')}
        width="15ch"
        digits={1}
        unit={temperature.unit}
        {...typed(bind.number('weather.tempC', temperature))}
      />
      <NumberField label={t('record.humidity')} width="15ch" digits={0} unit="%" {...typed(bind.number('weather.humidityPct'))} />
      <NumberField label={t('record.wind')} width="15ch" digits={1} unit={wind.unit} {...typed(bind.number('weather.windMs', wind))} />
      <WindFromField {...typed(bind.number('weather.windFrom'))} />
    </Fields>
  )
}
