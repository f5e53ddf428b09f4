import { endpoints, type JobSheet, type Organism, type Product, type Treatment, type WatchForecast } from '@bocado/contract'
import { hoursBetween } from '@bocado/core/time'
import { Link, useParams, useSearchParams } from 'react-router'
import { useBand, useBlocks, useOrganisms, usePlaces, useProducts, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Hazards } from '../design/Hazards.js'
import { Caution, Columns, Empty, Heading, Line, Page, Quiet, Small, Stack, Title } from '../design/text.js'
import { hectaresFromSquareMetres } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useRefusal } from '../messages/refusal.js'
import { useText } from '../messages/useText.js'
import { useNow } from '../shell/useNow.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { ProductCautions } from '../treatments/ProductCautions.js'
import { useMethods } from '../windows/useShelfFor.js'
import { Amounts } from './Amounts.js'
import { Checks } from './Checks.js'
import { NoticeToPrint } from './NoticeToPrint.js'
import { Notices } from './Notices.js'
import { Posting } from './Posting.js'
import { Steps } from './Steps.js'
import { useKeptSheet } from './keptSheet.js'
import '../messages/en/job.js'
import '../messages/en/work.js'

/** Hours after which what a sheet rests on is looked up anew before one begins. */
const STALE_HOURS = 24

/** What is taken along to a planned treatment: what stops it, how much, in which order, and what is checked. Of what was done, the posting. */
export function JobSheetScreen() {
  const t = useText()
  const site = useSite()
  const { treatmentId = '' } = useParams()
  const [search] = useSearchParams()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: products } = useProducts(site.id)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: methods } = useMethods()
  usePageTitle(t('job.title'))
  if (!band || !products || !blocks || !organisms || !methods) return <Waiting />
  const row = band.watches.find(({ treatments }) => treatments.some(({ id }) => id === treatmentId))
  const treatment = row?.treatments.find(({ id }) => id === treatmentId)
  if (!row || !treatment)
    return (
      <Page>
        <Empty>
          <p>{t('job.gone')}</p>
          <Link to={`/sites/${site.id}/treatments`}>{t('job.back')}</Link>
        </Empty>
      </Page>
    )
  if (treatment.done) return <Posting row={row} treatment={treatment} />
  const product = products.find(({ id }) => id === treatment.productId) ?? null
  const organism = organisms.find(({ id }) => id === row.watch.organismId)
  if (search.has('notice')) return <NoticeToPrint row={row} treatment={treatment} product={product} />
  return <Planned key={treatment.id} row={row} treatment={treatment} product={product} organism={organism} />
}

interface JobProps {
  row: WatchForecast
  treatment: Treatment
  product: Product | null
  organism: Organism | undefined
}

function Planned({ row, treatment, product, organism }: JobProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: methods = [] } = useMethods()
  const { data: found } = useRead(endpoints.treatments.sheet, { params: { siteId: site.id, treatmentId: treatment.id }, input: {} })
  const [sheet, setSheet] = useKeptSheet(treatment.id)
  const block = blocks.find(({ id }) => id === row.watch.blockId)
  const part = places.find(({ id }) => id === treatment.placeId)
  const areaHa = part ? (part.areaM2 === null ? null : hectaresFromSquareMetres(part.areaM2)) : (block?.areaHa ?? null)
  const placeName = part && block ? t('place.within', { name: part.name, parent: block.name }) : (block?.name ?? '')
  const ids = product ? product.methods : [treatment.methodId ?? '']
  const used = methods.filter(({ id }) => ids.includes(id))
  const isStopped = (found?.stops.length ?? 0) > 0
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <div>
          <Title>{t('job.of', { name: treatment.name, place: placeName })}</Title>
          <p>
            {f.dateInDays(treatment.plannedOn)} <Quiet>{t('job.against', { organism: row.organismName })}</Quiet>
          </p>
        </div>
        <div className="off-paper">
          <Line>
            <Button $plain onPress={() => window.print()}>
              {t('job.print')}
            </Button>
            <Link to={`/sites/${site.id}/treatments?record=${treatment.id}`}>{t('job.record')}</Link>
          </Line>
        </div>
      </Line>
      {found ? <WhatSpeaksAgainst found={found} issuedAt={row.heat.forecast?.issuedAt ?? null} /> : <Small>{t('job.lookingUp')}</Small>}
      <Columns $left="7fr" $right="5fr">
        <Stack $gap={22}>
          {product && !isStopped ? (
            <Stack>
              <Heading>{t('job.amounts')}</Heading>
              <Amounts
                product={product}
                organismId={row.watch.organismId}
                placeId={treatment.placeId}
                areaHa={areaHa}
                plants={part?.plants ?? null}
                sheet={sheet}
                onSheet={setSheet}
              />
            </Stack>
          ) : null}
          <Steps
            product={product}
            methods={used}
            sheet={sheet}
            onSheet={setSheet}
            units={organism ? { count: organism.sampling.suggestedUnits, of: organism.sampling.units } : null}
          />
        </Stack>
        <Stack $gap={22}>
          <Checks
            treatment={treatment}
            product={product}
            methods={methods}
            downwind={found?.downwind ?? []}
            sheet={sheet}
            onSheet={setSheet}
          />
          {found ? <Notices treatmentId={treatment.id} found={found} /> : null}
          <Stack $gap={6}>
            <Heading>{t('job.harms')}</Heading>
            {product ? <ProductCautions product={product} date={treatment.plannedOn} /> : null}
            <Hazards hazards={used.flatMap(({ hazards }) => hazards)} />
            <Hazards hazards={organism?.hazards ?? []} />
          </Stack>
        </Stack>
      </Columns>
    </Page>
  )
}

/** What stops it, what is weighed, and how old that is; a sheet that was kept without a signal says so. */
function WhatSpeaksAgainst({ found, issuedAt }: { found: JobSheet; issuedAt: string | null }) {
  const t = useText()
  const f = useFormat()
  const says = useRefusal()
  const now = useNow()
  const sentence = ({ because, ...said }: JobSheet['stops'][number] | JobSheet['warnings'][number]): string => {
    const words = says({ path: '', ...said })
    return because === 'rule' ? t('job.day', { says: words }) : words
  }
  const isOld = (moment: string | null): boolean => moment !== null && hoursBetween(Date.parse(moment), now) > STALE_HOURS
  return (
    <Stack $gap={6} aria-live="polite">
      {found.stops.map((stop) => (
        <Caution key={`${stop.because}${stop.message}`}>
          <b>{t('job.stop')}</b> {sentence(stop)}
        </Caution>
      ))}
      {found.warnings.map((warning) => (
        <Caution key={`${warning.because}${warning.message}`}>{sentence(warning)}</Caution>
      ))}
      <Small>
        {found.stops.length === 0 ? `${t('job.free')} ` : `${t('job.stopped')} `}
        {t('job.asOf', { moment: f.moment(found.asOf), forecast: issuedAt === null ? 'none' : f.moment(issuedAt) })}
      </Small>
      {isOld(found.asOf) || isOld(issuedAt) ? <Caution>{t('job.old')}</Caution> : null}
    </Stack>
  )
}
