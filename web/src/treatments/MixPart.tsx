import type { Product } from '@bocado/contract'
import { useState } from 'react'
import { mixHere, outputOff, type MixHere } from '../band/mix.js'
import { NumberField } from '../design/NumberField.js'
import { Bullets, Caution, Fields, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { keepSprayer, keptSprayer } from './sprayer.js'
import { useMostRate } from './useMostRate.js'
import '../messages/en/mix.js'

/** How far what comes out may lie from what is wanted. */
const FITS_WITHIN = 0.05

/** What goes into the tank for a planned treatment, with the sprayer that was used on this device last. */
export function MixPart({
  product,
  organismId,
  placeId,
  areaHa: known,
}: {
  product: Product
  organismId: string
  placeId: string
  areaHa: number | null
}) {
  const t = useText()
  const f = useFormat()
  const { area, volume, sprayVolume } = f.measures
  const most = useMostRate(product, organismId, placeId) ?? product.labelRate
  const [areaHa, setArea] = useState(known)
  const [rate, setRate] = useState<number | null>(most)
  const [sprayer, setSprayer] = useState(keptSprayer)
  const set = (changes: Partial<typeof sprayer>): void => {
    const next = { ...sprayer, ...changes }
    setSprayer(next)
    keepSprayer(next)
  }
  const shown = (value: number | null, of: { shown: (si: number) => number }): number | null => (value === null ? null : of.shown(value))
  const stored = (value: number | null, of: { stored: (shown: number) => number }): number | null =>
    value === null ? null : of.stored(value)
  const mix = mixHere(product, { areaHa, rate, most, sprayer })
  const isAbove = rate !== null && rate > most
  return (
    <Stack data-testid="mix">
      <Fields>
        <NumberField
          label={t('mix.area')}
          width="11ch"
          unit={area.unit}
          digits={3}
          value={shown(areaHa, area)}
          onChange={(value) => setArea(stored(value, area))}
        />
        <NumberField
          label={t('mix.rate')}
          width="14ch"
          unit={product.rateUnit}
          digits={4}
          value={rate}
          onChange={setRate}
          {...(isAbove ? { error: t('mix.above', { most: `${f.number(most, 4)} ${product.rateUnit}` }) } : {})}
        />
        <NumberField
          label={t('mix.spray')}
          width="14ch"
          unit={sprayVolume.unit}
          digits={1}
          value={shown(sprayer.sprayLPerHa, sprayVolume)}
          onChange={(value) => set({ sprayLPerHa: stored(value, sprayVolume) })}
        />
        <NumberField
          label={t('mix.tank')}
          width="11ch"
          unit={volume.unit}
          digits={1}
          value={shown(sprayer.tankL, volume)}
          onChange={(value) => set({ tankL: stored(value, volume) })}
        />
      </Fields>
      {mix ? <Says mix={mix} /> : isAbove ? null : <Small>{t('mix.fill')}</Small>}
      <Unfold title={t('mix.check')}>
        <Output wanted={sprayer.sprayLPerHa} />
      </Unfold>
    </Stack>
  )
}

function Says({ mix }: { mix: MixHere }) {
  const t = useText()
  const f = useFormat()
  const amount = (value: number): string => `${f.number(value, value < 1 ? 3 : 2)} ${mix.unit}`
  const { fullTanks, lastTankL } = mix
  return (
    <>
      <Bullets data-testid="mix-says">
        <li>{t('mix.all', { product: amount(mix.product), spray: f.volume(mix.sprayL) })}</li>
        <li>
          <b>
            {fullTanks === 0
              ? t('mix.onlyLast', { last: f.volume(lastTankL), inLast: amount(mix.productInLastTank) })
              : t('mix.full', {
                  count: fullTanks,
                  each: amount(mix.productPerFullTank),
                  last: lastTankL === 0 ? 'none' : f.volume(lastTankL),
                  inLast: amount(mix.productInLastTank),
                })}
          </b>
        </li>
        <li>{t('mix.order')}</li>
        <li>{t('mix.over')}</li>
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
