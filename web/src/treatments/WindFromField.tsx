import { COMPASS_POINTS, compassPoint } from '@bocado/core/compass'
import { Select } from '../design/controls.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/wind.js'

const NONE = 'none'
const STEP = 360 / COMPASS_POINTS.length

/** Where the wind came from, as one of sixteen points of the compass; stored in degrees from north. */
export function WindFromField(p: { value: number | null; onChange: (degrees: number | null) => void; error?: string | undefined }) {
  const t = useText()
  const f = useFormat()
  const nearest = p.value === null ? null : COMPASS_POINTS.indexOf(compassPoint(p.value))
  return (
    <Select
      label={t('wind.from')}
      placeholder={t('choose')}
      width="13ch"
      options={[...COMPASS_POINTS.map((_, i) => ({ id: String(i), label: f.compass(i * STEP) })), { id: NONE, label: t('wind.notNoted') }]}
      value={nearest === null ? null : String(nearest)}
      onChange={(id) => p.onChange(id === NONE ? null : Number(id) * STEP)}
      error={p.error}
    />
  )
}
