import type { Band } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { FirstStepsLater } from './panelsLater.js'

const StepsPlace = styled.div`
  min-height: 45px;
`

/** The first steps of a new site, until somebody puts them away. */
export function FirstStepsHere({ band }: { band: Band }) {
  const site = useSite()
  const key = `bocado.first-steps ${site.id}`
  const [hidden, setHidden] = useState(() => localStorage.getItem(key) !== null)
  // Until somebody has looked, or something was seen, the site is new.
  const isNew = !band.watches.some(({ rounds, seen }) => rounds.length > 0 || seen.length > 0)
  if (hidden || !isNew) return null
  return (
    <StepsPlace className="off-paper">
      <FirstStepsLater
        band={band}
        onHide={() => {
          localStorage.setItem(key, 'hidden')
          setHidden(true)
        }}
      />
    </StepsPlace>
  )
}
