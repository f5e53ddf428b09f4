import type { Site } from '@bocado/contract'
import { useEffect, useEffectEvent, useState } from 'react'
import { Dialog, Heading, Modal, ModalOverlay } from 'react-aria-components'
import styled from 'styled-components'
import { Checkbox } from '../design/controls.js'
import { found } from '../design/finding.js'
import { SearchList } from '../design/SearchList.js'
import { colour, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { keysAreOn, switchKeys } from './keys.js'
import { landOn, useJumpTargets } from './jumpTargets.js'
import '../messages/en/bar.js'

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  background: rgb(20 33 43 / 45%);
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 12vh;
`
const Box = styled(Modal)`
  background: ${colour.white};
  border-radius: 6px;
  width: min(520px, 92vw);
  .react-aria-Dialog {
    outline: none;
    padding: 16px;
    display: grid;
    gap: 10px;
  }
  h2 {
    font-size: ${size.large};
  }
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 6px 16px;
    margin: 0;
  }
  dt {
    border: 1px solid ${colour.inkSoft};
    border-radius: 3px;
    padding: 0 8px;
    justify-self: start;
  }
  dd {
    margin: 0;
  }
`

export interface JumpProps {
  open: 'jump' | 'keys'
  /** What was typed while this was on its way; hands the keys over. */
  typedAhead: () => string
  onClose: () => void
  sites: Site[]
  onGo: (address: string) => void
}

/** The jump list (/) and the list of keys (?). */
export function JumpDialog({ open, typedAhead, onClose, sites, onGo }: JumpProps) {
  const t = useText()
  return (
    <Veil isOpen onOpenChange={(now) => !now && onClose()} isDismissable>
      <Box>
        <Dialog aria-label={open === 'keys' ? t('keys.title') : t('jump.open')}>
          {open === 'keys' ? (
            <KeyList />
          ) : (
            <JumpList
              sites={sites}
              typedAhead={typedAhead}
              onGo={(address) => {
                onClose()
                onGo(address)
              }}
            />
          )}
        </Dialog>
      </Box>
    </Veil>
  )
}

/** Lines of the list: more are found by typing on. */
const MOST_SHOWN = 40

function JumpList({ sites, typedAhead, onGo }: Omit<JumpProps, 'open' | 'onClose'>) {
  const t = useText()
  const { first, all } = useJumpTargets(sites)
  const [typed, setTyped] = useState('')
  const begin = useEffectEvent(() => setTyped(typedAhead() + typed))
  // The field has the keyboard by now: what it is part of takes effect after it.
  useEffect(() => begin(), [])
  const shown = typed.trim() === '' ? first : found(all, typed).slice(0, MOST_SHOWN)
  return (
    <SearchList
      label={t('jump.open')}
      typed={typed}
      onType={setTyped}
      options={shown.map((target) => ({ id: `${target.at ?? ''} ${target.address}`, name: target.name, beside: target.beside, target }))}
      onChoose={({ target }) => {
        onGo(target.address)
        landOn(target.at)
      }}
      nothing={t('jump.nothing', { typed })}
    />
  )
}

function KeyList() {
  const t = useText()
  const [on, setOn] = useState(keysAreOn)
  const keys = [
    ['/', t('keys.jump')],
    ['?', t('keys.list')],
    ['h', t('keys.heat')],
    ['[ ]', t('keys.day')],
    ['+ − 0', t('keys.zoom')],
    ['1 … 9', t('keys.tally')],
    ['n', t('keys.next')],
    ['F6', t('keys.part')],
    ['Enter', t('keys.save')],
    ['Esc', t('keys.leave')],
    ['↑ ↓', t('keys.rows')],
    ['Ctrl+Z', t('keys.undo')],
  ] as const
  return (
    <>
      <Heading slot="title">{t('keys.title')}</Heading>
      <dl>
        {keys.map(([key, meaning]) => (
          <div key={key} style={{ display: 'contents' }}>
            <dt>{key}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
      <Checkbox
        label={t('keys.switch')}
        value={on}
        onChange={(now) => {
          switchKeys(now)
          setOn(now)
        }}
      />
    </>
  )
}
