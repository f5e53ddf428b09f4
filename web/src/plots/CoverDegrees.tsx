import styled from 'styled-components'
import { colour, size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** Covers that are drawn, in %: the limits of the classes. */
const SHOWN = [1, 5, 25, 50, 75]
const SIDE = 20
/** Powers of 6 go through 1 to 400 once before they come back to 1 (mod 401), without a pattern that the eye follows. */
const [ROOT, PRIME] = [6, 401]
const places: number[] = []
for (let at = 1; places.length < SIDE * SIDE; at = (at * ROOT) % PRIME) places.push(at - 1)

const Degrees = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  font-size: ${size.small};
  li {
    display: grid;
    gap: 4px;
    justify-items: center;
  }
`

/** What 1, 5, 25, 50 and 75 % of a square look like, seen from above. */
export function CoverDegrees() {
  const t = useText()
  const f = useFormat()
  return (
    <Degrees aria-label={t('plots.degrees')}>
      {SHOWN.map((percent) => (
        <li key={percent}>
          <svg width="62" height="62" viewBox={`0 0 ${SIDE} ${SIDE}`} aria-hidden="true">
            <rect width={SIDE} height={SIDE} fill={colour.white} stroke={colour.rule} strokeWidth="0.4" />
            {places.slice(0, (percent / 100) * SIDE * SIDE).map((at) => (
              <rect key={at} x={at % SIDE} y={Math.floor(at / SIDE)} width="1" height="1" fill={colour.petrol} />
            ))}
          </svg>
          {f.percent(percent / 100)}
        </li>
      ))}
    </Degrees>
  )
}
