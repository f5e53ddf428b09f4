import type { Downwind, Method, Product, Treatment } from '@bocado/contract'
import { checksOf, mostWind, type Check } from '../band/job.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Caution, Fields, Heading, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useRulesAt } from '../windows/useRulesAt.js'
import { useText } from '../messages/useText.js'
import { useNow } from '../shell/useNow.js'
import { WindFromField } from '../treatments/WindFromField.js'
import { carriedTo, keepFromWords } from '../treatments/windWords.js'
import type { KeptSheet } from './keptSheet.js'
import '../messages/en/job.js'

/** What is checked on the spot before one begins: people, bees, water, and the wind as it is measured there; then when it began and ended. */
export function Checks(p: {
  treatment: Treatment
  product: Product | null
  methods: readonly Method[]
  /** What its drops must not be carried to. */
  downwind: readonly Downwind[]
  sheet: KeptSheet
  onSheet: (changes: Partial<KeptSheet>) => void
}) {
  const t = useText()
  const f = useFormat()
  const now = useNow()
  const { product, sheet, onSheet } = p
  const rules = useRulesAt(p.treatment.placeId)
  const { wind } = f.measures
  const most = mostWind(rules, { product, methodId: p.treatment.methodId }, p.methods, p.treatment.plannedOn)
  const tick = (name: string, isDone: boolean): void =>
    onSheet({ ticked: isDone ? [...sheet.ticked, name] : sheet.ticked.filter((one) => one !== name) })
  const checks = checksOf(product === null)
  const says = (check: Check): string => t(`job.check.${check}`, { gear: product?.protection ?? 'none' })
  const away = p.downwind.length === 0 ? null : t('wind.mustNot', { arcs: keepFromWords(p.downwind, t, f) })
  const carried = carriedTo(p.downwind, sheet.windFrom, t, f)
  const left = checks.filter((check) => !sheet.ticked.includes(check)).length
  return (
    <Stack>
      <Heading>{t('job.checks', { left })}</Heading>
      <ul className="on-paper" style={{ listStyle: 'none', margin: 0, padding: 0 }}>
        {checks.map((check) => (
          <li key={check}>{t('job.box', { is: sheet.ticked.includes(check) ? 'done' : 'open', says: says(check) })}</li>
        ))}
        {product ? (
          <li>
            {t('job.windOnPaper', {
              wind: sheet.windMs === null ? 'none' : f.wind(sheet.windMs),
              most: most === null ? 'none' : f.wind(most),
            })}{' '}
            {away}
          </li>
        ) : null}
      </ul>
      <Stack $gap={4} className="off-paper">
        {checks.map((check) => (
          <Checkbox key={check} label={says(check)} value={sheet.ticked.includes(check)} onChange={(isDone) => tick(check, isDone)} />
        ))}
      </Stack>
      {product ? (
        <>
          <Fields>
            <NumberField
              label={t('job.wind')}
              hint={most === null ? t('job.windHint') : t('job.windMost', { most: f.wind(most) })}
              width="22ch"
              unit={wind.unit}
              digits={1}
              value={sheet.windMs === null ? null : wind.shown(sheet.windMs)}
              onChange={(typed) => onSheet({ windMs: typed === null ? null : wind.stored(typed) })}
            />
            <WindFromField value={sheet.windFrom} onChange={(windFrom) => onSheet({ windFrom })} />
          </Fields>
          {away === null ? null : <Small className="off-paper">{away}</Small>}
          {carried.length > 0 ? <Caution>{t('wind.carries', { names: carried.join('; ') })}</Caution> : null}
          {sheet.windMs !== null && most !== null && sheet.windMs > most ? (
            <Caution>{t('job.tooWindy', { most: f.wind(most) })}</Caution>
          ) : null}
        </>
      ) : null}
      <div className="off-paper">
        <Line>
          {sheet.begunAt === null ? (
            <TextButton onPress={() => onSheet({ begunAt: new Date(now).toISOString() })}>{t('job.begin')}</TextButton>
          ) : (
            <Small>{t('job.begun', { at: f.clock(sheet.begunAt) })}</Small>
          )}
          {sheet.begunAt !== null && sheet.endedAt === null ? (
            <TextButton onPress={() => onSheet({ endedAt: new Date(now).toISOString() })}>{t('job.end')}</TextButton>
          ) : null}
          {sheet.endedAt === null ? null : <Small>{t('job.ended', { at: f.clock(sheet.endedAt) })}</Small>}
          {sheet.begunAt === null ? null : (
            <TextButton onPress={() => onSheet({ begunAt: null, endedAt: null })}>{t('job.again')}</TextButton>
          )}
        </Line>
      </div>
    </Stack>
  )
}
