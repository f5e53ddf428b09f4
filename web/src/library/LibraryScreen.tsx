import { endpoints, type LibraryBrief } from '@bocado/contract'
import { useDeferredValue, useMemo, useState } from 'react'
import { NavLink, Outlet, useLocation } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Choice, SearchField } from '../design/controls.js'
import { moveByArrows } from '../design/moveByArrows.js'
import { StageShape, onStageFill, stageFill } from '../design/StageShape.js'
import { Page, Small, Stack, Title } from '../design/text.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { findable, found } from '../design/finding.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import '../messages/en/field.js'
import '../messages/en/library.js'

const Frame = styled.div`
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 28px;
  align-items: start;
  @media (max-width: 960px) {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Side = styled.nav<{ $chosen: boolean }>`
  display: grid;
  gap: 10px;
  position: sticky;
  top: 12px;
  @media (max-width: 960px) {
    position: static;
    ${({ $chosen }) => ($chosen ? 'display: none;' : '')}
  }
`
const Lines = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: calc(100vh - 320px);
  min-height: 240px;
  overflow: auto;
  border-top: 1px solid ${colour.rule};
  a {
    display: grid;
    grid-template-columns: 34px minmax(0, 1fr);
    gap: 8px;
    align-items: center;
    padding: 5px 8px 5px 0;
    min-height: 40px;
    border-bottom: 1px solid ${colour.ruleSoft};
    color: ${colour.ink};
    text-decoration: none;
    &:hover {
      background: ${colour.sheet};
    }
    &.active {
      background: ${colour.petrolSoft};
      box-shadow: inset 4px 0 0 ${colour.petrol};
    }
    svg {
      margin-left: 6px;
    }
    small {
      display: block;
      font-size: ${size.small};
      color: ${colour.inkSoft};
    }
    @media ${PHONE} {
      min-height: 48px;
    }
  }
`
const Ways = styled.div`
  display: grid;
  gap: 4px;
  a {
    padding: 8px 10px;
    border: 1px solid ${colour.rule};
    border-radius: 4px;
    color: ${colour.ink};
    text-decoration: none;
    font-weight: 600;
    &.active {
      background: ${colour.ink};
      color: ${colour.white};
    }
  }
`

const KINDS = ['all', 'animal', 'disease', 'weed', 'bloom', 'method'] as const

/** Where an entry's page is. */
export const pathOf = ({ what, id }: Pick<LibraryBrief, 'what' | 'id'>): string =>
  what === 'method' ? `methods/${id}` : what === 'bloom' ? `bloom-plants/${id}` : `organisms/${id}`

/** Know it, be sure of it: everything in the library, found as one types, and the page of what was chosen. */
export function LibraryScreen() {
  const t = useText()
  const site = useSite()
  const { pathname } = useLocation()
  const chosen = !/\/library\/?$/.test(pathname)
  const [typed, setTyped] = useState('')
  const [kind, setKind] = useState<(typeof KINDS)[number]>('all')
  const { data } = useRead(endpoints.library.list, { params: { siteId: site.id }, input: {} })
  const lines = useMemo(() => findable([...(data ?? [])].sort((a, b) => a.name.localeCompare(b.name))), [data])
  const asked = useDeferredValue(typed)
  const shown = useMemo(() => found(lines, asked).filter(({ what }) => kind === 'all' || what === kind), [lines, asked, kind])
  const base = `/sites/${site.id}/library`
  // The list is one stop of the Tab key: the entry that is open, else the first.
  const stop = Math.max(
    0,
    shown.findIndex((brief) => pathname.startsWith(`${base}/${pathOf(brief)}`)),
  )
  if (!data) return <Waiting />
  return (
    <Page>
      <Frame>
        <Side $chosen={chosen} aria-label={t('library.title')}>
          <Title as="h1">{t('library.title')}</Title>
          <Ways>
            <NavLink to={`${base}/suspects`}>{t('library.suspects')}</NavLink>
            <NavLink to={`${base}/new`}>{t('library.add')}</NavLink>
            <NavLink to={`${base}/words`}>{t('library.words')}</NavLink>
          </Ways>
          <SearchField label={t('library.search')} value={typed} onChange={setTyped} />
          <Choice
            label={t('library.kinds')}
            options={KINDS.map((id) => ({ id, label: t(`library.kind.${id}`) }))}
            value={kind}
            onChange={setKind}
          />
          {data && shown.length === 0 ? <p>{t('library.nothing', { typed: asked })}</p> : null}
          <Lines data-testid="library-list" onKeyDown={(event) => moveByArrows(event)}>
            {shown.map((brief, i) => (
              <li key={`${brief.what} ${brief.id}`}>
                <NavLink to={`${base}/${pathOf(brief)}`} tabIndex={i === stop ? 0 : -1}>
                  {brief.silhouette ? (
                    <svg width="28" height="20" viewBox="-16 -11 32 22" aria-hidden>
                      <rect x="-16" y="-11" width="32" height="22" rx="3" fill={stageFill(brief.silhouette)} />
                      <StageShape shape={brief.silhouette} fill={onStageFill(brief.silhouette)} />
                    </svg>
                  ) : (
                    <span />
                  )}
                  <span>
                    {brief.name}
                    <small>
                      {t('library.beside', {
                        beside: brief.what === 'method' ? t(`methodKind.${brief.beside}` as Parameters<typeof t>[0]) : brief.beside,
                        watched: brief.watches.length,
                        own: brief.own ? 'yes' : 'no',
                      })}
                    </small>
                  </span>
                </NavLink>
              </li>
            ))}
          </Lines>
          <Small>{t('library.count', { count: shown.length })}</Small>
        </Side>
        <Stack>
          <Outlet />
        </Stack>
      </Frame>
    </Page>
  )
}

/** What stands beside the list before anything is chosen. */
export function LibraryStart() {
  const t = useText()
  usePageTitle(t('nav.library'))
  return (
    <Stack>
      <p>{t('library.start')}</p>
      <p>{t('library.start.caution')}</p>
    </Stack>
  )
}
