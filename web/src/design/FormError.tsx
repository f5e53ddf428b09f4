import styled from 'styled-components'
import { colour } from './theme.js'

const Message = styled.p`
  border-left: 4px solid ${colour.beet};
  background: ${colour.beetSoft};
  padding: 8px 12px;
  font-weight: 600;
`

/** What is wrong with a whole form, where no single field is to blame. */
export function FormError({ text }: { text: string | null }) {
  return <div role="alert">{text ? <Message>{text}</Message> : null}</div>
}
