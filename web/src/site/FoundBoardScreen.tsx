import { endpoints } from '@bocado/contract'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Caution, Empty, Line, Page, Stack, Title } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import '../messages/en/finds.js'

const Board = styled.section`
  border: 1px dashed ${colour.rule};
  padding: 28px;
  max-width: 620px;
  display: grid;
  gap: 16px;
  break-inside: avoid;
  font-size: 18px;
  h2 {
    margin: 0;
    font: 650 34px/1.15 ${font.heading};
  }
  code {
    font: 600 30px ${font.figures};
    letter-spacing: 0.12em;
  }
`

/** A board for the gate, to print: what is asked of whoever passes, a code to scan, and the same to type. */
export function FoundBoardScreen() {
  const t = useText()
  const site = useSite()
  const [search] = useSearchParams()
  const { data } = useRead(endpoints.finds.links, { params: { siteId: site.id }, input: {} })
  const link = data?.find(({ id }) => id === search.get('link'))
  usePageTitle(link?.name ?? t('findLinks.title'))
  if (!data) return <Waiting />
  const address = `${link?.link ? new URL(link.link).origin : location.origin}/found`
  return (
    <Page>
      <Stack>
        <Line $gap={16} className="off-paper">
          <Title>{link?.name ?? t('findLinks.title')}</Title>
          {link?.picture ? <Button onPress={() => window.print()}>{t('findLinks.print')}</Button> : null}
          <Link to={`/sites/${site.id}/site`}>{t('findLinks.back')}</Link>
        </Line>
        {link ? (
          <>
            {link.picture === null ? <Caution className="off-paper">{t('findLinks.boardHere')}</Caution> : null}
            <Board>
              <h2>{t('findLinks.board')}</h2>
              <p>{t('findLinks.boardText')}</p>
              {link.picture === null ? null : (
                <img
                  src={`data:image/svg+xml;utf8,${encodeURIComponent(link.picture)}`}
                  alt={t('findLinks.scan')}
                  width={240}
                  height={240}
                />
              )}
              <p>{t('findLinks.boardType', { address })}</p>
              <code>{link.code.match(/.{4}/g)?.join(' ')}</code>
              <b>{t('findLinks.boardCare')}</b>
              <span>{site.name}</span>
            </Board>
          </>
        ) : (
          <Empty>
            <p>{t('findLinks.gone')}</p>
          </Empty>
        )}
      </Stack>
    </Page>
  )
}
