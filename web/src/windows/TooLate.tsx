import { endpoints, type Block, type Late, type Method, type Organism, type WatchForecast } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { lateHelpsBy, wholeOf, type LateHelp } from '../band/late.js'
import { keyOfMethod } from '../band/means.js'
import { TextButton } from '../design/buttons.js'
import { NumberField, readable } from '../design/NumberField.js'
import { Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { hoursHere } from '../band/hoursHere.js'
import { useMethods } from './useShelfFor.js'
import '../messages/en/late.js'
import '../messages/en/plan.js'

interface Props {
  forecast: WatchForecast
  organism: Organism
  block: Block | undefined
  /** A way by hand was taken up. */
  onPlan: (key: string) => void
}

/** What still helps where nothing reaches it any more: what can be saved, cleared away, sown instead, and done about its next year. */
export function TooLate({ forecast, organism, block, onPlan }: Props) {
  const t = useText()
  const site = useSite()
  const { data: methods } = useMethods()
  const params = { siteId: site.id, watchId: forecast.watch.id }
  const { data: known } = useRead(endpoints.treatments.late, { params, input: {} })
  if (!methods || !known) return null
  const helps = lateHelpsBy(organism.reach.map(({ method }) => method))
  const next = helps.find(({ help }) => help === 'break-its-year')?.methods ?? []
  const named = (ids: readonly string[]): Method[] => ids.flatMap((id) => methods.find((method) => method.id === id) ?? [])
  return (
    <Stack $gap={8} data-part="late" data-testid="too-late">
      <Heading as="h3">{t('late.title')}</Heading>
      <Rows>
        {helps
          .filter(({ help }) => help !== 'break-its-year')
          .map(({ help, methods: ids }) => (
            <li key={help}>
              <b>{t(`late.help.${help}`)}</b>
              {named(ids).map((method) => (
                <ByMethod key={method.id} method={method} block={block} onPlan={onPlan} />
              ))}
              {help === 'harvest-early' ? <Saved forecast={forecast} known={known} /> : null}
            </li>
          ))}
        {known.replace.length > 0 || known.frost ? <Instead known={known} /> : null}
        {next.length > 0 ? (
          <li>
            <b>{t('late.help.break-its-year' satisfies `late.help.${LateHelp}`)}</b>
            <Small>
              {t('late.next', {
                names: named(next)
                  .map(({ name }) => name)
                  .join(', '),
              })}
            </Small>
          </li>
        ) : null}
      </Rows>
    </Stack>
  )
}

/** One way by hand, with the hours that it takes here. */
function ByMethod({ method, block, onPlan }: { method: Method; block: Block | undefined; onPlan: Props['onPlan'] }) {
  const t = useText()
  const f = useFormat()
  const here = hoursHere(method.hours, block?.areaHa ?? null)
  const takes =
    here === undefined || block === undefined
      ? t('reaching.hours', { hours: f.number(method.hours.perUnit, 1), unit: method.hours.unit })
      : t('late.hours', { hours: f.number(here, here < 10 ? 1 : 0), place: block.name })
  return (
    <Line style={{ justifyContent: 'space-between' }}>
      <span>
        {method.name} <Small as="span">{takes}</Small>
      </span>
      {method.product ? null : (
        <TextButton aria-label={t('late.planOne', { name: method.name })} onPress={() => onPlan(keyOfMethod(method.id))}>
          {t('late.plan')}
        </TextButton>
      )}
    </Line>
  )
}

/** How many of what hangs there are whole, by the last count, and what they weigh. */
function Saved({ forecast, known }: { forecast: WatchForecast; known: Late }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [on, setOn] = useState<number | null>(null)
  const last = forecast.rounds.findLast(({ checkAreaId }) => checkAreaId === null)
  const count = readable(on)
  const whole = last && count !== null && count > 0 ? wholeOf(count, last) : undefined
  const weight = (n: number): string => f.weight(n * (known.ownWeightKg ?? 0))
  return (
    <Stack $gap={6}>
      <Small>{t('late.eat')}</Small>
      <NumberField label={t('late.on')} hint={t('late.onHint')} width="18ch" digits={0} value={on} onChange={setOn} error={undefined} />
      {last === undefined ? <Small>{t('late.noCount')}</Small> : null}
      {whole && last ? (
        <p role="status">
          {t('late.whole', {
            date: f.date(last.countedOn),
            low: f.number(whole.low),
            high: f.number(whole.high),
            count: count ?? 0,
            weight: known.ownWeightKg === null ? 'none' : t('span', { from: weight(whole.low), to: weight(whole.high) }),
          })}
        </p>
      ) : null}
      {known.ownWeightKg === null ? <Small>{t('late.noWeight')}</Small> : null}
      <Link to={`/sites/${site.id}/treatments?do=harvest`}>{t('late.record')}</Link>
    </Stack>
  )
}

/** What would still ripen there, against frost. */
function Instead({ known }: { known: Late }) {
  const t = useText()
  const f = useFormat()
  const { frost, replace } = known
  const names = replace.map(({ cropName, from, until, ripens }) =>
    t(`late.ripens.${ripens}`, { name: cropName, from: f.shortDate(from), until: f.shortDate(until) }),
  )
  return (
    <li>
      <b>{t('late.replace')}</b>
      <Small>
        {frost
          ? t('late.frost', { usual: f.shortDate(frost.usual), early: f.shortDate(frost.early), seasons: frost.seasons })
          : t('late.noFrost')}{' '}
        {names.length > 0 ? t('late.bySowing', { names: names.join('; ') }) : t('late.nothingRipens')}
      </Small>
    </li>
  )
}
