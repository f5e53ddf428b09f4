import { endpoints } from '@bocado/contract'
import type { ReactNode } from 'react'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Dot = styled.span`
  position: absolute;
  width: 8px;
  height: 8px;
  margin: -1px 0 0 -1px;
  border-radius: 50%;
  background: ${colour.pollen};
`

/** The mark of what was told and not yet seen, with the words that go with it. */
export function useNews(): { dot: ReactNode; described: { 'aria-description'?: string } } {
  const t = useText()
  const site = useSite()
  const { data = [] } = useRead(endpoints.alerts.list, { params: { siteId: site.id }, input: {} })
  const count = data.filter(({ seen }) => !seen).length
  if (count === 0) return { dot: null, described: {} }
  return { dot: <Dot aria-hidden />, described: { 'aria-description': t('nav.news', { count }) } }
}
