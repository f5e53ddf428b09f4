import { ComboBox as AriaComboBox, Input, Label, ListBox, ListBoxItem } from 'react-aria-components'
import styled from 'styled-components'
import { Described, fieldStyle, Options, type FieldProps, type Option } from './fields.js'

const StyledSuggest = styled(AriaComboBox)`
  ${fieldStyle}
`

/** A word of one's own, or one of those that are in use already, which are offered as one types. */
export function SuggestField(p: FieldProps & { value: string; onChange: (value: string) => void; words: readonly string[] }) {
  return (
    <StyledSuggest
      allowsCustomValue
      allowsEmptyCollection={false}
      menuTrigger="focus"
      inputValue={p.value}
      onInputChange={p.onChange}
      isInvalid={p.error !== undefined}
      validationBehavior="aria"
      defaultItems={p.words.map((word) => ({ id: word, label: word }))}
      style={{ width: p.width }}
    >
      <Label>{p.label}</Label>
      <Input />
      <Described {...p} />
      <Options>
        <ListBox<Option>>{(option) => <ListBoxItem id={option.id}>{option.label}</ListBoxItem>}</ListBox>
      </Options>
    </StyledSuggest>
  )
}
