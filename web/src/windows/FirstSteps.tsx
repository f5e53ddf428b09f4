import { endpoints, type Band } from '@bocado/contract'
import { Check } from 'lucide-react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBlocks, useRead, useStations } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { colour, PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/windows.js'

const Steps = styled.section`
  display: flex;
  gap: 6px 18px;
  align-items: center;
  padding: 4px 20px;
  min-height: 45px;
  background: ${colour.petrolSoft};
  @media ${PHONE} {
    padding: 0 14px;
    justify-content: space-between;
    li:not(.next) {
      display: none;
    }
  }
  ol {
    display: contents;
    list-style: none;
  }
  li {
    display: inline-flex;
    gap: 5px;
    align-items: center;
  }
`

/** What a new site needs until it says something, ticked off as it comes; gone once all is there, or when it is put away. */
export function FirstSteps({ band, onHide }: { band: Band; onHide: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: blocks } = useBlocks(site.id)
  const { data: stations } = useStations(site.id)
  const { data: normals } = useRead(endpoints.sites.normals, { params: { siteId: site.id }, input: {} })
  if (!blocks || !stations || !normals) return null
  const steps = [
    { id: 'block', done: blocks.length > 0, to: 'site?do=block' },
    { id: 'weather', done: stations.some(({ firstDay }) => firstDay !== null) || normals.typed !== null, to: 'weather' },
    { id: 'watch', done: band.watches.length > 0, to: 'windows?do=watch' },
    { id: 'look', done: band.watches.some(({ rounds, seen }) => rounds.length > 0 || seen.length > 0), to: 'scouting' },
  ] as const
  const next = steps.find(({ done }) => !done)
  return (
    <Steps aria-label={t('firstSteps.title')}>
      <b>{t('firstSteps.title')}</b>
      <ol>
        {steps.map((step) => (
          <li key={step.id} className={step === next ? 'next' : ''}>
            {step.done ? (
              <>
                <Check size={16} aria-label={t('firstSteps.done')} /> {t(`firstSteps.${step.id}`)}
              </>
            ) : (
              <Link to={`/sites/${site.id}/${step.to}`} style={step === next ? { fontWeight: 650 } : {}}>
                {t(`firstSteps.${step.id}`)}
              </Link>
            )}
          </li>
        ))}
      </ol>
      <TextButton onPress={onHide}>{t('putAway')}</TextButton>
    </Steps>
  )
}
