import { Link, useSearchParams } from 'react-router'
import { useBand, useBlocks, useHarvests, useOrganisms, useProducts } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Columns, Empty, Heading, Line, Page, Rows, Small, Stack, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { later } from '../shell/later.js'
import { partLater } from '../shell/partLater.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { HarvestPart } from './HarvestPart.js'
import { MachinesPart } from './MachinesPart.js'
import { Shelf } from './Shelf.js'
import { TreatmentLine } from './TreatmentLine.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'
import '../messages/en/report.js'
import '../messages/en/work.js'

const forms = later(() => import('./forms.js'))
const TakenOnWalks = partLater(async () => (await import('./TakenOnWalks.js')).TakenOnWalks)
const RecordUnplanned = partLater(async () => (await forms()).RecordUnplanned)

/** What is planned, what was done, and the shelf it comes from. */
export function TreatmentsScreen() {
  const t = useText()
  usePageTitle(t('nav.treatments'))
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: products } = useProducts(site.id)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: picked } = useHarvests(site.id, site.season.start)
  if (!band || !products || !blocks || !organisms || !picked) return <Waiting />
  const all = band.watches.flatMap((row) => row.treatments.map((treatment) => ({ row, treatment })))
  const planned = all
    .filter(({ treatment }) => treatment.status === 'planned')
    .sort((a, b) => a.treatment.plannedOn.localeCompare(b.treatment.plannedOn))
  const done = all
    .filter(({ treatment }) => treatment.status === 'done')
    .sort((a, b) => (b.treatment.done?.startedAt ?? '').localeCompare(a.treatment.done?.startedAt ?? ''))
  const recording = search.get('record')
  const record = (id: string | null): void => setSearch(id ? { record: id } : {}, { replace: true })
  const unplanned = search.get('did')
  return (
    <Page>
      <Columns $left="7fr" $right="4fr">
        <Stack $gap={22}>
          <Stack>
            <Title>{t('treatments.planned', { count: planned.length })}</Title>
            {planned.length === 0 ? (
              <Empty>
                <p>{t('treatments.emptyPlanned')}</p>
                <Link to={`/sites/${site.id}/windows`}>{t('treatments.toWindows')}</Link>
              </Empty>
            ) : (
              <Rows>
                {planned.map(({ row, treatment }) => (
                  <li key={treatment.id}>
                    <TreatmentLine
                      row={row}
                      treatment={treatment}
                      products={products}
                      recording={recording === treatment.id}
                      onRecord={record}
                    />
                  </li>
                ))}
              </Rows>
            )}
          </Stack>
          <Stack>
            <Line style={{ justifyContent: 'space-between' }}>
              <Heading>{t('treatments.done')}</Heading>
              {unplanned === null && band.watches.length > 0 ? (
                <Line $gap={16}>
                  {done.length > 0 ? <Link to={`/sites/${site.id}/treatments/season`}>{t('report.open')}</Link> : null}
                  <TextButton onPress={() => setSearch({ did: '' }, { replace: true })}>{t('record.unplanned')}</TextButton>
                </Line>
              ) : null}
            </Line>
            {unplanned === null ? null : (
              <RecordUnplanned
                key={`${unplanned} ${search.get('with') ?? ''}`}
                rows={band.watches}
                products={products}
                watchId={unplanned || null}
                means={search.get('with')}
                onDone={() => record(null)}
              />
            )}
            {done.length === 0 ? <Small>{t('treatments.emptyDone')}</Small> : null}
            <Rows>
              {done.map(({ row, treatment }) => (
                <li key={treatment.id}>
                  <TreatmentLine
                    row={row}
                    treatment={treatment}
                    products={products}
                    recording={recording === treatment.id}
                    onRecord={record}
                  />
                </li>
              ))}
            </Rows>
          </Stack>
          <HarvestPart data={picked} blocks={blocks} organisms={organisms} />
        </Stack>
        <Stack $gap={28}>
          <Shelf products={products} />
          <MachinesPart />
          <TakenOnWalks band={band} placeOf={(id) => blocks.find((block) => block.id === id)?.name ?? ''} />
        </Stack>
      </Columns>
    </Page>
  )
}
