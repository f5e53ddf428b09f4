import type { Bindings } from '../api/bindings.js'
import { Select, TextField } from '../design/controls.js'
import { QuantityField } from '../design/NumberField.js'
import { PositionFields } from '../design/PositionFields.js'
import { Fields } from '../design/text.js'
import { measuresOf } from '../design/units.js'
import { useText } from '../messages/useText.js'

/** What a site is known by, as typed. */
export type SiteValues = {
  name: string
  place: string
  timeZone: string
  units: 'metric' | 'us'
  latitude: number | null
  longitude: number | null
  elevationM: number | null
}

const ZONES = Intl.supportedValuesOf('timeZone').map((zone) => ({ id: zone, label: zone.replaceAll('_', ' ') }))

/** Fields of a site, for its start and for later changes. */
export function SiteFields({ bind }: { bind: Bindings<SiteValues> }) {
  const t = useText()
  const { height } = measuresOf(bind.choice('units').value === 'us' ? 'us' : 'metric')
  return (
    <>
      <Fields>
        <TextField label={t('site.name')} width="28ch" {...bind.text('name')} />
        <TextField label={t('site.place')} width="36ch" {...bind.text('place')} />
      </Fields>
      <Fields>
        <Select label={t('site.timeZone')} placeholder={t('choose')} width="32ch" options={ZONES} {...bind.choice('timeZone')} />
        <Select
          label={t('site.units')}
          placeholder={t('choose')}
          width="30ch"
          options={(['metric', 'us'] as const).map((id) => ({ id, label: t(`units.${id}`) }))}
          {...bind.choice('units')}
        />
      </Fields>
      <Fields>
        <PositionFields latitude={bind.number('latitude')} longitude={bind.number('longitude')} />
        <QuantityField label={t('site.elevation')} width="15ch" measure={height} hint={t('optional')} {...bind.number('elevationM')} />
      </Fields>
    </>
  )
}
