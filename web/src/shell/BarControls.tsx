import { endpoints, type Site } from '@bocado/contract'
import { Ellipsis, SunMoon } from 'lucide-react'
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { useRole } from '../api/may.js'
import { useSeasonChoice, useSite, useWorkplace, type Workplace } from '../api/workplace.js'
import { Choice, Select } from '../design/controls.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { ON_THE_PHONE, SCREENS, seasonName } from './screens.js'
import { chooseTheme, chosenTheme, THEMES } from './themes.js'
import '../messages/en/bar.js'

const WorkingAs = styled(Select)`
  > button {
    min-height: 34px;
    background: transparent;
    color: ${colour.onBar};
    border-color: ${colour.barRule};
    font-size: ${size.small};
    max-width: 190px;
    line-height: 1.2;
    /* On one line, so that the bar stays as high as it is without it. */
    white-space: nowrap;
    .react-aria-SelectValue {
      overflow: hidden;
      text-overflow: ellipsis;
    }
    &::after {
      color: ${colour.onBarSoft};
    }
  }
  @media ${PHONE} {
    > button {
      min-height: 48px;
      max-width: 132px;
      max-height: 48px;
      white-space: normal;
    }
  }
`
const More = styled(Popover)`
  background: ${colour.white};
  border: 1px solid ${colour.ink};
  border-radius: 4px;
  .react-aria-Dialog {
    display: grid;
    min-width: 200px;
    outline: none;
  }
  .react-aria-Dialog {
    max-height: 80vh;
    overflow: auto;
  }
  a,
  .react-aria-Dialog > button {
    min-height: 40px;
    padding: 9px 18px;
    color: ${colour.ink};
    text-decoration: none;
    text-align: left;
    border: 0;
    border-bottom: 1px solid ${colour.ruleSoft};
    background: none;
    cursor: pointer;
    &.here {
      font-weight: 650;
    }
    &:hover,
    &[data-focus-visible] {
      background: ${colour.petrolSoft};
    }
    @media ${PHONE} {
      min-height: 52px;
      padding: 14px 18px;
    }
  }
`

const PersonButton = styled(AriaButton)`
  min-height: 34px;
  max-width: 190px;
  padding: 0 10px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  border: 1px solid ${colour.barRule};
  border-radius: 4px;
  background: none;
  color: ${colour.onBar};
  font-size: ${size.small};
  cursor: pointer;
  @media ${PHONE} {
    min-height: 48px;
    max-width: 132px;
    white-space: normal;
    line-height: 1.2;
  }
`

/** Who works here. */
export function PersonChoice() {
  const { others } = useWorkplace()
  return others ? <DemoPerson people={others} /> : <PersonMenu />
}

/** In the demonstration one is whoever one chooses. */
function DemoPerson({ people }: { people: NonNullable<Workplace['others']> }) {
  const t = useText()
  const { personId } = useWorkplace()
  const { save } = useWrite(endpoints.account.demoSignIn)
  return (
    <WorkingAs
      hideLabel
      label={t('workingAs')}
      placeholder={t('workingAs.choose')}
      options={people.map(({ id, name, role }) => ({ id, label: t('workingAs.person', { name, role: t(`role.${role}`) }) }))}
      value={personId}
      onChange={(id) => void save({ params: {}, input: { personId: id } })}
    />
  )
}

/** Who is signed in, with the way to their account and out. */
function PersonMenu() {
  const t = useText()
  const { name, byCode } = useWorkplace()
  const role = useRole()
  const { save } = useWrite(endpoints.account.signOut)
  return (
    <DialogTrigger>
      <PersonButton aria-label={t('person.menu', { name })}>
        {role ? t('workingAs.person', { name, role: t(`role.${role}`) }) : name} ▾
      </PersonButton>
      <More placement="bottom end">
        <Dialog aria-label={t('person.menu', { name })}>
          {({ close }) => (
            <>
              <Link to="/account" onClick={close}>
                {t('person.account')}
              </Link>
              <AriaButton onPress={() => void save({ params: {}, input: {} })}>
                {t(byCode ? 'person.handOver' : 'person.signOut')}
              </AriaButton>
            </>
          )}
        </Dialog>
      </More>
    </DialogTrigger>
  )
}

/** How the page looks, by choice. */
function ThemeChoice() {
  const t = useText()
  const [theme, setTheme] = useState(chosenTheme)
  return (
    <Choice
      label={t('look.theme')}
      options={THEMES.map((id) => ({ id, label: t(`look.theme.${id}`) }))}
      value={theme}
      onChange={(now) => {
        chooseTheme(now)
        setTheme(now)
      }}
    />
  )
}

const LookButton = styled(AriaButton)`
  display: grid;
  place-items: center;
  min-width: 30px;
  min-height: 30px;
  border: 1px solid ${colour.barRule};
  border-radius: 3px;
  background: none;
  color: ${colour.onBarSoft};
  cursor: pointer;
  @media ${PHONE} {
    display: none;
  }
`
const LookBox = styled.div`
  padding: 12px 18px;
  display: grid;
  gap: 10px;
`

/** How the page looks, from the bar of a desk. */
export function LookChoice() {
  const t = useText()
  return (
    <DialogTrigger>
      <LookButton aria-label={t('look.title')}>
        <SunMoon size={16} aria-hidden />
      </LookButton>
      <More placement="bottom end">
        <Dialog aria-label={t('look.title')}>
          <LookBox>
            <ThemeChoice />
          </LookBox>
        </Dialog>
      </More>
    </DialogTrigger>
  )
}

const Sections = styled.div`
  padding: 10px 18px 2px;
  font-size: ${size.small};
  color: ${colour.inkSoft};
`
const PlaceButton = styled(AriaButton)`
  background: none;
  border: 1px solid transparent;
  border-radius: 4px;
  padding: 2px 8px;
  color: inherit;
  text-align: right;
  line-height: 1.2;
  cursor: pointer;
  @media ${PHONE} {
    min-height: 48px;
  }
  &:hover {
    border-color: ${colour.barRule};
  }
`

/** Sites and seasons to go to. */
function Places({ sites, close }: { sites: Site[]; close: () => void }) {
  const t = useText()
  const site = useSite()
  const { choose } = useSeasonChoice()
  const others = sites.filter(({ id, archivedAt }) => id !== site.id && archivedAt === null)
  const archived = sites.filter(({ id, archivedAt }) => id !== site.id && archivedAt !== null)
  return (
    <>
      {site.seasons.length > 1 ? (
        <>
          <Sections>{t('place.seasons', { site: site.name })}</Sections>
          {site.seasons.map((start) => (
            <AriaButton
              key={start}
              className={start === site.season.start ? 'here' : ''}
              onPress={() => {
                choose(start)
                close()
              }}
            >
              {t('season', { season: seasonName(start) })}
            </AriaButton>
          ))}
        </>
      ) : null}
      <Sections>{t('place.sites')}</Sections>
      {others.map(({ id, name }) => (
        <Link key={id} to={`/sites/${id}/today`} onClick={close}>
          {name}
        </Link>
      ))}
      {archived.map(({ id, name }) => (
        <Link key={id} to={`/sites/${id}/site`} onClick={close}>
          {t('place.archived', { name })}
        </Link>
      ))}
      {others.length > 0 ? (
        <Link to={`/sites/${site.id}/overview`} onClick={close}>
          {t('overview.title')}
        </Link>
      ) : null}
      <Link to="/start" onClick={close}>
        {t('start.title')}
      </Link>
    </>
  )
}

/** The site and the season that are looked at, and the way to others. */
export function PlaceChoice({ sites }: { sites: Site[] }) {
  const t = useText()
  const site = useSite()
  return (
    <DialogTrigger>
      <PlaceButton aria-label={t('place.change', { site: site.name, season: seasonName(site.season.start) })}>
        <b>{site.name}</b>
        <br />
        {t('season', { season: seasonName(site.season.start) })} ▾
      </PlaceButton>
      <More placement="bottom end">
        <Dialog aria-label={t('place.title')}>{({ close }) => <Places sites={sites} close={close} />}</Dialog>
      </More>
    </DialogTrigger>
  )
}

export { PrintHead } from './PrintHead.js'

export interface MoreProps {
  /** Address of a screen of the site. */
  to: (path: string) => string
  sites: Site[]
  onJump: () => void
}

/** The screens that have no place of their own on a phone's bar. */
export function MoreScreens({ to, sites, onJump }: MoreProps) {
  const t = useText()
  return (
    <DialogTrigger>
      <AriaButton>
        <Ellipsis size={20} aria-hidden />
        {t('nav.more')}
      </AriaButton>
      <More placement="top end">
        <Dialog aria-label={t('nav.more')}>
          {({ close }) => (
            <>
              {SCREENS.filter(({ path }) => !ON_THE_PHONE.includes(path)).map(({ path, word }) => (
                <Link key={path} to={to(path)} onClick={close}>
                  {t(word)}
                </Link>
              ))}
              <AriaButton
                onPress={() => {
                  close()
                  onJump()
                }}
              >
                {t('jump.short')}
              </AriaButton>
              <Sections>{t('look.theme')}</Sections>
              <LookBox>
                <ThemeChoice />
              </LookBox>
              <Places sites={sites} close={close} />
            </>
          )}
        </Dialog>
      </More>
    </DialogTrigger>
  )
}
