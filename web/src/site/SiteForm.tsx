import { Select, TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Fields } from '../design/text.js'
import { useText } from '../messages/useText.js'

/** What a site is known by, as typed. */
export interface SiteValues {
  name: string
  place: string
  timeZone: string
  units: 'metric' | 'us'
  latitude: number | null
  longitude: number | null
  elevationM: number | null
}

const ZONES = Intl.supportedValuesOf('timeZone').map((zone) => ({ id: zone, label: zone.replaceAll('_', ' ') }))

interface Props {
  values: SiteValues
  set: (changes: Partial<SiteValues>) => void
  errors: Readonly<Record<string, string>>
}

/** Fields of a site, for its start and for later changes. */
export function SiteFields({ values, set, errors }: Props) {
  const t = useText()
  return (
    <>
      <Fields>
        <TextField label={t('site.name')} width="28ch" value={values.name} onChange={(name) => set({ name })} error={errors['name']} />
        <TextField label={t('site.place')} width="36ch" value={values.place} onChange={(place) => set({ place })} error={errors['place']} />
      </Fields>
      <Fields>
        <Select
          label={t('site.timeZone')}
          placeholder={t('choose')}
          width="32ch"
          options={ZONES}
          value={values.timeZone}
          onChange={(timeZone) => set({ timeZone })}
          error={errors['timeZone']}
        />
        <Select
          label={t('site.units')}
          placeholder={t('choose')}
          width="30ch"
          options={[
            { id: 'metric', label: t('units.metric') },
            { id: 'us', label: t('units.us') },
          ]}
          value={values.units}
          onChange={(units) => set({ units: units as SiteValues['units'] })}
          error={errors['units']}
        />
      </Fields>
      <Fields>
        <NumberField
          label={t('site.latitude')}
          width="15ch"
          digits={4}
          value={values.latitude}
          onChange={(latitude) => set({ latitude })}
          error={errors['latitude']}
          hint={t('site.latitudeHint')}
        />
        <NumberField
          label={t('site.longitude')}
          width="15ch"
          digits={4}
          value={values.longitude}
          onChange={(longitude) => set({ longitude })}
          error={errors['longitude']}
          hint={t('site.longitudeHint')}
        />
        <NumberField
          label={t('site.elevation')}
          width="15ch"
          digits={0}
          unit="m"
          value={values.elevationM}
          onChange={(elevationM) => set({ elevationM })}
          error={errors['elevationM']}
          hint={t('optional')}
        />
      </Fields>
    </>
  )
}
