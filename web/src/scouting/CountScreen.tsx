import type { Block } from '@bocado/contract'
import { memo } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { useBand, useBlocks, useOrganisms } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Select } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { Columns, Line, Page, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { NotFound } from '../shell/Stumble.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { CountHand } from './CountHand.js'
import { CountSays } from './CountSays.js'
import { useCounting, type Counted, type CountProps } from './useCounting.js'
import '../messages/en/count.js'
import '../messages/en/work.js'

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

function Count(p: CountProps) {
  const t = useText()
  const { row, block } = p
  const title = t('count.title', { organism: row.organismName, block: block.name })
  usePageTitle(title)
  const c = useCounting(p)
  const { values, set } = c
  const { errors } = c.entry
  const digits = Object.fromEntries(c.sampling.classes.map(({ id }, i) => [String(i + 1), () => c.tally({ classId: id, by: 1 })]))
  useKeys({ ...digits, n: c.next })
  return (
    <Page>
      <Title>{title}</Title>
      <WhereAndWhen block={block} checkAreaId={values.checkAreaId} countedOn={values.countedOn} errors={errors} onChange={set} />
      <Columns>
        <CountHand p={p} c={c} />
        <CountSays c={c} />
      </Columns>
    </Page>
  )
}

/** Drawn by itself: a tap changes nothing of it. */
const WhereAndWhen = memo(function WhereAndWhen(p: {
  block: Block
  checkAreaId: string | null
  countedOn: string | null
  errors: Readonly<Record<string, string>>
  onChange: (change: { checkAreaId?: string | null; countedOn?: string | null }) => void
}) {
  const t = useText()
  const { block, onChange } = p
  return (
    <Line>
      <Select
        label={t('count.where')}
        placeholder=""
        width="min(30ch, 50vw)"
        options={[
          { id: 'block', label: t('count.inBlockNamed', { block: block.name }) },
          ...block.checkAreas.map(({ id, name }) => ({ id, label: t('count.inCheckNamed', { name }) })),
        ]}
        value={p.checkAreaId ?? 'block'}
        onChange={(id) => onChange({ checkAreaId: id === 'block' ? null : id })}
        error={p.errors['checkAreaId']}
      />
      <DateField
        label={t('count.date')}
        value={p.countedOn}
        onChange={(countedOn) => onChange({ countedOn })}
        error={p.errors['countedOn']}
      />
    </Line>
  )
})
