import { endpoints, type Product } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { mixHere, NOTHING_SIZED, outputOff, rateBasis, sizesOf, sprayForCanopy, type MixHere, type Sized } from '../band/mix.js'
import { Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Bullets, Caution, Fields, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import type { Measure } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useMostRate } from '../treatments/useMostRate.js'
import type { KeptSheet } from './keptSheet.js'
import { keepSprayer, keptSprayer } from './sprayer.js'
import '../messages/en/mix.js'

/** How far what comes out may lie from what is wanted. */
const FITS_WITHIN = 0.05
/** Ways in which something is put out with water. */
const MIXED: readonly string[] = ['spray', 'spot-spray', 'drench']

const shown = (value: number | null, of: Pick<Measure, 'shown'>): number | null => (value === null ? null : of.shown(value))
const stored = (value: number | null, of: Pick<Measure, 'stored'>): number | null => (value === null ? null : of.stored(value))

/** What is needed of a product on the place of a job, and what goes into the tanks; never more than the label allows. */
export function Amounts(p: {
  product: Product
  organismId: string
  placeId: string
  areaHa: number | null
  /** Plants of the place, where somebody counted them. */
  plants: number | null
  sheet: KeptSheet
  onSheet: (changes: Partial<KeptSheet>) => void
}) {
  const { product, sheet, onSheet } = p
  const t = useText()
  const f = useFormat()
  const { area, volume, sprayVolume } = f.measures
  const { data: machines = [] } = useRead(endpoints.equipment.machines, { params: { siteId: useSite().id }, input: {} })
  const most = useMostRate(product, p.organismId, p.placeId) ?? product.labelRate
  const [sized, setSized] = useState<Sized>({ ...NOTHING_SIZED, areaHa: p.areaHa, plants: p.plants })
  const [typedRate, setRate] = useState<number | null | undefined>(undefined)
  const rate = typedRate === undefined ? (sheet.rate ?? most) : typedRate
  const [sprayer, setSprayer] = useState(keptSprayer)
  const change = (changes: Partial<typeof sprayer>): void => {
    const next = { ...sprayer, ...changes }
    setSprayer(next)
    keepSprayer(next)
  }
  const size = (changes: Partial<Sized>): void => setSized({ ...sized, ...changes })
  const basis = rateBasis(product.rateUnit)
  const isMixed = product.ways.length === 0 || product.ways.some((way) => MIXED.includes(way))
  const isDilution = basis === 'volume' || basis === 'percent'
  const asked = sizesOf(basis)
  const mix = mixHere(product, { sized, rate, most, sprayer: isMixed ? sprayer : { ...sprayer, sprayLPerHa: null, tankL: null } })
  const isAbove = rate !== null && rate > most
  const [amount, waterL] = [mix?.product ?? null, mix?.tanks?.sprayL ?? null]
  const machineId = machines.some(({ id }) => id === sprayer.machineId) ? sprayer.machineId : null
  // What was worked out here is what the record begins with.
  useEffect(() => {
    if (sheet.amount !== amount || sheet.waterL !== waterL || sheet.machineId !== machineId) onSheet({ amount, waterL, machineId })
  }, [amount, waterL, machineId, sheet, onSheet])
  return (
    <Stack data-testid="mix">
      {isMixed && machines.length > 0 ? (
        <Select
          label={t('mix.machine')}
          placeholder={t('mix.noMachine')}
          width="28ch"
          options={machines.map(({ id, name }) => ({ id, label: name }))}
          value={machineId}
          onChange={(id) => {
            const chosen = machines.find((one) => one.id === id)
            change({
              machineId: id,
              ...(chosen?.tankL == null ? {} : { tankL: chosen.tankL }),
              ...(chosen?.sprayLPerHa == null ? {} : { sprayLPerHa: chosen.sprayLPerHa }),
            })
          }}
        />
      ) : null}
      <Fields>
        {asked.includes('areaHa') ? (
          <NumberField
            label={t('mix.area')}
            width="11ch"
            unit={area.unit}
            digits={3}
            value={shown(sized.areaHa, area)}
            onChange={(value) => size({ areaHa: stored(value, area) })}
          />
        ) : null}
        {asked.includes('plants') ? (
          <NumberField label={t('mix.plants')} width="11ch" digits={0} value={sized.plants} onChange={(plants) => size({ plants })} />
        ) : null}
        <SizeFields of={LENGTHS.filter((name) => asked.includes(name))} sized={sized} onSize={size} />
        <NumberField
          label={t('mix.rate')}
          width="16ch"
          unit={product.rateUnit}
          digits={4}
          value={rate}
          onChange={(value) => {
            setRate(value)
            onSheet({ rate: value })
          }}
          {...(isAbove ? { error: t('mix.above', { most: `${f.number(most, 4)} ${product.rateUnit}` }) } : {})}
        />
        {isMixed ? (
          <>
            <NumberField
              label={t('mix.spray')}
              width="14ch"
              unit={sprayVolume.unit}
              digits={1}
              value={shown(sprayer.sprayLPerHa, sprayVolume)}
              onChange={(value) => change({ sprayLPerHa: stored(value, sprayVolume) })}
            />
            <NumberField
              label={t('mix.tank')}
              width="11ch"
              unit={volume.unit}
              digits={1}
              value={shown(sprayer.tankL, volume)}
              onChange={(value) => change({ tankL: stored(value, volume) })}
            />
          </>
        ) : null}
      </Fields>
      {rate !== null && rate < most ? (
        <TextField
          label={t('mix.less')}
          hint={t('mix.lessHint')}
          value={sheet.lessBecause}
          onChange={(lessBecause) => onSheet({ lessBecause })}
        />
      ) : null}
      {mix && rate !== null ? (
        <p className="on-paper">
          {t('mix.onPaper', {
            area: sized.areaHa === null ? 'none' : f.area(sized.areaHa),
            rate: `${f.number(rate, 4)} ${product.rateUnit}`,
            most: `${f.number(most, 4)} ${product.rateUnit}`,
            machine: machines.find(({ id }) => id === machineId)?.name ?? 'none',
          })}
        </p>
      ) : null}
      {mix ? <Says mix={mix} /> : isAbove ? null : <Small>{t('mix.fill')}</Small>}
      {product.mixing === '' ? null : <p>{t('mix.label', { says: product.mixing })}</p>}
      {isMixed ? (
        <>
          <Unfold title={t('mix.other')}>
            <Fields>
              <NumberField
                label={t('mix.sprayAll')}
                width="14ch"
                unit={volume.unit}
                digits={1}
                value={shown(sized.sprayL, volume)}
                onChange={(value) => {
                  change({ sprayLPerHa: null })
                  size({ sprayL: stored(value, volume) })
                }}
              />
              {isDilution ? (
                <NumberField
                  label={t('mix.concentrate')}
                  hint={t('mix.concentrateHint')}
                  width="16ch"
                  digits={1}
                  value={sprayer.concentrate}
                  onChange={(concentrate) => change({ concentrate })}
                />
              ) : null}
            </Fields>
            <ByCanopy sized={sized} onSize={size} onSpray={(sprayLPerHa) => change({ sprayLPerHa })} />
          </Unfold>
          <Unfold title={t('mix.check')}>
            <Output wanted={sprayer.sprayLPerHa} />
          </Unfold>
        </>
      ) : null}
    </Stack>
  )
}

const LENGTHS = ['rowM', 'heightM', 'widthM', 'rowSpacingM'] as const

/** Lengths of rows and plants, as they are read and typed here. */
function SizeFields(p: { of: readonly (typeof LENGTHS)[number][]; sized: Sized; onSize: (changes: Partial<Sized>) => void }) {
  const t = useText()
  const { height } = useFormat().measures
  return p.of.map((name) => (
    <NumberField
      key={name}
      label={t(`mix.${name}`)}
      width="13ch"
      unit={height.unit}
      digits={2}
      value={shown(p.sized[name], height)}
      onChange={(value) => p.onSize({ [name]: stored(value, height) })}
    />
  ))
}

/** How much spray rows need by the space that they fill. */
function ByCanopy({
  sized,
  onSize,
  onSpray,
}: {
  sized: Sized
  onSize: (changes: Partial<Sized>) => void
  onSpray: (lPerHa: number) => void
}) {
  const t = useText()
  const f = useFormat()
  const [per100, setPer100] = useState<number | null>(null)
  const found = sprayForCanopy(sized, per100)
  const [taken, setTaken] = useState<number | null>(null)
  useEffect(() => {
    if (found === null || found === taken) return
    setTaken(found)
    onSpray(found)
  }, [found, taken, onSpray])
  return (
    <Stack $gap={6}>
      <Small>{t('mix.canopyHow')}</Small>
      <Fields>
        <SizeFields of={['heightM', 'widthM', 'rowSpacingM']} sized={sized} onSize={onSize} />
        <NumberField label={t('mix.per100')} width="14ch" unit="L/100 m³" digits={1} value={per100} onChange={setPer100} />
      </Fields>
      {found === null ? null : <p>{t('mix.canopyTakes', { spray: f.sprayVolume(found) })}</p>}
    </Stack>
  )
}

function Says({ mix }: { mix: MixHere }) {
  const t = useText()
  const f = useFormat()
  const amount = (value: number): string => `${f.number(value, mix.unit === 'pieces' ? 0 : value < 1 ? 3 : 2)} ${mix.unit}`
  const { tanks } = mix
  return (
    <>
      <Bullets data-testid="mix-says">
        <li>{t('mix.all', { product: amount(mix.product), spray: tanks ? f.volume(tanks.sprayL) : 'none' })}</li>
        {mix.apartM === null ? null : <li>{t('mix.apart', { metres: f.height(mix.apartM) })}</li>}
        {tanks ? (
          <>
            <li>
              <span style={{ fontWeight: 650 }}>
                {tanks.fullTanks === 0
                  ? t('mix.onlyLast', { last: f.volume(tanks.lastTankL), inLast: amount(tanks.productInLastTank) })
                  : t('mix.full', {
                      count: tanks.fullTanks,
                      each: amount(tanks.productPerFullTank),
                      last: tanks.lastTankL === 0 ? 'none' : f.volume(tanks.lastTankL),
                      inLast: amount(tanks.productInLastTank),
                    })}
              </span>
            </li>
            <li>{t('mix.over')}</li>
          </>
        ) : null}
      </Bullets>
      {mix.tooLittle === null ? null : <Caution>{t('mix.water', { least: f.sprayVolume(mix.tooLittle) })}</Caution>}
    </>
  )
}

/** What a boom puts out by what one nozzle gives, against what is wanted. */
function Output({ wanted }: { wanted: number | null }) {
  const t = useText()
  const f = useFormat()
  const [values, setValues] = useState({
    nozzleLitresPerMinute: null as number | null,
    speedKmH: null as number | null,
    spacingM: null as number | null,
  })
  const bind = (name: keyof typeof values) => ({
    width: '13ch',
    digits: 2,
    value: values[name],
    onChange: (value: number | null) => setValues((before) => ({ ...before, [name]: value })),
  })
  const found = outputOff(wanted, values)
  return (
    <Stack $gap={6}>
      <Small>{t('mix.outputHow')}</Small>
      <Fields>
        <NumberField label={t('mix.flow')} unit="L/min" {...bind('nozzleLitresPerMinute')} />
        <NumberField label={t('mix.speed')} unit="km/h" {...bind('speedKmH')} />
        <NumberField label={t('mix.spacing')} unit="m" {...bind('spacingM')} />
      </Fields>
      {found ? (
        Math.abs(found.off) <= FITS_WITHIN ? (
          <p>{t('mix.outputFits', { output: f.sprayVolume(found.output) })}</p>
        ) : (
          <Caution>
            {t('mix.output', {
              output: f.sprayVolume(found.output),
              off: f.percent(Math.abs(found.off)),
              way: found.off > 0 ? 'more' : 'less',
            })}
          </Caution>
        )
      ) : null}
    </Stack>
  )
}
