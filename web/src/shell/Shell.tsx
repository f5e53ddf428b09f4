import type { Site } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { Suspense, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import { Button as AriaButton } from 'react-aria-components'
import { Link, NavigationType, NavLink, Outlet, useLocation, useNavigate, useNavigationType, useParams } from 'react-router'
import styled from 'styled-components'
import { useSites } from '../api/hooks.js'
import { useChanges } from '../api/changes.js'
import { useRole } from '../api/may.js'
import { noteVersions } from '../api/versions.js'
import { inSeason, inUnits, SeasonContext, SiteProvider, useSeasonChoice, useSite, useWorkplace } from '../api/workplace.js'
import { RangeProvider } from '../band/range.js'
import { TextButton } from '../design/buttons.js'
import { colour, font, PHONE, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import type { MoreProps } from './BarControls.js'
import { useNews } from '../alerts/useNews.js'
import { Connection } from './Connection.js'
import { DemoClock } from './DemoClock.js'
import type { JumpProps } from './JumpDialog.js'
import { useKeys } from './keys.js'
import { later } from './later.js'
import { Nothing, partLater } from './partLater.js'
import { ON_THE_PHONE, SCREENS, seasonName } from './screens.js'
import { useSections } from './sections.js'
import { NotFound } from './Stumble.js'
import { UndoProvider } from './Undo.js'
import { withToday } from './todayHere.js'
import { useTypedAhead } from './useTypedAhead.js'
import { Waiting } from './Waiting.js'

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 5px;
  min-height: 52px;
  padding: 6px 12px 6px 20px;
  background: ${colour.bar};
  color: ${colour.onBar};
  @media (max-width: 1279px) {
    flex-wrap: wrap;
  }
  @media ${PHONE} {
    flex-wrap: nowrap;
    min-height: 60px;
    padding: 6px 14px;
  }
`
/** Out of sight until the Tab key reaches it. */
const Skip = styled.a`
  position: absolute;
  left: 8px;
  top: -80px;
  z-index: 20;
  padding: 10px 16px;
  background: ${colour.white};
  border-radius: 4px;
  &:focus {
    top: 6px;
  }
`
const Screen = styled.div`
  outline: none;
`
const Word = styled(Link)`
  font-family: ${font.heading};
  font-weight: 650;
  font-size: 22px;
  color: ${colour.onBar};
  text-decoration: none;
`
const Nav = styled.nav`
  display: flex;
  gap: 0;
  a {
    padding: 6px 3px;
    border-radius: 4px;
    color: ${colour.onBarSoft};
    text-decoration: none;
    &:hover {
      color: ${colour.onBar};
    }
    &.active {
      background: ${colour.onBar};
      color: ${colour.bar};
      font-weight: 600;
    }
  }
  @media ${PHONE} {
    display: none;
  }
`
const Where = styled.div`
  margin-left: auto;
  text-align: right;
  line-height: 1.2;
  font-size: ${size.small};
  color: ${colour.onBarSoft};
  white-space: nowrap;
  b {
    display: inline-block;
    max-width: 22ch;
    overflow: hidden;
    text-overflow: ellipsis;
    vertical-align: bottom;
    color: ${colour.onBar};
    font-size: ${size.text};
  }
`
const Key = styled(AriaButton)`
  border: 1px solid ${colour.barRule};
  border-radius: 3px;
  background: none;
  color: ${colour.onBarSoft};
  min-width: 30px;
  min-height: 30px;
  cursor: pointer;
  @media ${PHONE} {
    display: none;
  }
`
const BottomBar = styled.nav`
  display: none;
  @media ${PHONE} {
    position: fixed;
    inset: auto 0 0 0;
    z-index: 5;
    display: grid;
    grid-template-columns: repeat(4, 1fr);
    background: ${colour.bar};
    a,
    button {
      display: grid;
      justify-items: center;
      align-content: center;
      gap: 2px;
      min-height: 60px;
      color: ${colour.onBarSoft};
      text-decoration: none;
      font-size: ${size.small};
      background: none;
      border: 0;
    }
    a.active {
      color: ${colour.bar};
      background: ${colour.onBar};
      font-weight: 600;
    }
  }
`
/** Where the strip will stand, so that nothing moves when it comes. */
const StripPlace = styled.div`
  height: 47px;
  background: ${colour.sheet};
  @media ${PHONE} {
    display: none;
  }
`

/** The strip is an aid: where its code does not come, its place stays empty and the screen works on. */
const SeasonStrip = partLater<{ whole: boolean }>(async () => (await import('../band/SeasonStrip.js')).SeasonStrip, {
  meanwhile: () => <StripPlace />,
  missing: () => <StripPlace />,
})

/** The name of the place, until one can choose another. */
function PlaceName() {
  const t = useText()
  const site = useSite()
  return (
    <span>
      <b>{site.name}</b>
      <br />
      {t('season', { season: seasonName(site.season.start) })}
    </span>
  )
}

const loadBar = () => import('./BarControls.js')
/** What opens from the bar comes after the bar itself; where its code does not come, the screens stand without it. */
const NONE = { meanwhile: Nothing, missing: Nothing }
const PersonChoice = partLater(async () => (await loadBar()).PersonChoice, NONE)
const PlaceChoice = partLater<{ sites: Site[] }>(async () => (await loadBar()).PlaceChoice, { meanwhile: PlaceName, missing: Nothing })
const HelpScreen = partLater(async () => (await import('../helping/HelpScreen.js')).HelpScreen)
const LookChoice = partLater(async () => (await loadBar()).LookChoice, NONE)
const PrintHead = partLater(async () => (await loadBar()).PrintHead, NONE)
const MoreScreens = partLater<MoreProps>(async () => (await loadBar()).MoreScreens, { meanwhile: () => <span />, missing: Nothing })

/** A dialog that does not come gives the keys back. */
function NotThere({ onClose }: Pick<JumpProps, 'onClose'>) {
  const close = useEffectEvent(onClose)
  useEffect(() => close(), [])
  return null
}

const loadJump = later(() => import('./JumpDialog.js'))
/** Fetched with the screens, while nobody waits; where it does not come, the screens are still reached by their links. */
const JumpDialog = partLater<JumpProps>(async () => (await loadJump()).JumpDialog, { meanwhile: Nothing, missing: NotThere })

const PastNote = styled.p`
  margin: 0;
  padding: 6px 20px;
  background: ${colour.pollenSoft};
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
`

/** Says so where a past season or an archived site is looked at, or where one may only look. */
function LookedAt() {
  const t = useText()
  const site = useSite()
  const { isPast, now, choose } = useSeasonChoice()
  const role = useRole()
  return (
    <>
      {isPast ? (
        <PastNote role="status">
          {t('season.past', { season: seasonName(site.season.start) })}
          <TextButton onPress={() => choose(now)}>{t('season.back', { season: seasonName(now) })}</TextButton>
        </PastNote>
      ) : null}
      {role === 'viewer' ? <PastNote role="status">{t('may.look')}</PastNote> : null}
      {site.archivedAt ? (
        <PastNote role="status">
          {t('site.archivedNote')} <Link to={`/sites/${site.id}/site`}>{t('site.toTakeUp')}</Link>
        </PastNote>
      ) : null}
    </>
  )
}

/** Screens whose pictures show the days that the strip chooses. */
const WITH_STRIP: readonly string[] = ['windows', 'weather']

/** Frame of every screen: top bar on a desk, bottom bar on a phone. What was done is offered to be undone from one site to the next. */
export function Shell() {
  return (
    <UndoProvider>
      <Sites />
    </UndoProvider>
  )
}

function Sites() {
  const { siteId } = useParams()
  const areTold = useChanges(siteId)
  const { data: read, dataUpdatedAt: readAt } = useSites(areTold)
  const now = useMinute()
  const sites = useMemo(() => read?.map((site) => withToday(site, readAt, now)), [read, readAt, now])
  const client = useQueryClient()
  const site = sites?.find(({ id }) => id === siteId)

  useEffect(() => {
    if (site) void noteVersions(client, site.id, site.versions)
  }, [site, client])

  useEffect(() => {
    if (site) localStorage.setItem('bocado.site', site.id)
  }, [site])

  if (!sites) {
    return (
      <>
        <Connection />
        <Waiting />
      </>
    )
  }
  if (!site) return <NotFound />
  return <SiteFrame key={site.id} site={site} sites={sites} />
}

const MINUTE_MS = 60_000
/** The time, minute by minute: a page that stays open in the field goes on to the next day. */
function useMinute(): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), MINUTE_MS)
    return () => clearInterval(clock)
  }, [])
  return now
}

const seasonKey = (siteId: string): string => `bocado.season ${siteId}`

/** The screens of a site, in the season that is looked at: the one now, or a past one for as long as this page is open. */
function SiteFrame({ site, sites }: { site: Site; sites: Site[] }) {
  const [chosen, setChosen] = useState(() => sessionStorage.getItem(seasonKey(site.id)))
  const { units } = useWorkplace()
  const viewed = useMemo(() => inUnits(inSeason(site, chosen), units), [site, chosen, units])
  const choice = useMemo(
    () => ({
      now: site.season.start,
      choose: (start: string) => {
        if (start === site.season.start) sessionStorage.removeItem(seasonKey(site.id))
        else sessionStorage.setItem(seasonKey(site.id), start)
        setChosen(start)
      },
    }),
    [site.id, site.season.start],
  )
  return (
    <SeasonContext value={choice}>
      <SiteProvider value={viewed}>
        <RangeProvider key={`${site.id} ${viewed.season.start}`}>
          <FrameOf site={viewed} sites={sites} />
        </RangeProvider>
      </SiteProvider>
    </SeasonContext>
  )
}

function FrameOf(p: { site: Site; sites: Site[] }) {
  return useRole() === 'volunteer' ? <HelpFrame /> : <Frame {...p} />
}

/** Whoever helps for a day has one screen, and goes nowhere from there but to what waits on the phone. */
function HelpFrame() {
  const t = useText()
  const { pathname } = useLocation()
  const site = useSite()
  return (
    <>
      <Bar>
        <Word to={`/sites/${site.id}`}>Bocado</Word>
        <Where>
          <b>{site.name}</b>
        </Where>
        <DemoClock />
        <PersonChoice />
      </Bar>
      <Connection />
      <Screen id="screen" tabIndex={-1} aria-label={t('nav.screens')}>
        {pathname.endsWith('/unsent') ? <Outlet /> : <HelpScreen />}
      </Screen>
    </>
  )
}

function Frame({ site, sites }: { site: Site; sites: Site[] }) {
  const t = useText()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const type = useNavigationType()
  const at = useRef(pathname)
  useEffect(() => {
    // A screen that is gone to begins at its top; back and forward stay where the browser had them, and so does what is chosen on a screen.
    if (type !== NavigationType.Pop && at.current !== pathname) window.scrollTo(0, 0)
    at.current = pathname
  }, [pathname, type])
  const [jump, setJump] = useState<'jump' | 'keys' | null>(null)
  useSections()
  const news = useNews()
  const ahead = useTypedAhead()
  const ask = (): void => {
    ahead.begin()
    setJump('jump')
  }
  const close = (): void => {
    ahead.take()
    setJump(null)
  }
  useKeys({ '/': ask, '?': () => setJump('keys') })
  const to = (path: string): string => `/sites/${site.id}/${path}`
  return (
    <>
      <Skip
        className="off-paper"
        href="#screen"
        onClick={(event) => {
          event.preventDefault()
          document.getElementById('screen')?.focus()
        }}
      >
        {t('nav.skip')}
      </Skip>
      <Bar>
        <Word to={to(site.kind === 'others' && sites.length > 1 ? 'overview' : 'today')}>Bocado</Word>
        <Nav aria-label={t('nav.screens')}>
          {SCREENS.map(({ path, word }) => (
            <NavLink key={path} to={to(path)} {...(path === 'today' ? news.described : {})}>
              {t(word)}
              {path === 'today' ? news.dot : null}
            </NavLink>
          ))}
        </Nav>
        <Where>
          <PlaceChoice sites={sites} />
        </Where>
        <DemoClock />
        <PersonChoice />
        <LookChoice />
        <Key aria-label={t('jump.open')} onPress={ask}>
          /
        </Key>
      </Bar>
      <PrintHead />
      <Connection />
      <LookedAt />
      {WITH_STRIP.some((path) => pathname === to(path)) ? <SeasonStrip whole={pathname === to('weather')} /> : null}
      <Screen id="screen" tabIndex={-1}>
        {/* A screen may wait as a whole for what would move it. */}
        <Suspense fallback={<Waiting />}>
          <Outlet />
        </Suspense>
      </Screen>
      <BottomBar aria-label={t('nav.screens')}>
        {SCREENS.filter(({ path }) => ON_THE_PHONE.includes(path)).map(({ path, word, icon: Icon }) => (
          <NavLink key={path} to={to(path)} {...(path === 'today' ? news.described : {})}>
            <Icon size={20} aria-hidden />
            <span>
              {t(word)}
              {path === 'today' ? news.dot : null}
            </span>
          </NavLink>
        ))}
        <MoreScreens to={to} sites={sites} onJump={ask} />
      </BottomBar>
      {jump ? (
        <JumpDialog open={jump} typedAhead={ahead.take} onClose={close} sites={sites} onGo={(address) => void navigate(address)} />
      ) : null}
    </>
  )
}
