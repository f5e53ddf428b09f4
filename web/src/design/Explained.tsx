import { lazy, Suspense, useMemo, type ReactNode } from 'react'
import { Button, Dialog, DialogTrigger, Popover } from 'react-aria-components'
import styled from 'styled-components'
import '../messages/en/words.js'
import { useText } from '../messages/useText.js'
import { splitByTerms, type TermId } from './terms.js'
import { colour } from './theme.js'

/** The sentences come when the first word is pressed. */
const Meaning = lazy(() => import('./Meaning.js'))

const Word = styled(Button)`
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: inherit;
  cursor: help;
  text-decoration: underline dotted ${colour.inkSoft};
  text-underline-offset: 3px;
`
const Bubble = styled(Popover)`
  max-width: min(42ch, 92vw);
  padding: 10px 14px;
  background: ${colour.white};
  color: ${colour.ink};
  border: 1px solid ${colour.ink};
  border-radius: 4px;
  font-weight: 400;
  .react-aria-Dialog {
    outline: none;
  }
`

/** A term of the field that explains itself when it is pressed, by finger or key. */
export function Term({ id, children }: { id: TermId; children: ReactNode }) {
  const t = useText()
  return (
    <DialogTrigger>
      <Word className="on-paper-too">{children}</Word>
      <Bubble>
        <Dialog aria-label={typeof children === 'string' ? children : id}>
          <Suspense fallback={t('waiting')}>
            <Meaning id={id} />
          </Suspense>
        </Dialog>
      </Bubble>
    </DialogTrigger>
  )
}

/** A text in which each term of the field is explained once, where it first stands. */
export function Explained({ children }: { children: string }) {
  const t = useText()
  const parts = useMemo(() => splitByTerms(children, (id) => t(`word.${id}`)), [children, t])
  return parts.map(({ text, term }, i) =>
    term ? (
      <Term key={i} id={term}>
        {text}
      </Term>
    ) : (
      text
    ),
  )
}
