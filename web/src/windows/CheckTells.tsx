import { endpoints, type Block, type Organism, type WatchForecast } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { checkTells, startOf } from '../band/leaveCheck.js'
import { thresholdOf } from '../band/threshold.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Fields, PlainTable, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/leaveCheck.js'

/** What counts in treated and check areas would tell of a treatment, by how many blocks have a check and how much is looked at. */
export function CheckTells({ forecast, organism, block }: { forecast: WatchForecast; organism: Organism; block: Block }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { sampling } = organism
  const { data: spread } = useRead(endpoints.scouting.spread, { params: { siteId: site.id, organismId: organism.id }, input: {} })
  const [start] = useState(() => startOf(forecast.rounds, thresholdOf(forecast.watch, organism), sampling))
  const [mean, setMean] = useState<number | null>(start.mean)
  const [units, setUnits] = useState<number | null>(sampling.suggestedUnits)
  const [before, looked] = [readable(mean), readable(units)]
  const clumping = spread?.clumping ?? null
  const tells = useMemo(
    () => (before !== null && before > 0 && looked !== null && looked >= 1 ? checkTells(before, looked, clumping) : null),
    [before, looked, clumping],
  )
  const so = (count: number): string => `${f.number(count)} ${sampling.units}`
  return (
    <Stack $gap={8}>
      <Fields>
        <NumberField label={t('leave.mean', { unit: sampling.unit })} width="18ch" digits={2} value={mean} onChange={setMean} />
        <NumberField label={t('leave.units')} width="18ch" unit={sampling.units} digits={0} least={1} value={units} onChange={setUnits} />
      </Fields>
      <Small>{t(`leave.from.${start.from.kind}`, { date: start.from.kind === 'count' ? f.date(start.from.countedOn) : '' })}</Small>
      {tells && looked !== null ? (
        <PlainTable data-testid="check-tells">
          <thead>
            <tr>
              <th scope="col">{t('leave.blocks')}</th>
              <th scope="col">{t('leave.least', { units: so(looked) })}</th>
              {(tells[0]?.needs ?? []).map(({ fall }) => (
                <th key={fall} scope="col">
                  {t('leave.needs', { share: f.percent(fall) })}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {tells.map(({ pairs, least, needs }) => (
              <tr key={pairs}>
                <th scope="row">{pairs}</th>
                <td>{least === undefined ? t('leave.nothing') : t('leave.fall', { share: f.percent(least) })}</td>
                {needs.map((need) => (
                  <td key={need.fall}>{need.units === undefined ? t('leave.never') : so(need.units)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </PlainTable>
      ) : null}
      <Small>
        {t('leave.how')} {t('leave.spread', { counts: clumping?.counts ?? 0 })}
      </Small>
      <Small>
        {t('leave.where')} {block.areaHa ? t('leave.costs', { area: f.area(block.areaHa / 10) }) : null}{' '}
        {organism.kind === 'weed' || organism.kind === 'disease' ? t(`leave.${organism.kind}`) : null}
      </Small>
    </Stack>
  )
}
