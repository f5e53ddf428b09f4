import type { Site } from '@bocado/contract'
import { useState } from 'react'
import { Dialog, Heading, Input, Label, ListBox, ListBoxItem, Autocomplete, Modal, ModalOverlay, SearchField } from 'react-aria-components'
import styled from 'styled-components'
import { Checkbox } from '../design/controls.js'
import { found } from '../design/finding.js'
import { colour, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { keysAreOn, switchKeys } from './keys.js'
import { landOn, useJumpTargets, type Target } from './jumpTargets.js'
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
  input {
    width: 100%;
    min-height: 42px;
    padding: 6px 10px;
    border: 1px solid ${colour.inkSoft};
    border-radius: 4px;
  }
  .react-aria-ListBox {
    max-height: 46vh;
    overflow: auto;
    outline: none;
  }
  .react-aria-ListBoxItem {
    padding: 8px 10px;
    border-radius: 3px;
    cursor: pointer;
    &[data-focused],
    &[data-hovered] {
      background: ${colour.petrolSoft};
    }
  }
  .react-aria-ListBoxItem small {
    color: ${colour.inkSoft};
    font-size: ${size.small};
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
  onClose: () => void
  sites: Site[]
  onGo: (address: string) => void
}

/** The jump list (/) and the list of keys (?). */
export function JumpDialog({ open, onClose, sites, onGo }: JumpProps) {
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

function JumpList({ sites, onGo }: { sites: Site[]; onGo: (address: string) => void }) {
  const t = useText()
  const { first, all } = useJumpTargets(sites)
  const [typed, setTyped] = useState('')
  const shown = typed.trim() === '' ? first : found(all, typed).slice(0, MOST_SHOWN)
  const go = (target: Target | undefined): void => {
    if (!target) return
    onGo(target.address)
    landOn(target.at)
  }
  return (
    <Autocomplete inputValue={typed} onInputChange={setTyped}>
      <SearchField
        autoFocus
        aria-label={t('jump.open')}
        // Enter takes the first, as long as the arrows have chosen none.
        onSubmit={() => {
          if (!document.activeElement?.getAttribute('aria-activedescendant')) go(shown[0])
        }}
      >
        <Label className="label">{t('jump.open')}</Label>
        <Input />
      </SearchField>
      {/* Made anew with what is typed: the line in focus would otherwise stay, though it is not found. */}
      <ListBox
        key={typed}
        aria-label={t('jump.open')}
        items={shown.map((target) => ({ ...target, id: `${target.at ?? ''} ${target.address}` }))}
        selectionMode="none"
        renderEmptyState={() => <p role="status">{t('jump.nothing', { typed })}</p>}
        onAction={(key) => go(shown.find(({ at, address }) => `${at ?? ''} ${address}` === key))}
      >
        {(target) => (
          <ListBoxItem id={target.id} textValue={target.name}>
            {target.name} <small>{target.beside}</small>
          </ListBoxItem>
        )}
      </ListBox>
    </Autocomplete>
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
