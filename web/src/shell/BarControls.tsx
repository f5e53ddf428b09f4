import { Ellipsis } from 'lucide-react'
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSite, useWorkplace } from '../api/workplace.js'
import { Select } from '../design/controls.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { ON_THE_PHONE, SCREENS } from './screens.js'

const WorkingAs = styled(Select)`
  > button {
    min-height: 34px;
    background: transparent;
    color: #fff;
    border-color: #7b8a93;
    font-size: ${size.small};
    &::after {
      color: #c9d5da;
    }
  }
  @media ${PHONE} {
    > button {
      min-height: 48px;
      max-width: 132px;
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
  a {
    min-height: 52px;
    padding: 14px 18px;
    color: ${colour.ink};
    text-decoration: none;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
`

/** Who works here. */
export function PersonChoice() {
  const t = useText()
  const site = useSite()
  const { personId, workAs } = useWorkplace()
  return (
    <WorkingAs
      hideLabel
      label={t('workingAs')}
      placeholder={t('workingAs.choose')}
      options={site.people.map(({ id, name, role }) => ({ id, label: t('workingAs.person', { name, role: t(`role.${role}`) }) }))}
      value={personId}
      onChange={(id) => workAs({ id })}
    />
  )
}

export interface MoreProps {
  /** Address of a screen of the site. */
  to: (path: string) => string
}

/** The screens that have no place of their own on a phone's bar. */
export function MoreScreens({ to }: MoreProps) {
  const t = useText()
  return (
    <DialogTrigger>
      <AriaButton>
        <Ellipsis size={20} aria-hidden />
        {t('nav.more')}
      </AriaButton>
      <More placement="top end">
        <Dialog aria-label={t('nav.more')}>
          {({ close }) =>
            SCREENS.filter(({ path }) => !ON_THE_PHONE.includes(path)).map(({ path, word }) => (
              <Link key={path} to={to(path)} onClick={close}>
                {t(word)}
              </Link>
            ))
          }
        </Dialog>
      </More>
    </DialogTrigger>
  )
}
