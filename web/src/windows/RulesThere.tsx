import { endpoints, type WatchForecast } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import type { Means } from '../band/means.js'
import { closesDay, ruledMeans, rulesOn } from '../band/rules.js'
import { Caution, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ruleDays, ruleHours } from '../site/ruleWords.js'
import { AsleepSays } from '../site/AsleepSays.js'
import { useMethods } from './useShelfFor.js'
import { useRulesAt } from './useRulesAt.js'
import '../messages/en/label.js'
import '../messages/en/rules.js'

/** What rules of the place, the site's policy and the less usual lines of a label say of a day on which something is done. */
export function RulesThere({ forecast, means, date }: { forecast: WatchForecast; means: Means; date: string }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const rules = useRulesAt(forecast.watch.blockId)
  const { data: methods = [] } = useMethods()
  const ruled = ruledMeans(means, methods)
  return (
    <>
      {rulesOn(rules, ruled, date).map((rule) => {
        const whose = t(`house.owner.${rule.whose}`)
        const { name, amount } = rule
        // One plant may close several kinds of work.
        const id = `${rule.id} ${rule.act}`
        if (closesDay(rule, date))
          return (
            <Caution key={id} data-testid="rule-there">
              {t('house.closed', { name, whose, days: ruleDays(rule, date.slice(0, 4), t, f) ?? 'all' })}
            </Caution>
          )
        if (rule.kind === 'closed-hours') return <Small key={id}>{t('house.hours', { name, whose, hours: ruleHours(rule, t) })}</Small>
        if (rule.kind === 'kept-clear' && amount !== null)
          return <Small key={id}>{t('house.keep', { name, whose, away: f.height(amount) })}</Small>
        if (rule.kind === 'consent') return <Small key={id}>{t('house.consent', { name })}</Small>
        if (rule.kind !== 'notice' || amount === null) return null
        const by = f.nudge(date, -Math.ceil(amount))
        return by < site.today ? (
          <Caution key={id}>{t('house.noticeLate', { name, date: f.date(by) })}</Caution>
        ) : (
          <Small key={id}>{t('house.notice', { name, date: f.date(by) })}</Small>
        )
      })}
      {rules.some(({ companionId }) => companionId !== null) ? <AsleepSays blockId={forecast.watch.blockId} /> : null}
      <PolicyThere means={means} chemical={ruled.chemical} />
      {means.product ? <BurntThere forecast={forecast} burns={means.product.burns} /> : null}
    </>
  )
}

/** What the site's own way with chemicals says of it. */
function PolicyThere({ means, chemical }: { means: Means; chemical: boolean }) {
  const t = useText()
  const { chemicals, certificate } = useSite().policy
  const { product } = means
  if (!product) return null
  if (chemicals === 'organic' && product.organic !== true)
    return <Caution>{t(product.organic === false ? 'policy.organic.no' : 'policy.organic.unknown', { certificate })}</Caution>
  return chemicals === 'last' && chemical ? <Caution>{t('policy.last.said')}</Caution> : null
}

/** Varieties of the block that the label says are harmed. */
function BurntThere({ forecast, burns }: { forecast: WatchForecast; burns: readonly string[] }) {
  const t = useText()
  const site = useSite()
  const { data: plantings = [] } = useRead(
    endpoints.crops.list,
    { params: { siteId: site.id }, input: { season: forecast.watch.season } },
    burns.length > 0,
  )
  const there = plantings.filter(({ placeId }) => placeId === forecast.watch.blockId).map(({ variety }) => variety ?? '')
  return burns
    .filter((name) => there.some((variety) => variety.toLowerCase() === name.toLowerCase()))
    .map((variety) => <Caution key={variety}>{t('label.harms', { variety })}</Caution>)
}
