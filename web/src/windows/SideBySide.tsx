import type { Block, Method, Organism, WatchForecast } from '@bocado/contract'
import { useState, type ReactNode } from 'react'
import { Select } from '../design/controls.js'
import { Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { FigureTable } from './FigureTable.js'
import { hoursHere } from '../band/hoursHere.js'
import type { WayThen } from './wayThen.js'
import { runsOf, useHours } from './useHours.js'
import { useOwnResults, type OwnResult } from './useOwnResults.js'
import '../messages/en/beside.js'
import '../messages/en/field.js'
import '../messages/en/plan.js'

/** What a treatment did here, against its check. */
function ownWords({ treatedOn, comparison: { verdict, hendersonTilton } }: OwnResult, t: Say, f: Format): string {
  const { value, withAreas } = hendersonTilton
  return t('beside.ownOne', {
    date: f.withYear(treatedOn),
    verdict: { 'lower-than-check': 'lowerThanCheck', 'higher-than-check': 'higherThanCheck', 'not-separable': 'notSeparable' }[verdict],
    share: f.percent(value),
    low: f.number(100 * withAreas.low),
    high: f.number(100 * withAreas.high),
  })
}

interface Props {
  forecast: WatchForecast
  organism: Organism | undefined
  block: Block | undefined
  ways: readonly WayThen[]
  /** Key of the way that is thought about. */
  chosen: string
  methodOf: (way: WayThen) => Method | undefined
}

/** The way that is thought about beside another: what each reaches, takes, risks and leaves behind. */
export function SideBySide({ forecast, organism, block, ways, chosen, methodOf }: Props) {
  const t = useText()
  const f = useFormat()
  const [other, setOther] = useState<string | null>(null)
  const first = ways.find(({ offer }) => offer.means.key === chosen)
  const rest = ways.filter(({ offer }) => offer.means.key !== chosen)
  const second = rest.find(({ offer }) => offer.means.key === other) ?? rest[0]
  const firstHours = useHours(forecast, first?.offer.means)
  const secondHours = useHours(forecast, second?.offer.means)
  const own = useOwnResults(forecast.watch.organismId)
  if (!first || !second) return null
  const two = [
    { way: first, hours: firstHours },
    { way: second, hours: secondHours },
  ]
  const cell = (make: (one: (typeof two)[number], method: Method | undefined) => ReactNode) =>
    two.map((one) => make(one, methodOf(one.way)))
  const rows: [string, ReactNode[]][] = [
    [
      t('beside.reaches'),
      cell(({ way: { reached } }) =>
        reached
          ? t('beside.share', {
              share: f.percent(reached.bounds.p50),
              low: f.number(100 * reached.bounds.p10),
              high: f.number(100 * reached.bounds.p90),
            })
          : t('beside.unknown'),
      ),
    ],
    [
      t('beside.stages'),
      cell(({ way: { offer } }) =>
        offer.gate.verdict === 'fits'
          ? offer.gate.stages.map((id) => organism?.stages.find((stage) => stage.id === id)?.name ?? id).join(', ')
          : t('beside.unknown'),
      ),
    ],
    [
      t('beside.own'),
      cell(({ way: { offer } }) => {
        if (!own) return ''
        const here = own.filter(({ name }) => name === offer.means.name)
        return here.length === 0 ? t('beside.ownNone') : here.map((one) => ownWords(one, t, f)).join('; ')
      }),
    ],
    [t('beside.evidence'), cell((_, method) => (method ? t(`evidence.${method.evidence}`) : t('beside.unknown')))],
    [
      t('beside.next'),
      cell(({ hours }) => {
        const [run] = hours ? runsOf(hours) : []
        if (!hours || hours.members === 0) return t('beside.unknown')
        return run ? t('beside.on', { date: f.date(f.nudge(hours.from, Math.floor(run.from / 24))) }) : t('beside.never')
      }),
    ],
    [
      t('beside.work'),
      cell((_, method) => {
        if (!method) return t('beside.unknown')
        const here = hoursHere(method.hours, block?.areaHa ?? null)
        const unit = t('reaching.hours', { hours: f.number(method.hours.perUnit, 1), unit: method.hours.unit })
        return here === undefined || block === undefined ? unit : t('beside.workHere', { hours: f.number(here, 1), place: block.name })
      }),
    ],
    [t('beside.suits'), cell((_, method) => (method ? t('beside.suitsWhat', method.suits) : t('beside.unknown')))],
    [
      t('beside.waits'),
      cell(({ way: { offer } }) => {
        const { product } = offer.means
        return product ? t('beside.label', { hours: product.reEntryHours, days: product.preHarvestDays }) : t('beside.none')
      }),
    ],
    [
      t('beside.harms'),
      cell(({ way: { offer } }, method) => {
        const bees = (offer.means.product?.bees ?? 'none-stated') === 'none-stated' ? '' : t('reaching.bees')
        const hazards = (method?.hazards ?? []).map(({ text }) => text)
        return [bees, ...hazards].filter(Boolean).join('; ') || t('beside.none')
      }),
    ],
    [t('beside.provokes'), cell((_, method) => method?.provokes ?? t('beside.unknown'))],
  ]
  return (
    <Stack data-part="beside">
      <Select
        label={t('beside.with')}
        placeholder={t('choose')}
        options={rest.map(({ offer }) => ({ id: offer.means.key, label: offer.means.name }))}
        value={second.offer.means.key}
        onChange={setOther}
      />
      <FigureTable data-testid="side-by-side">
        <caption>{t('beside.title')}</caption>
        <thead>
          <tr>
            <td />
            {two.map(({ way }) => (
              <th key={way.offer.means.key} scope="col">
                {way.offer.means.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, cells]) => (
            <tr key={name}>
              <th scope="row" className="soft">
                {name}
              </th>
              {cells.map((text, i) => (
                <td key={i}>{text}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </FigureTable>
      <Small>{t('beside.how')}</Small>
    </Stack>
  )
}
