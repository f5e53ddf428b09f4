import type { endpoints, Endpoint } from '@bocado/contract'
import { useWrite } from '../api/hooks.js'
import { TextButton } from '../design/buttons.js'
import { useText } from '../messages/useText.js'
import { useUndo } from './Undo.js'

/** Every removal and its restoring are shaped like those of a block: the row's version in, the next one out. */
type Removal = typeof endpoints.blocks.remove

/** Takes a row out of sight and says so with an offer to bring it back; a refusal is said in the same place. */
export function RemoveButton(p: {
  remove: Endpoint
  restore: Endpoint
  params: Readonly<Record<string, string>>
  rowVersion: number
  /** What is said once it is done. */
  said: string
  /** Which row of several this is, for those who do not see where the button stands. */
  label?: string
  words?: string
}) {
  const t = useText()
  const undo = useUndo()
  const remove = useWrite(p.remove as unknown as Removal)
  const restore = useWrite(p.restore as unknown as Removal)
  const params = p.params as { siteId: string; blockId: string }
  const press = async (): Promise<void> => {
    const { rowVersion } = await remove.save({ params, input: { rowVersion: p.rowVersion } })
    undo.offer(p.said, () => restore.save({ params, input: { rowVersion } }))
  }
  return (
    <TextButton onPress={() => void press()} isDisabled={remove.isBarred} {...(p.label ? { 'aria-label': p.label } : {})}>
      {p.words ?? t('remove')}
    </TextButton>
  )
}
