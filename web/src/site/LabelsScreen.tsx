import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBlocks, usePlaces } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Line, Page, Quiet, Small, Stack, Title } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { withinOf } from './within.js'
import '../messages/en/site.js'

/** Cut along the dashes, each fits on a stake. */
const Sheet = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  li {
    border: 1px dashed ${colour.rule};
    padding: 14px 16px;
    min-height: 96px;
    break-inside: avoid;
  }
  b {
    display: block;
    font-family: ${font.heading};
    font-size: 24px;
    line-height: 1.15;
  }
`

interface Label {
  id: string
  name: string
  /** What it is part of, and what grows there. */
  of: string
  plants: number | null
}

/** Labels of a block and its parts, to print and cut. */
export function LabelsScreen() {
  const t = useText()
  usePageTitle(t('labels.title'))
  const site = useSite()
  const [search] = useSearchParams()
  const { data: blocks } = useBlocks(site.id)
  const { data: places } = usePlaces(site.id)
  if (!blocks || !places) return <Waiting />
  const asked = search.get('block')
  const shown = blocks.filter(({ id }) => asked === null || id === asked)
  const labels = shown.flatMap((block): Label[] => {
    const of = [block.name, block.grows].filter(Boolean).join(' · ')
    const parts = withinOf(places, block.id).map(({ id, name, plants }) => ({ id, name, of, plants }))
    return parts.length > 0 ? parts : [{ id: block.id, name: block.name, of: block.grows, plants: null }]
  })
  return (
    <Page>
      <Stack>
        <Line $gap={16} className="off-paper">
          <Title>{t('labels.count', { count: labels.length })}</Title>
          <Button onPress={() => window.print()}>{t('labels.print')}</Button>
          <Link to={`/sites/${site.id}/site`}>{t('labels.back')}</Link>
        </Line>
        <Sheet>
          {labels.map(({ id, name, of, plants }) => (
            <li key={id}>
              <b>{name}</b>
              {of}
              <Small>
                {plants === null ? '' : t('parts.plants', { count: plants })} <Quiet>{site.name}</Quiet>
              </Small>
            </li>
          ))}
        </Sheet>
      </Stack>
    </Page>
  )
}
