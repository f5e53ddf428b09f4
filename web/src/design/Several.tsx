import { Button as AriaButton, Tag, TagGroup, TagList, Label } from 'react-aria-components'
import { X } from 'lucide-react'
import styled from 'styled-components'
import { Described, fieldStyle, type FieldProps, type Option } from './fields.js'
import { Select } from './controls.js'
import { colour, size } from './theme.js'

const Tags = styled(TagGroup)`
  ${fieldStyle}
  .react-aria-TagList {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  .react-aria-Tag {
    display: inline-flex;
    gap: 4px;
    align-items: center;
    padding: 3px 4px 3px 10px;
    border: 1px solid ${colour.rule};
    border-radius: 4px;
    background: ${colour.white};
    font-size: ${size.small};
  }
  button {
    display: inline-flex;
    border: 0;
    background: none;
    padding: 5px;
    cursor: pointer;
  }
`

/** Several of a list, each named and let go by itself; the next is chosen from what is left. */
export function Several(
  p: FieldProps & {
    options: readonly Option[]
    value: readonly string[]
    onChange: (value: string[]) => void
    placeholder: string
    /** How one is let go, by its name. */
    dropWords: (name: string) => string
  },
) {
  const chosen = p.value.map((id) => p.options.find((option) => option.id === id) ?? { id, label: id })
  const left = p.options.filter(({ id }) => !p.value.includes(id))
  return (
    <div style={{ display: 'grid', gap: 6, maxWidth: '100%' }}>
      {left.length > 0 ? (
        <Select
          label={p.label}
          placeholder={p.placeholder}
          options={left}
          value={null}
          onChange={(id) => p.onChange([...p.value, id])}
          error={p.error}
          {...(p.hint === undefined ? {} : { hint: p.hint })}
          {...(p.width === undefined ? {} : { width: p.width })}
        />
      ) : null}
      {chosen.length > 0 ? (
        <Tags aria-label={p.label} onRemove={(keys) => p.onChange(p.value.filter((id) => !keys.has(id)))}>
          {left.length > 0 ? null : <Label>{p.label}</Label>}
          <TagList items={chosen}>
            {(option) => (
              <Tag id={option.id} textValue={option.label}>
                {option.label}
                <AriaButton slot="remove" aria-label={p.dropWords(option.label)}>
                  <X size={13} aria-hidden />
                </AriaButton>
              </Tag>
            )}
          </TagList>
          {left.length > 0 ? null : <Described {...p} />}
        </Tags>
      ) : null}
    </div>
  )
}
