import { endpoints } from '@bocado/contract'
import { Link, useParams } from 'react-router'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Hazards } from '../design/Hazards.js'
import { Caution, Heading, Line, Quiet, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import '../messages/en/field.js'
import '../messages/en/library.js'

/** A way to act: its steps in their order and their time, how one sees that it was done well, what it brings about. */
export function MethodPage() {
  const { methodId = '' } = useParams()
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: methods } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  const method = methods?.find(({ id }) => id === methodId)
  usePageTitle(method?.name)
  if (!methods) return <Waiting />
  if (!method) return <p>{t('way.gone')}</p>
  return (
    <Stack $gap={16}>
      <div>
        <Title data-at="entry" tabIndex={-1} as="h2">
          {method.name}
        </Title>
        <p>
          {t(`methodKind.${method.kind}`)} <Quiet>{t(`evidence.${method.evidence}`)}</Quiet>
        </p>
      </div>
      <p>{method.what}</p>
      <Line $gap={16}>
        <Link to={`/sites/${site.id}/library/new-method?from=${methodId}`}>{t(method.own ? 'organism.edit' : 'organism.copy')}</Link>
        <a href={`/api/v1/sites/${site.id}/library/methods/${methodId}/file`} download>
          {t('organism.export')}
        </a>
      </Line>
      <Heading>{t('way.steps')}</Heading>
      <ol style={{ margin: 0, display: 'grid', gap: 6 }}>
        {method.steps.map((step) => (
          <li key={step.do}>
            {step.do} {step.within ? <b>{t('way.within', { within: step.within })}</b> : null}
          </li>
        ))}
      </ol>
      <p>{t('way.materials', { list: method.materials.join(', ') })}</p>
      <p>{t('way.good', { text: method.goodJob })}</p>
      <p>{t('way.failed', { text: method.failedJob })}</p>
      <p>{t('way.worksOn', { text: method.worksOn })}</p>
      <p>{t('way.provokes', { text: method.provokes })}</p>
      <p>
        {t('way.suits', {
          size: method.suits.size,
          density: method.suits.density,
          hours: f.number(method.hours.perUnit, 2),
          unit: method.hours.unit,
          confidence: t(`confidence.${method.hours.confidence}`),
          days: method.judgeAfterDays,
        })}
      </p>
      {method.strains.length > 0 ? (
        <>
          <p>{t('way.strains')}</p>
          <ul style={{ margin: 0 }}>
            {method.strains.map((strain) => (
              <li key={strain.id}>
                {strain.name}: {strain.what}
                {strain.soilFloor ? `, ${t('way.soilFloor', { floor: f.temperature(strain.soilFloor.value) })}` : ''}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {method.fairTest ? <p>{t('way.fairTest', { text: method.fairTest })}</p> : null}
      <Hazards hazards={method.hazards} />
      {method.product ? <Caution>{t('caution.label')}</Caution> : null}
    </Stack>
  )
}
