import type { Block, Organism } from '@bocado/contract'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useFlags, useOrganisms, usePlaces, useShapes, useTraps } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { errands, inWalkOrder, type Errand } from '../band/walk.js'
import { Empty, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import '../messages/en/field.js'
import '../messages/en/walk.js'
import '../messages/en/windows.js'
import '../messages/en/work.js'

/** Days ahead that are told quietly. */
const SOON_DAYS = 7

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

/** What to go and look at today, block by block in the order of a walk; printed, with a sheet to tally on. */
export function WalkPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: places } = usePlaces(site.id)
  const { data: organisms } = useOrganisms()
  const { data: traps } = useTraps(site.id, site.season.start)
  const { data: flags } = useFlags(site.id)
  const { data: shapes } = useShapes(site.id)
  if (!band || !blocks || !places || !organisms || !traps || !flags || !shapes) return <Waiting />
  const blockOf = (placeId: string): string => {
    const parent = places.find(({ id }) => id === placeId)?.parentId
    return parent ? blockOf(parent) : placeId
  }
  const known = { rows: band.watches, organisms, traps, flags: flags.flags, blockOf, today: site.today }
  const now = errands(known, site.today)
  const soon = errands(known, f.nudge(site.today, SOON_DAYS)).filter(({ id }) => !now.some((errand) => errand.id === id))
  const middleOf = (blockId: string): [number, number] | null => {
    const geometry = shapes.find(({ placeId }) => placeId === blockId)?.geometry
    const points = JSON.stringify(geometry?.coordinates ?? []).match(/-?\d+(\.\d+)?/g) ?? []
    const mean = (odd: number): number =>
      points.filter((_, i) => i % 2 === odd).reduce((sum, n) => sum + Number(n), 0) / (points.length / 2)
    return points.length === 0 ? null : [mean(0), mean(1)]
  }
  const start = site.latitude === null || site.longitude === null ? null : ([site.longitude, site.latitude] as const)
  const order = inWalkOrder(
    blocks.map(({ id }) => id).filter((id) => now.some(({ blockId }) => blockId === id)),
    middleOf,
    start,
  )
  const minutes = now.reduce((sum, errand) => sum + (errand.minutes ?? 0), 0)
  const unknown = now.filter((errand) => errand.minutes === null).length
  return (
    <Stack $gap={18}>
      <Heading>
        {t('walk.title', { count: now.length })}{' '}
        {now.length > 0 ? <Quiet style={{ fontSize: 15 }}>{t('walk.takes', { minutes, unknown })}</Quiet> : null}
      </Heading>
      {now.length === 0 ? (
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
          />
        ))}
      </div>
      {soon.length > 0 ? (
        <Stack $gap={6}>
          <Heading>{t('walk.soon')}</Heading>
          <Rows>
            {[...soon]
              .sort((a, b) => (a.due < b.due ? -1 : 1))
              .map((errand) => (
                <li key={errand.id}>
                  {f.date(errand.due)}: {what(errand, t)} <Quiet>{blocks.find(({ id }) => id === errand.blockId)?.name}</Quiet>
                </li>
              ))}
          </Rows>
        </Stack>
      ) : null}
      <Small>{t('walk.how')}</Small>
    </Stack>
  )
}

type Say = ReturnType<typeof useText>

/** What is to be done, in a few words. */
const what = ({ kind, row, trap, flags }: Errand, t: Say): string =>
  kind === 'count'
    ? t('walk.count', { name: row?.organismName ?? '' })
    : kind === 'trap'
      ? t('walk.trap', { name: trap?.name ?? '' })
      : t('walk.flags', { count: flags?.length ?? 0, numbers: (flags ?? []).map(({ number }) => `#${number}`).join(', ') })

function OfBlock({ block, errands: all, organisms }: { block: Block; errands: readonly Errand[]; organisms: readonly Organism[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const pathOf = ({ kind, row, flags }: Errand): string =>
    kind === 'count'
      ? `/sites/${site.id}/scouting/${row?.watch.id}/count`
      : `/sites/${site.id}/scouting?panel=${kind === 'trap' ? 'traps' : 'flags'}${flags?.[0] ? `&flag=${flags[0].id}` : ''}`
  const why = ({ because, kind, last, due }: Errand): string =>
    [
      kind === 'count' ? t(`walk.because.${because ?? 'window'}`) : '',
      last ? t('walk.last', { date: f.date(last) }) : kind === 'flags' ? t('walk.since', { date: f.date(due) }) : t('walk.never'),
    ]
      .filter(Boolean)
      .join('; ')
  return (
    <Place>
      <Heading as="h3">{block.name}</Heading>
      <Rows>
        {all.map((errand) => {
          const sampling = organisms.find(({ id }) => id === errand.row?.watch.organismId)?.sampling
          return (
            <li key={errand.id}>
              <One>
                <span>
                  <b>{what(errand, t)}</b> <Small as="span">{why(errand)}</Small>
                </span>
                <Go>
                  {errand.minutes === null ? null : <Quiet>{t('walk.minutes', { minutes: errand.minutes })}</Quiet>}
                  <Link to={pathOf(errand)} aria-label={t('walk.goOne', { what: what(errand, t), block: block.name })}>
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
