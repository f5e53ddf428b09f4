import { endpoints, type Block, type Organism, type Round, type Taken, type WatchForecast } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOrganisms } from '../api/hooks.js'
import { RequestProblem } from '../api/client.js'
import { useEntry } from '../api/useEntry.js'
import { useRecorded } from '../api/useRecorded.js'
import { planOf } from '../band/countingPlan.js'
import { isCrossed, thresholdOf } from '../band/threshold.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DateField } from '../design/DateField.js'
import { FormError } from '../design/FormError.js'
import { TakenFields } from '../design/TakenFields.js'
import { Columns, Fields, Heading, Line, Page, Small, Stack, Title } from '../design/text.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { NotFound } from '../shell/Stumble.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { AlongPart } from './Along.js'
import { effectiveOf } from './effective.js'
import { dropCount, goesOnAt, heldCount, holdCount, isTallied, type Along, type HeldCount } from './heldCount.js'
import { minutesOf, tapped, type Spent } from './spent.js'
import { TallyRows } from './TallyRows.js'
import { readUnits, writeUnits, type Unit } from './unitLines.js'
import { Verdict } from './Verdict.js'
import '../messages/en/work.js'

const Chips = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    min-width: 40px;
    min-height: 40px;
    border: 1px solid ${colour.rule};
    border-radius: 4px;
    background: ${colour.sheet};
    cursor: pointer;
    font-family: ${font.figures};
    &[aria-pressed='true'] {
      border: 3px solid ${colour.ink};
      background: ${colour.white};
    }
    &.found {
      font-weight: 700;
      border-bottom: 4px solid ${colour.beet};
    }
    @media ${PHONE} {
      min-width: 48px;
      min-height: 48px;
    }
  }
`

const Keys = styled(Small)`
  @media ${PHONE} {
    display: none;
  }
`

/** One more or less of a class; of what is counted along where it names a watch. */
interface Tap {
  classId: string
  by: number
  watchId?: string
}

const NONE_ALONG: Readonly<Record<string, Along>> = {}
const NOTHING_SPENT: Spent = { ms: 0, lastAt: null }

/** Counts one round, unit by unit, with a thumb, the digits or from paper. */
export function CountScreen() {
  const site = useSite()
  const { watchId } = useParams()
  const [search] = useSearchParams()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  if (!band || !blocks || !organisms) return <Waiting />
  const row = band.watches.find(({ watch }) => watch.id === watchId)
  const organism = organisms.find(({ id }) => id === row?.watch.organismId)
  const block = blocks.find(({ id }) => id === row?.watch.blockId)
  if (!row || !organism || !block) return <NotFound />
  const round = row.rounds.find(({ id }) => id === search.get('round'))
  // What is counted on the same sample units of the same block may be counted along; a round that is corrected stays by itself.
  const others = round
    ? []
    : band.watches.flatMap((other): Counted[] => {
        const named = organisms.find(({ id }) => id === other.watch.organismId)
        const isAlike = other.watch.blockId === block.id && other !== row && named?.sampling.unit === organism.sampling.unit
        return isAlike ? [{ row: other, organism: named }] : []
      })
  return <Count key={round?.id ?? row.watch.id} row={row} organism={organism} block={block} round={round} others={others} />
}

interface Counted {
  row: WatchForecast
  organism: Organism
}

function Count({
  row,
  organism,
  block,
  round,
  others,
}: Counted & {
  block: Block
  round: Round | undefined
  others: readonly Counted[]
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const navigate = useNavigate()
  const title = t('count.title', { organism: row.organismName, block: block.name })
  usePageTitle(title)
  const heldAs = round?.id ?? row.watch.id
  const { sampling: sampledBy } = organism
  const [initial] = useState<HeldCount>(
    () =>
      heldCount(heldAs) ?? {
        checkAreaId: round?.checkAreaId ?? null,
        countedOn: round?.countedOn ?? site.today,
        unit: round?.unit ?? { one: sampledBy.unit, many: sampledBy.units, items: sampledBy.itemsPerUnit },
        units: round?.units ?? [{}],
        note: round?.note ?? '',
        minutes: round?.minutes ?? null,
        taken: round?.taken?.amount ?? null,
        takenUnit: round?.taken?.unit ?? 'pieces',
      },
  )
  const create = useEntry(endpoints.scouting.create, initial)
  const update = useEntry(endpoints.scouting.update, initial, round)
  const entry = round ? update : create
  const alongside = useRecorded(endpoints.scouting.create)
  const { values, set, errors } = entry
  const [at, setAt] = useState(goesOnAt(initial))
  /** The finished unit that somebody said should be added to. */
  const [mended, setMended] = useState<number | null>(null)
  const [asked, setAsked] = useState<Tap | null>(null)
  const [asksLast, setAsksLast] = useState(false)
  const [paper, setPaper] = useState<string | null>(null)
  // A round stays with the unit by which it was begun, though another is set for the site meanwhile.
  const { units, unit: by, spent = NOTHING_SPENT, along = NONE_ALONG } = values
  const sampling = by ? { ...sampledBy, unit: by.one, units: by.many, itemsPerUnit: by.items } : sampledBy

  useEffect(() => {
    holdCount(heldAs, values)
  }, [heldAs, values])

  const last = units.length - 1
  const tally = (tap: Tap, sure = false): void => {
    const { classId, by, watchId } = tap
    const other = watchId === undefined ? undefined : along[watchId]
    const now = (other ? other.units[at - other.from] : units[at])?.[classId] ?? 0
    if (now + by < 0) return
    // What stands before the last unit is finished: a tap there is more often a lost place than a correction.
    if ((at < last || round !== undefined) && mended !== at && !sure) return setAsked(tap)
    const added = (all: readonly Unit[], index: number): Unit[] =>
      all.map((unit, i) => (i === index ? { ...unit, [classId]: now + by } : unit))
    return set({
      spent: tapped(spent, Date.now()),
      ...(watchId !== undefined && other
        ? { along: { ...along, [watchId]: { ...other, units: added(other.units, at - other.from) } } }
        : { units: added(units, at) }),
    })
  }
  const setAlong = (watchId: string, change: Along | null): void => {
    const { [watchId]: _, ...rest } = along
    set({ along: change ? { ...rest, [watchId]: change } : rest })
  }
  const goTo = (unit: number): void => {
    setAt(unit)
    setAsked(null)
    setMended(null)
    setAsksLast(false)
  }
  const next = (): void => {
    if (at === last)
      set({
        spent: tapped(spent, Date.now()),
        units: [...units, {}],
        along: Object.fromEntries(Object.entries(along).map(([id, one]) => [id, one.isOver ? one : { ...one, units: [...one.units, {}] }])),
      })
    goTo(at + 1)
    // A unit that was opened here is not finished, though the round was stored before.
    if (at === last) setMended(at + 1)
  }
  const left = others.filter(({ row: other }) => !along[other.watch.id])
  const digits = Object.fromEntries(sampling.classes.map(({ id }, i) => [String(i + 1), () => tally({ classId: id, by: 1 })]))
  useKeys({ ...digits, n: next })

  const effective = effectiveOf(units, sampling)
  const per100 = (100 * effective.reduce((a, b) => a + b, 0)) / (units.length * sampling.itemsPerUnit)
  // A round that is corrected is held against the threshold of its day, as it is where it is stored.
  const threshold = round ? round.threshold : thresholdOf(row.watch, organism)
  const crossed = isCrossed(per100, threshold)
  // What the untreated check area holds says how it goes without; one acts on what the block holds.
  const plan = values.checkAreaId === null ? planOf(threshold, sampling) : null
  /** The last unit was opened and nothing tallied at it: whether it was looked at only a person knows. */
  const isOpened =
    units.length > 1 &&
    units.length !== round?.units.length &&
    !isTallied(units[last] ?? {}) &&
    !Object.values(along).some((one) => isTallied(one.units[last - one.from] ?? {}))
  const asks = asksLast && isOpened
  const minutes = values.minutes ?? minutesOf(spent)
  const read = paper === null ? null : readUnits(paper, sampling.classes)

  const save = async (counted?: Unit[]): Promise<void> => {
    const body = ({ spent: _, along: __, taken = null, takenUnit = 'pieces', ...v }: HeldCount) => ({
      ...v,
      minutes,
      taken: taken === null ? null : { amount: taken, unit: takenUnit as Taken['unit'] },
      // What stood before, when this is taken back, keeps its own.
      units: v.units === units ? (counted ?? units) : v.units,
      countedOn: v.countedOn ?? undefined,
    })
    const says = t('count.says', { name: row.organismName, block: block.name, count: (counted ?? units).length, units: sampling.units })
    const saved = round
      ? await update.submit({ siteId: site.id, roundId: round.id }, (v, rowVersion) => ({ ...body(v), rowVersion }))
      : await create.put({ siteId: site.id }, says, '', (v) => ({ ...body(v), watchId: row.watch.id }))
    if (!saved) return
    const walked = others.flatMap(({ row: other, organism: { sampling: by } }) => {
      const seen = along[other.watch.id]
      // The last sample unit that nobody looked at is none for what was counted along either.
      const looked = seen?.units.slice(0, counted ? counted.length - seen.from : undefined) ?? []
      const unit = { one: by.unit, many: by.units, items: by.itemsPerUnit }
      const { checkAreaId, countedOn } = values
      return looked.length > 0 ? [{ other, count: { checkAreaId, countedOn, unit, units: looked, note: '' } }] : []
    })
    // Each is held by itself before it is sent: what a closed page or a refusal stops is gone on with on its own screen.
    const held = walked.filter(({ other }) => !heldCount(other.watch.id))
    for (const { other, count } of held) holdCount(other.watch.id, count)
    dropCount(heldAs)
    for (const one of walked) {
      const { other, count } = one
      const { many } = count.unit
      const input = { ...count, watchId: other.watch.id, countedOn: count.countedOn ?? '' }
      const said = t('count.says', { name: other.organismName, block: block.name, count: count.units.length, units: many })
      try {
        await alongside.save({ params: { siteId: site.id }, input }, said)
        if (held.includes(one)) dropCount(other.watch.id)
      } catch (error) {
        if (!(error instanceof RequestProblem)) throw error
      }
    }
    await navigate(`/sites/${site.id}/scouting`)
  }

  return (
    <Page>
      <Title>{title}</Title>
      <Line>
        <Select
          label={t('count.where')}
          placeholder=""
          width="min(30ch, 50vw)"
          options={[
            { id: 'block', label: t('count.inBlockNamed', { block: block.name }) },
            ...block.checkAreas.map(({ id, name }) => ({ id, label: t('count.inCheckNamed', { name }) })),
          ]}
          value={values.checkAreaId ?? 'block'}
          onChange={(id) => set({ checkAreaId: id === 'block' ? null : id })}
          error={errors['checkAreaId']}
        />
        <DateField
          label={t('count.date')}
          value={values.countedOn}
          onChange={(countedOn) => set({ countedOn })}
          error={errors['countedOn']}
        />
      </Line>
      <Columns>
        <Stack>
          <Heading>{t('count.unit', { unit: sampling.unit, number: at + 1, items: sampling.itemsPerUnit, item: sampling.items })}</Heading>
          <TallyRows classes={sampling.classes} unit={units[at] ?? {}} onTally={(classId, by) => tally({ classId, by })} hasKeys />
          {asked ? (
            <Stack role="alert" $gap={8}>
              <b>{t('count.finished', { unit: sampling.unit, number: at + 1, found: effective[at] ?? 0 })}</b>
              <Line>
                <Button
                  $plain
                  onPress={() => {
                    tally(asked, true)
                    setMended(at)
                    setAsked(null)
                  }}
                >
                  {t('count.mend', { unit: sampling.unit, number: at + 1 })}
                </Button>
                {at < last ? (
                  <Button $plain onPress={() => goTo(last)}>
                    {t('count.toLast', { unit: sampling.unit, number: last + 1 })}
                  </Button>
                ) : null}
              </Line>
            </Stack>
          ) : null}
          {others.map(({ row: other, organism: named }) => {
            const one = along[other.watch.id]
            return one ? (
              <AlongPart
                key={other.watch.id}
                row={other}
                organism={named}
                along={one}
                at={at}
                isCheck={values.checkAreaId !== null}
                onTally={(classId, by) => tally({ classId, by, watchId: other.watch.id })}
                last={last}
                onChange={(change) => setAlong(other.watch.id, change)}
              />
            ) : null
          })}
          <Button onPress={next} style={{ minHeight: 56 }}>
            {t('count.next', { unit: sampling.unit })}
          </Button>
          {left.length > 0 && at === last ? (
            <Line>
              <Small>{t('along.offer', { unit: sampling.unit })}</Small>
              {left.map(({ row: other }) => (
                <TextButton
                  key={other.watch.id}
                  onPress={() => setAlong(other.watch.id, { from: at, units: [{}], isOver: false })}
                  aria-label={t('along.addOne', { name: other.organismName })}
                >
                  {other.organismName}
                </TextButton>
              ))}
            </Line>
          ) : null}
          <Keys>{t('count.keys')}</Keys>
        </Stack>
        <Stack>
          <Heading aria-live="polite">
            {t('count.sofar', {
              count: units.length,
              unit: units.length === 1 ? sampling.unit : sampling.units,
              per100: f.number(per100, 1),
              items: sampling.items,
            })}
          </Heading>
          {plan && threshold ? (
            <Verdict plan={plan} found={isOpened ? effective.slice(0, -1) : effective} threshold={threshold} sampling={sampling} />
          ) : (
            <p>
              {threshold === null ? (
                t('scouting.noThreshold')
              ) : threshold.from === 'every-one' ? (
                t('scouting.everyOne')
              ) : (
                <b style={{ color: crossed ? colour.beet : colour.petrol }}>
                  {t(crossed ? 'count.over' : 'count.under', { threshold: f.number(threshold.per100, 1) })}
                </b>
              )}{' '}
              {units.length < sampling.suggestedUnits
                ? t('count.suggested', { count: sampling.suggestedUnits, units: sampling.units })
                : ''}
            </p>
          )}
          <Chips>
            {units.map((_, i) => (
              <button
                key={i}
                type="button"
                aria-pressed={i === at}
                aria-label={t('count.chip', { unit: sampling.unit, number: i + 1, found: effective[i] ?? 0 })}
                className={(effective[i] ?? 0) > 0 ? 'found' : ''}
                onClick={() => goTo(i)}
              >
                {f.number(effective[i] ?? 0, 1)}
              </button>
            ))}
          </Chips>
          {paper === null ? (
            <TextButton onPress={() => setPaper(writeUnits(units, sampling.classes))}>{t('count.paper')}</TextButton>
          ) : (
            <>
              <TextField
                label={t('count.paperLabel', { unit: sampling.unit })}
                rows={7}
                value={paper}
                onChange={setPaper}
                hint={t('count.paperHint', { classes: sampling.classes.map(({ name }) => name).join(' · ') })}
                error={read?.wrong === undefined ? undefined : t('count.paperWrong', { line: read.wrong })}
              />
              <Line>
                <Button
                  isDisabled={read === null || read.wrong !== undefined || read.units.length === 0}
                  onPress={() => {
                    if (!read) return
                    set({ units: read.units })
                    goTo(read.units.length - 1)
                    setPaper(null)
                  }}
                >
                  {t('count.paperTake', { count: read?.units.length ?? 0, units: sampling.units })}
                </Button>
                <Button $plain onPress={() => setPaper(null)}>
                  {t('cancel')}
                </Button>
              </Line>
            </>
          )}
          <Fields>
            <NumberField
              label={t('count.took')}
              width="13ch"
              digits={0}
              unit="min"
              hint={t('optional')}
              value={minutes}
              onChange={(typed) => set({ minutes: typed })}
              error={errors['minutes']}
            />
            <TakenFields
              amount={{ value: values.taken ?? null, onChange: (taken) => set({ taken }), error: errors['taken.amount'] }}
              unit={{ value: values.takenUnit ?? 'pieces', onChange: (takenUnit) => set({ takenUnit }) }}
            />
          </Fields>
          <TextField label={t('note')} value={values.note} onChange={(note) => set({ note })} error={errors['note']} />
          {Object.entries(errors)
            .filter(([path]) => path.startsWith('units') || path === 'watchId')
            .map(([path, message]) => (
              <FormError key={path} text={`${path}: ${message}`} />
            ))}
          <FormError text={entry.general} />
          <Line>
            <Button onPress={() => (isOpened ? setAsksLast(true) : void save())} isDisabled={entry.isBarred || asks}>
              {t('count.save')}
            </Button>
            <Link to={`/sites/${site.id}/scouting`}>{t('count.later')}</Link>
          </Line>
          {asks ? (
            <Stack role="alert" $gap={8}>
              <b>{t('count.lastEmpty', { unit: sampling.unit, number: last + 1 })}</b>
              <Line>
                <Button $plain onPress={() => void save(units.slice(0, -1))}>
                  {t('count.leaveOut')}
                </Button>
                <Button $plain onPress={() => void save()}>
                  {t('count.countsAsNone')}
                </Button>
              </Line>
            </Stack>
          ) : null}
          <Small>{t('count.held')}</Small>
        </Stack>
      </Columns>
    </Page>
  )
}
