import { endpoints, type EventSkill } from '@bocado/contract'
import { Link } from 'react-router'
import { useRead } from '../api/hooks.js'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { Bullets, Line, Page, PlainTable, Quiet, Small, Stack, Title } from '../design/text.js'
import { PHONE } from '../design/theme.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { nearest, SKILLS } from './nearest.js'
import '../messages/en/known.js'

/** On a phone each event stands by itself, each figure under the name of what told it. */
const SkillTable = styled(PlainTable)`
  @media ${PHONE} {
    thead {
      display: none;
    }
    tr,
    th,
    td {
      display: block;
    }
    td:empty {
      display: none;
    }
    td::before {
      content: attr(data-told-by);
      font-size: 13px;
    }
  }
`

/** Forecasts held against what was seen: where the model is wrong, which way, and what would have told it better. */
export function SkillScreen() {
  const t = useText()
  const site = useSite()
  usePageTitle(t('skill.title'))
  const { data } = useRead(endpoints.outcomes.skill, { params: { siteId: site.id }, input: {} })
  if (!data) return <Waiting />
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <div>
          <Title>{t('skill.title')}</Title>
          <Small>{t('skill.says')}</Small>
        </div>
        <Link className="off-paper" to={`/sites/${site.id}/outcomes`}>
          {t('known.back')}
        </Link>
      </Line>
      {data.length === 0 ? (
        <p>{t('skill.none')}</p>
      ) : (
        <SkillTable>
          <thead>
            <tr>
              <th scope="col">{t('skill.what')}</th>
              {SKILLS.map((by) => (
                <th key={by} scope="col">
                  {t(`skill.${by}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.map((one) => (
              <OneEvent key={`${one.organismId} ${one.blockId} ${one.event}`} one={one} />
            ))}
          </tbody>
        </SkillTable>
      )}
    </Page>
  )
}

function OneEvent({ one }: { one: EventSkill }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const best = nearest(one)
  const isBetter = one.byOwn !== null && one.byLibrary !== null && one.byOwn.error < one.byLibrary.error
  return (
    <tr>
      <th scope="row">
        <Stack $gap={2}>
          <span>
            {t('skill.event', { name: one.organismName, event: one.name })} <Quiet>{one.blockName}</Quiet>
          </span>
          <Small>{t(`skill.seen.${one.seen}`, { dates: one.seasons.map(({ day }) => f.withYear(day)).join('; ') })}</Small>
          {one.seasons.length < 2 ? <Small>{t('skill.oneSeason')}</Small> : null}
          {one.ownAccepted ? <Small>{t('skill.taken')}</Small> : null}
          {isBetter && !one.ownAccepted && one.watchId !== null ? (
            <Link to={`/sites/${site.id}/windows?watch=${one.watchId}`}>{t('skill.take')}</Link>
          ) : null}
          <Unfold title={t('skill.issued')}>
            <Issued issued={one.issued} t={t} f={f} />
          </Unfold>
        </Stack>
      </th>
      {SKILLS.map((by) => (
        <td key={by} data-told-by={t(`skill.${by}`)}>
          <Told told={told(one, by)} isBest={best === by} name={by === 'bloom' ? (one.byBloom?.name ?? null) : null} />
        </td>
      ))}
    </tr>
  )
}

type Skill = NonNullable<EventSkill['byLibrary']>
const told = (one: EventSkill, by: (typeof SKILLS)[number]): Skill | null =>
  ({ library: one.byLibrary, own: one.byOwn, bloom: one.byBloom, calendar: one.byCalendar })[by]

function Told({ told: skill, isBest, name }: { told: Skill | null; isBest: boolean; name: string | null }) {
  const t = useText()
  const f = useFormat()
  if (!skill) return null
  const days = t('skill.days', { days: f.number(skill.error, 1) })
  return (
    <Stack $gap={2}>
      <span>
        {isBest ? <b>{days}</b> : days} {isBest ? <Quiet>{t('skill.best')}</Quiet> : null}
      </span>
      <Small>
        {[
          name,
          biasSays(skill.bias, t, f),
          skill.inside === null ? '' : t('skill.inside', { share: f.percent(skill.inside) }),
          t('skill.ofYears', { count: skill.forecasts }),
        ]
          .filter(Boolean)
          .join(', ')}
      </Small>
    </Stack>
  )
}

/** By less nobody would say that it is late or early. */
const LEAST_BIAS_DAYS = 0.5

const biasSays = (bias: number | null, t: Say, f: Format): string =>
  bias === null || Math.abs(bias) < LEAST_BIAS_DAYS ? '' : t(bias > 0 ? 'skill.late' : 'skill.early', { days: f.number(Math.abs(bias), 1) })

function Issued({ issued, t, f }: { issued: EventSkill['issued']; t: Say; f: Format }) {
  if (issued.length === 0) return <Small>{t('skill.issuedNone')}</Small>
  return (
    <Bullets>
      {issued.map(({ lead, error, bias, inside, forecasts }) => (
        <li key={lead}>
          {t('skill.issuedOf', {
            lead: t(`skill.lead.${lead}`),
            error: f.number(error, 1),
            bias: biasSays(bias, t, f) || 'none',
            inside: f.percent(inside ?? 0),
            count: forecasts,
          })}
        </li>
      ))}
    </Bullets>
  )
}
