import { endpoints, type Band } from '@bocado/contract'
import { Check } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useBlocks, useRead, useStations } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import '../messages/en/windows.js'

const Steps = styled.section`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
  padding: 10px 20px;
  background: ${colour.petrolSoft};
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

const hiddenKey = (siteId: string): string => `bocado.first-steps ${siteId}`

/** What a new site needs until it says something, ticked off as it comes; gone once all is there, or when it is put away. */
export function FirstSteps({ band }: { band: Band }) {
  const t = useText()
  const site = useSite()
  const [isHidden, setHidden] = useState(() => localStorage.getItem(hiddenKey(site.id)) !== null)
  const { data: blocks } = useBlocks(site.id)
  const { data: stations } = useStations(site.id)
  const { data: normals } = useRead(endpoints.sites.normals, { params: { siteId: site.id }, input: {} })
  if (isHidden || !blocks || !stations || !normals) return null
  const steps = [
    { id: 'block', done: blocks.length > 0, to: 'site?do=block' },
    { id: 'weather', done: stations.some(({ firstDay }) => firstDay !== null) || normals.typed !== null, to: 'weather' },
    { id: 'watch', done: band.watches.length > 0, to: 'windows?do=watch' },
    { id: 'look', done: band.watches.some(({ rounds, seen }) => rounds.length > 0 || seen.length > 0), to: 'scouting' },
  ] as const
  if (steps.every(({ done }) => done)) return null
  const next = steps.find(({ done }) => !done)
  return (
    <Steps aria-label={t('firstSteps.title')}>
      <b>{t('firstSteps.title')}</b>
      <ol>
        {steps.map((step) => (
          <li key={step.id}>
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
      <TextButton
        onPress={() => {
          localStorage.setItem(hiddenKey(site.id), 'yes')
          setHidden(true)
        }}
      >
        {t('putAway')}
      </TextButton>
    </Steps>
  )
}
