import type { ReactNode } from 'react'
import styled from 'styled-components'
import { Page, Small, Title } from '../design/text.js'
import { font, PHONE } from '../design/theme.js'
import { Connection } from '../shell/Connection.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { WaitingOfPeople } from './WaitingOfPeople.js'

const Word = styled.p`
  font: 650 36px ${font.heading};
`
const Narrow = styled.div`
  max-width: 56ch;
  margin: 6vh auto 0;
  display: grid;
  gap: 14px;
  @media ${PHONE} {
    margin-top: 0;
  }
`

/** A page before any site: what it asks, in one column. */
export function Door({ title, text, children }: { title: string; text?: string; children: ReactNode }) {
  usePageTitle(title)
  return (
    <>
      <Connection />
      <Page>
        <Narrow>
          <Word>Bocado</Word>
          <Title>{title}</Title>
          {text === undefined ? null : <Small>{text}</Small>}
          <WaitingOfPeople />
          {children}
        </Narrow>
      </Page>
    </>
  )
}
