import { Slider, SliderThumb, SliderTrack } from 'react-aria-components'
import styled from 'styled-components'
import { Small, Stack } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useText } from '../messages/useText.js'

/** More passes a season nobody makes. */
const MOST = 4

const Years = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`
const Year = styled(Slider)`
  display: grid;
  gap: 6px;
  justify-items: center;
  width: 52px;
`
const Track = styled(SliderTrack)`
  height: 96px;
  width: 44px;
  border-radius: 4px;
  background: ${colour.ruleSoft};
`
const Thumb = styled(SliderThumb)`
  left: 22px;
  width: 40px;
  height: 28px;
  border-radius: 4px;
  background: ${colour.petrol};
  color: ${colour.white};
  font-family: ${font.figures};
  display: grid;
  place-items: center;
  cursor: grab;
  &[data-focus-visible] {
    outline: 3px solid ${colour.ink};
    outline-offset: 2px;
  }
`

/** The passes of each of the next years, dragged or moved by the keys; what stands last goes on. */
export function PassesByYear(p: { from: number; passes: readonly number[]; onChange: (passes: number[]) => void }) {
  const t = useText()
  const last = p.passes.length - 1
  return (
    <Stack $gap={6} role="group" aria-label={t('ahead.own')} data-testid="passes-by-year">
      <Small>
        {t('ahead.own')}. {t('ahead.ownHow')}
      </Small>
      <Years>
        {p.passes.map((passes, i) => {
          const name = i === last ? t('ahead.ownFrom', { year: String(p.from + i) }) : String(p.from + i)
          return (
            <Year
              key={p.from + i}
              aria-label={name}
              orientation="vertical"
              minValue={0}
              maxValue={MOST}
              value={passes}
              onChange={(value) => p.onChange(p.passes.map((one, j) => (j === i ? Number(value) : one)))}
            >
              <Track>
                <Thumb>{passes}</Thumb>
              </Track>
              <Small as="span" aria-hidden>
                {name}
              </Small>
            </Year>
          )
        })}
      </Years>
    </Stack>
  )
}
