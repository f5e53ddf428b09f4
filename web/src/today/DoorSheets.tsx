import type { Block } from '@bocado/contract'
import styled from 'styled-components'
import { useProducts } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import type { TodayLine } from '../band/today.js'
import { Button, TextButton } from '../design/buttons.js'
import { Hazards } from '../design/Hazards.js'
import { Heading, Line, Page, Small, Stack, Title } from '../design/text.js'
import { colour, font, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ProductCautions } from '../treatments/ProductCautions.js'
import { lineWhat, lineWhen, lineWhy } from './todayWords.js'
import type { Morning } from './useMorning.js'
import '../messages/en/today.js'

const Sheet = styled.section`
  border: 1px solid ${colour.rule};
  background: ${colour.white};
  padding: 22px;
  font-size: ${size.large};
  break-after: page;
  h2 {
    font-family: ${font.heading};
    margin: 0 0 2px;
  }
  li {
    margin: 8px 0;
  }
  .out {
    color: ${colour.beet};
    font-weight: 650;
  }
`
const Tear = styled.table`
  width: 100%;
  border-collapse: collapse;
  border-top: 2px dashed ${colour.ink};
  margin-top: 16px;
  font: ${size.small} ${font.text};
  td,
  th {
    border: 1px solid ${colour.rule};
    height: 26px;
    min-width: 22px;
    padding: 0 6px;
    text-align: left;
    font-weight: 400;
  }
`
const OnScreen = styled.div`
  @media print {
    display: none;
  }
`
/** Columns of a tally that fit on a page. */
const COLUMNS = 10

/** One page a place, for the door: what is to be done and looked at there, where nobody enters, and a tally to tear off. */
export function DoorSheets({ morning, onDone }: { morning: Morning; onDone: () => void }) {
  const t = useText()
  const { lines, walked, closed } = morning
  const ofBlock = (block: Block) => lines.filter(({ blockId }) => blockId === block.id)
  const busy = walked.blocks.filter(
    (block) => ofBlock(block).length > 0 || closed.some(({ watchId }) => blockOfWatch(morning, watchId) === block.id),
  )
  return (
    <Page>
      <Stack $gap={18}>
        <OnScreen>
          <Title>{t('today.sheet')}</Title>
          <Small>{t('today.sheetHow')}</Small>
          <Line>
            <Button onPress={() => window.print()}>{t('today.print')}</Button>
            <TextButton onPress={onDone}>{t('today.sheetShut')}</TextButton>
          </Line>
        </OnScreen>
        {busy.length === 0 ? <p>{t('today.sheetNothing')}</p> : null}
        {busy.map((block) => (
          <OfPlace key={block.id} block={block} lines={ofBlock(block)} morning={morning} />
        ))}
      </Stack>
    </Page>
  )
}

const blockOfWatch = ({ walked }: Morning, watchId: string): string | undefined =>
  walked.band.watches.find(({ watch }) => watch.id === watchId)?.watch.blockId

function OfPlace({ block, lines, morning }: { block: Block; lines: readonly TodayLine[]; morning: Morning }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const deeds = lines.filter(({ kind }) => kind === 'deed')
  const looks = lines.filter(({ kind }) => kind !== 'deed' && kind !== 'decide' && kind !== 'step')
  const shut = morning.closed.filter(({ watchId }) => blockOfWatch(morning, watchId) === block.id)
  const met = new Set(
    lines.flatMap(({ row, rows = [], errand }) => [
      ...[row, ...rows].flatMap((one) => one?.watch.organismId ?? []),
      ...(errand?.flags ?? []).map(({ organismId }) => organismId),
    ]),
  )
  const hazards = morning.walked.organisms.filter(({ id }) => met.has(id)).flatMap((organism) => organism.hazards)
  const { data: products = [] } = useProducts(site.id)
  const labels = products.filter(({ id }) => deeds.some(({ treatment }) => treatment?.productId === id))
  const list = (title: string, all: readonly TodayLine[]) =>
    all.length === 0 ? null : (
      <>
        <Heading as="h3">{title}</Heading>
        <ul>
          {all.map((line) => (
            <li key={line.id}>
              <b>{lineWhat(line, t, morning.nameOf)}</b> {lineWhen(line, undefined, t, f)}
              <Small>{lineWhy(line, site.season.start, t, f)}</Small>
            </li>
          ))}
        </ul>
      </>
    )
  return (
    <Sheet data-testid="door-sheet">
      <h2>{block.name}</h2>
      <Small>
        {site.name}, {f.date(site.today)}
      </Small>
      {shut.length > 0 ? (
        <>
          <Heading as="h3">{t('today.sheetKeepOut')}</Heading>
          {shut.map(({ id, done, name, placeName }) => (
            <p key={id} className="out">
              {t('today.entry', { place: placeName, name, when: f.moment(done?.reEntryUntil ?? '') })}
            </p>
          ))}
        </>
      ) : null}
      {list(t('today.sheetDo'), deeds)}
      {labels.map((product) => (
        <ProductCautions key={product.id} product={product} />
      ))}
      {list(t('today.sheetLook'), looks)}
      <Hazards hazards={hazards} />
      {looks.map((line) => (
        <TallyOf key={line.id} line={line} morning={morning} />
      ))}
    </Sheet>
  )
}

/** A strip to tally on and tear off; typed in later by rows, as the walk's own sheet is. */
function TallyOf({ line, morning }: { line: TodayLine; morning: Morning }) {
  const t = useText()
  const organism = morning.walked.organisms.find(({ id }) => id === line.row?.watch.organismId)
  if (line.kind !== 'count' || !organism) return null
  const columns = Array.from({ length: COLUMNS }, (_, i) => i + 1)
  return (
    <Tear>
      <caption style={{ textAlign: 'left', paddingTop: 6 }}>
        {t('today.sheetTally')}: {lineWhat(line, t, morning.nameOf)} · {t('today.sheetBy')}
      </caption>
      <tbody>
        <tr>
          <th scope="row">{organism.sampling.unit}</th>
          {columns.map((i) => (
            <th key={i} scope="col">
              {i}
            </th>
          ))}
        </tr>
        {organism.sampling.classes.map(({ id, name }) => (
          <tr key={id}>
            <th scope="row">{name}</th>
            {columns.map((i) => (
              <td key={i} />
            ))}
          </tr>
        ))}
      </tbody>
    </Tear>
  )
}
