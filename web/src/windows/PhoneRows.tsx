import { memo } from 'react'
import styled from 'styled-components'
import { groupWords } from '../band/groupWords.js'
import type { Group } from '../band/urgency.js'
import { Rows } from '../design/text.js'
import { colour, PHONE, size } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Sentences = styled(Rows)`
  display: none;
  @media ${PHONE} {
    display: block;
    margin: 0 14px;
  }
  button {
    border: 0;
    border-left: 5px solid transparent;
    background: none;
    text-align: left;
    padding: 6px 10px;
    width: 100%;
    min-height: 56px;
    &[aria-pressed='true'] {
      background: ${colour.white};
      border-left-color: ${colour.petrol};
    }
    b {
      display: block;
    }
  }
`
const GroupName = styled.h2`
  display: none;
  @media ${PHONE} {
    display: block;
    padding: 10px 14px 6px;
    font-size: ${size.small};
    color: ${colour.inkSoft};
  }
`

/** On a phone the band is a list of sentences, and one row. */
export const PhoneRows = memo(function PhoneRows(p: {
  groups: readonly Group[]
  blockNames: ReadonlyMap<string, string>
  sentences: ReadonlyMap<string, string>
  selected: string
  onSelect: (watchId: string) => void
}) {
  const t = useText()
  return p.groups.map((group) => (
    <div key={group.id}>
      <GroupName>{groupWords(group, t)}</GroupName>
      <Sentences>
        {group.rows.map(({ watch, organismName }) => (
          <li key={watch.id}>
            <button aria-pressed={watch.id === p.selected} onClick={() => p.onSelect(watch.id)}>
              <b>
                {organismName}, {p.blockNames.get(watch.blockId)}
              </b>
              {p.sentences.get(watch.id)}
            </button>
          </li>
        ))}
      </Sentences>
    </div>
  ))
})
