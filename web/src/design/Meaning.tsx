import { useText } from '../messages/useText.js'
import type { TermId } from './terms.js'
import '../messages/en/glossary.js'

/** What a term of the field means. */
export default function Meaning({ id }: { id: TermId }) {
  const t = useText()
  return <p>{t(`glossary.${id}`)}</p>
}
