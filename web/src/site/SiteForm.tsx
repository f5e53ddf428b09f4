import { siteKinds, type SiteKind } from '@bocado/contract'
import { useState } from 'react'
import type { Bindings } from '../api/bindings.js'
import { TextButton } from '../design/buttons.js'
import { Choice, Select, TextField } from '../design/controls.js'
import { NumberField, QuantityField } from '../design/NumberField.js'
import { PositionFields } from '../design/PositionFields.js'
import { Fields, Line, Small } from '../design/text.js'
import { measuresOf } from '../design/units.js'
import { useText } from '../messages/useText.js'
import { partLater } from '../shell/partLater.js'

/** What a site is known by, as typed. */
export type SiteValues = {
  name: string
  kind: SiteKind
  place: string
  timeZone: string
  units: 'metric' | 'us'
  latitude: number | null
  longitude: number | null
  elevationM: number | null
  auditYears: number | null
}

/** By the city, so that it is found by typing its name. */
const zoneLabel = (zone: string): string => {
  const [city = zone, ...within] = zone.replaceAll('_', ' ').split('/').toReversed()
  return [city, ...within].join(', ')
}
const ZONES = Intl.supportedValuesOf('timeZone')
  .map((zone) => ({ id: zone, label: zoneLabel(zone) }))
  .sort((a, b) => a.label.localeCompare(b.label))

/** A zone as this browser calls it. */
const knownZone = (name: string): string => new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone

/** Units as people of a region have them. */
export const unitsOfLocale = (locale: string): SiteValues['units'] =>
  ['US', 'LR', 'MM'].includes(new Intl.Locale(locale).maximize().region ?? '') && /-/.test(locale) ? 'us' : 'metric'

const PlaceMap = partLater(async () => (await import('./PlaceMap.js')).PlaceMap)

/**
 * Fields of a site, for its start and for later changes.
 *
 * @param isNew what this device knows already (clock, units) is out of sight until it is asked for
 */
export function SiteFields({ bind, isNew = false }: { bind: Bindings<SiteValues>; isNew?: boolean }) {
  const t = useText()
  const [mapped, setMapped] = useState(false)
  const [asked, setAsked] = useState(!isNew)
  const isRefused = [bind.number('latitude'), bind.number('longitude'), bind.number('elevationM'), bind.number('auditYears')].some(
    ({ error }) => error !== undefined,
  )
  const isWhole = asked || mapped || isRefused
  const kind = bind.choice('kind')
  const [latitude, longitude] = [bind.number('latitude'), bind.number('longitude')]
  const zone = bind.choice('timeZone')
  /** The zone follows the place; whoever knows better chooses it afterwards. */
  const follow = (place: { latitude: number | null; longitude: number | null }): void => {
    const { latitude: north, longitude: east } = place
    if (north === null || east === null || !Number.isFinite(north) || !Number.isFinite(east)) return
    void import('tz-lookup').then(({ default: zoneOf }) => zone.onChange(knownZone(zoneOf(north, east))))
  }
  const put = (place: { latitude: number; longitude: number }): void => {
    latitude.onChange(place.latitude)
    longitude.onChange(place.longitude)
    follow(place)
  }
  const { height } = measuresOf(bind.choice('units').value === 'us' ? 'us' : 'metric')
  return (
    <>
      <div>
        <Small>{t('site.kind')}</Small>
        <Choice
          label={t('site.kind')}
          options={siteKinds.map((id) => ({ id, label: t(`site.kind.${id}`) }))}
          {...kind}
          value={kind.value as SiteKind}
        />
      </div>
      <Fields>
        <TextField label={t('site.name')} width="28ch" {...bind.text('name')} />
        <TextField label={t('site.place')} width="36ch" {...bind.text('place')} />
      </Fields>
      {isWhole ? (
        <>
          <Fields>
            <Select label={t('site.timeZone')} placeholder={t('choose')} width="32ch" options={ZONES} {...zone} />
            <Select
              label={t('site.units')}
              placeholder={t('choose')}
              width="30ch"
              options={(['metric', 'us'] as const).map((id) => ({ id, label: t(`units.${id}`) }))}
              {...bind.choice('units')}
            />
          </Fields>
          <Fields>
            <PositionFields
              latitude={{
                ...latitude,
                onChange: (value) => {
                  latitude.onChange(value)
                  follow({ latitude: value, longitude: longitude.value })
                },
              }}
              longitude={{
                ...longitude,
                onChange: (value) => {
                  longitude.onChange(value)
                  follow({ latitude: latitude.value, longitude: value })
                },
              }}
              onBoth={put}
            />
            <QuantityField label={t('site.elevation')} width="15ch" measure={height} hint={t('optional')} {...bind.number('elevationM')} />
            {isNew ? null : (
              <NumberField
                label={t('site.auditYears')}
                width="22ch"
                digits={0}
                unit={t('site.years')}
                hint={t('site.auditHint')}
                {...bind.number('auditYears')}
              />
            )}
          </Fields>
        </>
      ) : null}
      {mapped ? (
        <PlaceMap
          place={
            latitude.value !== null && longitude.value !== null && Number.isFinite(latitude.value) && Number.isFinite(longitude.value)
              ? { latitude: latitude.value, longitude: longitude.value }
              : null
          }
          onPlace={put}
        />
      ) : (
        <Line $gap={16}>
          <TextButton onPress={() => setMapped(true)}>{t('map.show')}</TextButton>
          {isWhole ? null : <TextButton onPress={() => setAsked(true)}>{t('site.byHand')}</TextButton>}
        </Line>
      )}
    </>
  )
}
