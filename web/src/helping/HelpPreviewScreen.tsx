import { endpoints } from '@bocado/contract'
import { useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { HelpWork } from './HelpScreen.js'
import '../messages/en/helping.js'

const Band = styled.p`
  margin: 0;
  padding: 10px 20px;
  background: ${colour.petrolSoft};
`

/** What volunteers would see today in the blocks that are named; nothing is recorded from here. */
export function HelpPreviewScreen() {
  const t = useText()
  const site = useSite()
  const [search] = useSearchParams()
  const { data } = useRead(endpoints.helping.day, { params: { siteId: site.id }, input: { blocks: search.get('blocks') ?? '' } })
  usePageTitle(t('helping.preview'))
  if (!data) return <Waiting />
  return (
    <>
      <Band role="note">{t('helping.previewSays')}</Band>
      <HelpWork day={data} isPreview />
    </>
  )
}
