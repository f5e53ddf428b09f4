import type { WatchForecast } from '@bocado/contract'
import styled from 'styled-components'
import { TextButton } from '../design/buttons.js'
import { rowKeys } from '../design/rowKeys.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { stageSharesAt } from './streams.js'
import { groupWords } from './groupWords.js'
import { currentWindow, type Group } from './urgency.js'
import '../messages/en/windows.js'

const Table = styled.table`
  width: calc(100% - 40px);
  margin: 0 20px;
  background: ${colour.sheet};
  td,
  th {
    padding: 6px 12px 6px 6px;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
  thead th {
    font-weight: 600;
    border-bottom-color: ${colour.ink};
  }
  tbody th {
    font-weight: 400;
  }
  th.group {
    padding-top: 14px;
    font-weight: 600;
    color: ${colour.inkSoft};
  }
  tr[aria-selected='true'] {
    background: ${colour.white};
  }
`
const Scroll = styled.div`
  overflow-x: auto;
`

/** What the band shows, as a table: the same groups and rows in words and figures. */
export function BandTable(p: {
  groups: readonly Group[]
  blockNames: ReadonlyMap<string, string>
  sentences: ReadonlyMap<string, string>
  selected: string | null
  onSelect: (watchId: string) => void
}) {
  const t = useText()
  return (
    <Scroll>
      <Table
        data-testid="band-table"
        onKeyDown={(event) => rowKeys(event, (table) => [...table.querySelectorAll('tbody > tr:has(button)')])}
      >
        <thead>
          <tr>
            {(['organism', 'block', 'says', 'opens', 'closes', 'stage', 'biofix'] as const).map((column) => (
              <th key={column} scope="col">
                {t(`band.column.${column}`)}
              </th>
            ))}
          </tr>
        </thead>
        {p.groups.map((group) => (
          <tbody key={group.id}>
            <tr>
              <th className="group" colSpan={7} scope="rowgroup">
                {groupWords(group, t)}
              </th>
            </tr>
            {group.rows.map((row) => (
              <TableRow key={row.watch.id} row={row} {...p} />
            ))}
          </tbody>
        ))}
      </Table>
    </Scroll>
  )
}

function TableRow(p: {
  row: WatchForecast
  blockNames: ReadonlyMap<string, string>
  sentences: ReadonlyMap<string, string>
  selected: string | null
  onSelect: (watchId: string) => void
}) {
  const { row } = p
  const t = useText()
  const f = useFormat()
  const start = row.watch.season
  const window = row.grade === 'dates' ? currentWindow(row) : undefined
  const bounds = (b: { p10: number | null; p50: number | null; p90: number | null } | undefined): string =>
    b?.p50 == null || b.p10 === null || b.p90 === null
      ? ''
      : t('band.bounds', { date: f.date(f.seasonDay(start, b.p50)), span: f.span(f.seasonDay(start, b.p10), f.seasonDay(start, b.p90)) })
  const most = row.heat.knownDays > 0 ? stageSharesAt(row, row.heat.now).sort((a, b) => b.share - a.share)[0] : undefined
  const stage = most && most.share > 0.005 ? row.stages.find(({ id }) => id === most.stage)?.name : undefined
  return (
    <tr aria-selected={row.watch.id === p.selected}>
      <th scope="row">
        <TextButton onPress={() => p.onSelect(row.watch.id)}>{row.organismName}</TextButton>
      </th>
      <td>{p.blockNames.get(row.watch.blockId) ?? ''}</td>
      <td>{p.sentences.get(row.watch.id)}</td>
      <td>{bounds(window?.opens)}</td>
      <td>{bounds(window?.closes)}</td>
      <td>{stage && most ? t('band.mostly', { stage, share: f.percent(most.share) }) : ''}</td>
      <td>{row.biofix.date ? f.date(row.biofix.date) : t('band.noBiofix')}</td>
    </tr>
  )
}
