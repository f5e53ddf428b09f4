import { useText } from '../messages/useText.js'
import { TERMS } from '../design/terms.js'
import { Small, Stack, Title } from '../design/text.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import styled from 'styled-components'
import { colour } from '../design/theme.js'
import '../messages/en/glossary.js'
import '../messages/en/words.js'

const List = styled.dl`
  margin: 0;
  max-width: 76ch;
  border-top: 1px solid ${colour.rule};
  dt {
    padding-top: 8px;
    font-weight: 650;
    &::first-letter {
      text-transform: uppercase;
    }
  }
  dd {
    margin: 0;
    padding-bottom: 8px;
    border-bottom: 1px solid ${colour.ruleSoft};
  }
`

/** All words of the field that the product explains, from a to z. */
export function WordsPage() {
  const t = useText()
  usePageTitle(t('glossary.title'))
  const named = TERMS.map((id) => ({ id, name: t(`word.${id}`).split('|').at(-1) ?? id })).sort((a, b) => a.name.localeCompare(b.name))
  return (
    <Stack>
      <Title as="h2">{t('glossary.title')}</Title>
      <Small>{t('glossary.explain')}</Small>
      <List>
        {named.map(({ id, name }) => (
          <div key={id}>
            <dt>{name}</dt>
            <dd>{t(`glossary.${id}`)}</dd>
          </div>
        ))}
      </List>
    </Stack>
  )
}
