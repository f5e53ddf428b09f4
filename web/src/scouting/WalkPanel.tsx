import { endpoints, type Block, type Organism } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { errands, fitting, inWalkOrder, type Errand } from '../band/walk.js'
import { TextButton } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Empty, Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'
import { Waiting } from '../shell/Waiting.js'
import { calendarFile } from './calendarFile.js'
import { errandPath, errandWhat, errandWhy } from './errandWords.js'
import { useWalked, type Walked } from './useWalked.js'
import '../messages/en/field.js'
import '../messages/en/walk.js'
import '../messages/en/windows.js'
import '../messages/en/work.js'

/** Days ahead that are told quietly, and of which the calendar file knows. */
const SOON_DAYS = 7
const CALENDAR_DAYS = 14

const Place = styled.section`
  display: grid;
  gap: 8px;
  padding: 14px 0;
  border-top: 2px solid ${colour.ink};
  break-inside: avoid;
`
const One = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 4px 16px;
  align-items: baseline;
`
const Go = styled(Line)`
  @media print {
    a {
      display: none;
    }
  }
`
const Tally = styled.table`
  border-collapse: collapse;
  margin: 4px 0 8px;
  font: 11px ${font.figures};
  th,
  td {
    border: 1px solid ${colour.rule};
    min-width: 20px;
    height: 18px;
    padding: 0 4px;
    font-weight: 400;
    text-align: left;
  }
`

const WorkDayKit = partLater(async () => (await import('./WorkDayKit.js')).WorkDayKit)

/** What to go and look at today, block by block in the order of a walk; printed, with a sheet to tally on. */
export function WalkPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const known = useWalked()
  const [kitOf, setKitOf] = useState<string | null>(null)
  const [hours, setHours] = useState<number | null>(null)
  const [otherwise, setOtherwise] = useState<number | null>(15)
  const [isShort, setShort] = useState(false)
  if (!known) return <Waiting />
  const { band, blocks, places, organisms, shapes } = known
  const blockOf = (placeId: string): string => {
    const parent = places.find(({ id }) => id === placeId)?.parentId
    return parent ? blockOf(parent) : placeId
  }
  const from = { ...known, rows: band.watches, blockOf, today: site.today }
  const all = errands(from, site.today)
  const ahead = errands(from, f.nudge(site.today, CALENDAR_DAYS))
  const soon = ahead.filter(({ id, due }) => due <= f.nudge(site.today, SOON_DAYS) && !all.some((errand) => errand.id === id))
  const fits = isShort && hours !== null && hours > 0 ? fitting(all, blocks, hours * 60, otherwise ?? 0) : null
  const now = fits?.taken ?? all
  const order = inWalkOrder(
    blocks.map(({ id }) => id).filter((id) => now.some(({ blockId }) => blockId === id)),
    (id) => middleOf(shapes, id),
    site.latitude === null || site.longitude === null ? null : ([site.longitude, site.latitude] as const),
  )
  const minutes = now.reduce((sum, errand) => sum + (errand.minutes ?? 0), 0)
  const unknown = now.filter((errand) => errand.minutes === null).length
  const kitBlock = blocks.find(({ id }) => id === kitOf)
  if (kitBlock)
    return (
      <WorkDayKit
        block={kitBlock}
        flags={known.flags.filter(({ placeId }) => blockOf(placeId) === kitBlock.id)}
        organisms={organisms}
        shapes={shapes}
        onDone={() => setKitOf(null)}
      />
    )
  return (
    <Stack $gap={18}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>
          {t('walk.title', { count: now.length })}{' '}
          {now.length > 0 ? <Quiet style={{ fontSize: 15 }}>{t('walk.takes', { minutes, unknown })}</Quiet> : null}
        </Heading>
        {all.length > 0 ? (
          <TextButton onPress={() => setShort(!isShort)} aria-expanded={isShort}>
            {t('walk.short')}
          </TextButton>
        ) : null}
      </Line>
      {isShort ? (
        <Stack $gap={8}>
          <Fields>
            <NumberField label={t('walk.hours')} width="14ch" digits={1} unit="h" value={hours} onChange={setHours} />
            <NumberField label={t('walk.otherwise')} width="24ch" digits={0} unit="min" value={otherwise} onChange={setOtherwise} />
          </Fields>
          <Small>{t(blocks.every(({ rank }) => rank === null) ? 'walk.noRanks' : 'walk.byRank')}</Small>
          <Ranks blocks={blocks} />
        </Stack>
      ) : null}
      {all.length === 0 ? (
        <Empty>
          <p>{t('walk.none')}</p>
        </Empty>
      ) : null}
      <div>
        {order.map((id) => (
          <OfBlock
            key={id}
            block={blocks.find((block) => block.id === id) as Block}
            errands={now.filter(({ blockId }) => blockId === id)}
            organisms={organisms}
            onKit={() => setKitOf(id)}
          />
        ))}
      </div>
      {fits && fits.left.length > 0 ? <Listed title={t('walk.left')} errands={fits.left} blocks={blocks} /> : null}
      {soon.length > 0 ? <Listed title={t('walk.soon')} errands={soon} blocks={blocks} /> : null}
      {ahead.length > 0 ? <CalendarLink errands={ahead} blocks={blocks} /> : null}
      <Small>{t('walk.how')}</Small>
    </Stack>
  )
}

/** The middle of a block as it is drawn; null where it is not. */
function middleOf(shapes: Walked['shapes'], blockId: string): [number, number] | null {
  const geometry = shapes.find(({ placeId }) => placeId === blockId)?.geometry
  const points = JSON.stringify(geometry?.coordinates ?? []).match(/-?\d+(\.\d+)?/g) ?? []
  const mean = (odd: number): number => points.filter((_, i) => i % 2 === odd).reduce((sum, n) => sum + Number(n), 0) / (points.length / 2)
  return points.length === 0 ? null : [mean(0), mean(1)]
}

/** What is not for today, a line each. */
function Listed({ title, errands: all, blocks }: { title: string; errands: readonly Errand[]; blocks: readonly Block[] }) {
  const t = useText()
  const f = useFormat()
  return (
    <Stack $gap={6}>
      <Heading>{title}</Heading>
      <Rows>
        {[...all]
          .sort((a, b) => (a.due < b.due ? -1 : 1))
          .map((errand) => (
            <li key={errand.id}>
              {f.date(errand.due)}: {errandWhat(errand, t)} <Quiet>{blocks.find(({ id }) => id === errand.blockId)?.name}</Quiet>
            </li>
          ))}
      </Rows>
    </Stack>
  )
}

/** The next two weeks as a file for one's own calendar. */
function CalendarLink({ errands: all, blocks }: { errands: readonly Errand[]; blocks: readonly Block[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const save = (): void => {
    const entries = all.map((errand) => ({
      id: `${site.id} ${errand.id}`,
      day: errand.due < site.today ? site.today : errand.due,
      title: errandWhat(errand, t),
      place: `${blocks.find(({ id }) => id === errand.blockId)?.name ?? ''}, ${site.name}`,
      text: errand.last ? t('walk.last', { date: f.date(errand.last) }) : t('walk.never'),
    }))
    const file = calendarFile(entries, t('walk.calendarName', { site: site.name }), new Date())
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([file], { type: 'text/calendar' }))
    link.download = 'walk.ics'
    link.click()
    URL.revokeObjectURL(link.href)
  }
  return <TextButton onPress={save}>{t('walk.calendar')}</TextButton>
}

const NO_RANK = 'none'

/** What comes first when hours are short: as the user says, block by block. */
function Ranks({ blocks }: { blocks: readonly Block[] }) {
  const t = useText()
  const site = useSite()
  const write = useWrite(endpoints.places.rank)
  const save = (block: Block, change: Partial<Pick<Block, 'rank' | 'spreads'>>): void =>
    void write.save({
      params: { siteId: site.id, placeId: block.id },
      input: { rank: block.rank, spreads: block.spreads, rowVersion: block.rowVersion, ...change },
    })
  return (
    <Fields>
      {blocks.map((block) => (
        <Stack key={block.id} $gap={2}>
          <Select
            label={block.name}
            placeholder=""
            width="20ch"
            options={[NO_RANK, '1', '2', '3'].map((id) => ({
              id,
              label: id === NO_RANK ? t('walk.rankNone') : t('walk.rank', { rank: id }),
            }))}
            value={block.rank === null ? NO_RANK : String(block.rank)}
            onChange={(id) => save(block, { rank: id === NO_RANK ? null : Number(id) })}
          />
          <TextButton
            aria-pressed={block.spreads}
            onPress={() => save(block, { spreads: !block.spreads })}
            aria-label={t('walk.spreadsOne', { block: block.name, spreads: block.spreads ? 'yes' : 'no' })}
          >
            {t(block.spreads ? 'walk.spreads' : 'walk.spreadsNot')}
          </TextButton>
        </Stack>
      ))}
    </Fields>
  )
}

function OfBlock(p: { block: Block; errands: readonly Errand[]; organisms: readonly Organism[]; onKit: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { block, errands: all, organisms } = p
  /** After a count that found nothing one looks at another hour or place, as the entry says. */
  const otherwise = ({ row }: Errand): string => {
    const last = row?.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
    const look = organisms.find(({ id }) => id === row?.watch.organismId)?.look
    return last?.per100 === 0 && look ? t('walk.alternative', look) : ''
  }
  return (
    <Place>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading as="h3">{block.name}</Heading>
        {all.some(({ kind }) => kind === 'flags') ? (
          <TextButton onPress={p.onKit} aria-label={t('walk.kitOne', { block: block.name })}>
            {t('walk.kit')}
          </TextButton>
        ) : null}
      </Line>
      <Rows>
        {all.map((errand) => {
          const sampling = organisms.find(({ id }) => id === errand.row?.watch.organismId)?.sampling
          return (
            <li key={errand.id}>
              <One>
                <span>
                  <b>{errandWhat(errand, t)}</b>{' '}
                  <Small as="span">
                    {errandWhy(errand, t, f)} {otherwise(errand)}
                  </Small>
                </span>
                <Go>
                  {errand.minutes === null ? null : <Quiet>{t('walk.minutes', { minutes: errand.minutes })}</Quiet>}
                  <Link to={errandPath(errand, site.id)} aria-label={t('walk.goOne', { what: errandWhat(errand, t), block: block.name })}>
                    {t(`walk.go.${errand.kind}`)}
                  </Link>
                </Go>
              </One>
              {sampling ? <TallySheet sampling={sampling} /> : null}
            </li>
          )
        })}
      </Rows>
    </Place>
  )
}

const MOST_COLUMNS = 30

/** On paper: a column a sample unit, a line a class, to be typed in by rows later. */
function TallySheet({ sampling }: { sampling: Organism['sampling'] }) {
  const columns = Array.from({ length: Math.min(MOST_COLUMNS, sampling.suggestedUnits) }, (_, i) => i + 1)
  return (
    <div className="on-paper">
      <Small>{sampling.how}</Small>
      <Tally>
        <tbody>
          <tr>
            <th>{sampling.unit}</th>
            {columns.map((i) => (
              <td key={i}>{i}</td>
            ))}
          </tr>
          {sampling.classes.map(({ id, name }) => (
            <tr key={id}>
              <th>{name}</th>
              {columns.map((i) => (
                <td key={i} />
              ))}
            </tr>
          ))}
        </tbody>
      </Tally>
    </div>
  )
}
