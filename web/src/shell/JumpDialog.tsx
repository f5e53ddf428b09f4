import type { Site } from '@bocado/contract'
import { useState } from 'react'
import {
  Dialog,
  Heading,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Autocomplete,
  Modal,
  ModalOverlay,
  SearchField,
  useFilter,
} from 'react-aria-components'
import styled from 'styled-components'
import { useBand, useBlocks } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Checkbox } from '../design/controls.js'
import { colour, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { keysAreOn, switchKeys } from './keys.js'
import { SCREENS } from './screens.js'

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

function JumpList({ sites, onGo }: { sites: Site[]; onGo: (address: string) => void }) {
  const t = useText()
  const site = useSite()
  const { contains } = useFilter({ sensitivity: 'base' })
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: band } = useBand(site.id, site.season.start)
  const here = `/sites/${site.id}`
  const places = [
    ...SCREENS.map(({ path, word }) => ({ id: `${here}/${path}`, label: t(word) })),
    ...(band?.watches ?? []).map(({ watch, organismName }) => ({
      id: `${here}/windows?watch=${watch.id}`,
      label: t('jump.watch', { organism: organismName, block: blocks.find(({ id }) => id === watch.blockId)?.name ?? '' }),
    })),
    ...sites.filter(({ id }) => id !== site.id).map(({ id, name }) => ({ id: `/sites/${id}/windows`, label: t('jump.site', { name }) })),
    { id: '/start', label: t('start.title') },
  ]
  return (
    <Autocomplete filter={contains}>
      <SearchField autoFocus aria-label={t('jump.open')}>
        <Label className="label">{t('jump.open')}</Label>
        <Input />
      </SearchField>
      <ListBox aria-label={t('jump.open')} items={places} selectionMode="none" onAction={(key) => onGo(String(key))}>
        {(place) => (
          <ListBoxItem id={place.id} textValue={place.label}>
            {place.label}
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
