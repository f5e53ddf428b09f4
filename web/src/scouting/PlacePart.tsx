import type { CountedPlace } from '@bocado/contract'
import { memo } from 'react'
import styled from 'styled-components'
import { TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { Line, Quiet } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { placeAt, togglePlace } from './places.js'

const Spread = styled(Line)`
  justify-content: space-between;
`
const LIES = ['unsaid', 'edge', 'inside'] as const
type Lies = (typeof LIES)[number]
const EDGE_OF: Readonly<Record<Lies, boolean | null>> = { unsaid: null, edge: true, inside: false }

/** At which place the sample unit in hand stands, how many were looked at there, and whether that lies at the edge. */
export const PlacePart = memo(function PlacePart(p: {
  places: readonly CountedPlace[]
  at: number
  units: number
  /** The sample unit's name, one and many. */
  one: string
  many: string
  onChange: (places: CountedPlace[]) => void
}) {
  const t = useText()
  const here = placeAt(p.places, p.at)
  if (!here) return null
  const { place, number } = here
  const ends = p.places[number]?.from ?? p.units
  const count = ends - place.from
  const lies = LIES.find((id) => EDGE_OF[id] === place.edge) ?? 'unsaid'
  return (
    <Spread role="group" aria-label={t('countPlace.title', { number })}>
      <span>
        <b>{t('countPlace.title', { number })}</b> <Quiet>{t('countPlace.here', { count, units: count === 1 ? p.one : p.many })}</Quiet>{' '}
        {p.at > 0 ? (
          <TextButton onPress={() => p.onChange(togglePlace(p.places, p.at))}>
            {place.from === p.at ? t('countPlace.same', { number: number - 1 }) : t('countPlace.another')}
          </TextButton>
        ) : null}
      </span>
      <Choice
        label={t('countPlace.lies')}
        options={LIES.map((id) => ({ id, label: t(`countPlace.lies.${id}`) }))}
        value={lies}
        onChange={(id) => p.onChange(p.places.map((one) => (one === place ? { ...one, edge: EDGE_OF[id] } : one)))}
      />
    </Spread>
  )
})
