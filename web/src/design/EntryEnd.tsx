import type { Lacking } from '../api/may.js'
import { useText } from '../messages/useText.js'
import { Button } from './buttons.js'
import { DraftNote, FormError } from './FormError.js'
import { FormLine } from './FormLine.js'
import { Small } from './text.js'

/**
 * The end of a form: what was kept of it, what is wrong with the whole of it, and its two buttons. Enter in a field of the form is the first of
 * them; Escape leaves, and what was typed is there again when the form is opened anew.
 */
export function EntryEnd(p: {
  /** What `useEntry` gives. */
  entry: { draftSince: string | null; discard: () => void; general: string | null; isBarred: boolean; lacking: Lacking }
  onSave: () => Promise<void>
  /** Leaves the form; what was typed is let go of. */
  onCancel: () => void
  /** Words of the button that stores. */
  words?: string
}) {
  const t = useText()
  return (
    <>
      <DraftNote entry={p.entry} />
      <FormError text={p.entry.general} />
      {p.entry.lacking ? <Small>{t(`may.lacking.${p.entry.lacking}`)}</Small> : null}
      <FormLine onSave={p.onSave} onLeave={p.onCancel} isBarred={p.entry.isBarred}>
        <Button onPress={() => void p.onSave()} isDisabled={p.entry.isBarred}>
          {p.words ?? t('save')}
        </Button>
        <Button
          $plain
          onPress={() => {
            p.entry.discard()
            p.onCancel()
          }}
        >
          {t('cancel')}
        </Button>
      </FormLine>
    </>
  )
}
