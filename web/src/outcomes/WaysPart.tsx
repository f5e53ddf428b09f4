import { endpoints, type Way } from '@bocado/contract'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Bullets, Heading, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { trialSays } from '../trials/trialWords.js'
import { shareWords } from './shareWords.js'
import '../messages/en/known.js'

/** So many blocks, each with its check, let it be said that something works. */
const BLOCKS_THAT_TELL = 3

/** What each way to act did at this site, all seasons together. */
export function WaysPart() {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.outcomes.ways, { params: { siteId: site.id }, input: {} })
  if (!data || data.length === 0) return null
  return (
    <Stack>
      <Heading>{t('known.ways')}</Heading>
      <Small>{t('known.waysHow')}</Small>
      <Rows>
        {data.map((way) => (
          <li key={`${way.productId ?? way.methodId ?? way.name} ${way.organismId}`}>
            <OneWay way={way} />
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

function OneWay({ way }: { way: Way }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { evidence } = way
  const missing = evidence ? BLOCKS_THAT_TELL - evidence.areas : 0
  return (
    <Stack $gap={4}>
      <b>{t('known.way', { name: way.name, organism: way.organismName })}</b>
      {way.trials.map((trial) => (
        <p key={trial.id}>
          <Link to={`/sites/${site.id}/outcomes/trials/${trial.id}`}>
            {t('known.trial', { place: trial.placeName, date: f.withYear(trial.after?.countedOn ?? trial.drawnOn) })}
          </Link>{' '}
          {trialSays(trial, site.today, t, f)}
        </p>
      ))}
      {way.deeds.length > 0 ? (
        <p>
          {waySays(way, t, f)} {missing > 0 ? t('known.moreAreas', { count: missing }) : null}
        </p>
      ) : null}
      {way.deeds.length === 0 ? null : (
        <Unfold title={t('known.deeds')}>
          <Bullets>
            {way.deeds.map((deed) => (
              <li key={deed.treatmentId}>
                {t('known.deed', { date: f.withYear(deed.treatedOn), block: deed.blockName })}: {deedSays(deed, t, f)}
                {deed.coverage === null ? null : `; ${t('known.deed.reached', { share: f.percent(deed.coverage) })}`}
              </li>
            ))}
          </Bullets>
        </Unfold>
      )}
    </Stack>
  )
}

/** What all deeds of a way say together, in one sentence. */
export function waySays({ evidence, deeds }: Pick<Way, 'evidence' | 'deeds'>, t: Say, f: Pick<Format, 'percent' | 'number'>): string {
  if (!evidence) return t('known.notJudged', { count: deeds.length })
  const { verdict, areas, effect } = evidence
  const words = (efficacy: number): string => shareWords(efficacy, t, f)
  // An interval reads from its nearer to its farther end: of what did harm that is from less harm to more.
  const isMore = verdict === 'worse' || verdict === 'higher-here'
  const [low, high] = isMore ? [effect.high, effect.low] : [effect.low, effect.high]
  return t(`known.${verdict}`, { areas, deeds: evidence.deeds, value: words(effect.value), low: words(low), high: words(high) })
}

function deedSays({ effect }: Way['deeds'][number], t: Say, f: Format): string {
  if (!effect) return t('known.deed.none')
  const words = (efficacy: number): string => shareWords(efficacy, t, f)
  return t('known.deed.effect', { value: words(effect.value), low: words(effect.low), high: words(effect.high) })
}
