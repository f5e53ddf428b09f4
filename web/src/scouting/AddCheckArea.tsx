import { endpoints, type Block } from '@bocado/contract'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/work.js'

/** Marks out a part of a block that is left untreated and counted like the rest. */
export function AddCheckArea({ block, onDone }: { block: Block; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.blocks.addCheckArea, { name: '', note: '' }, null, block.id)
  const save = () => entry.submit({ siteId: site.id, blockId: block.id }).then((saved) => saved && onDone())
  return (
    <Stack>
      <Small>{t('check.explain')}</Small>
      <FormLine onSave={save} onLeave={onDone} isBarred={entry.isBarred}>
        <TextField
          label={t('check.name')}
          width="26ch"
          value={entry.values.name}
          onChange={(name) => entry.set({ name })}
          error={entry.errors['name']}
        />
        <Button isDisabled={entry.isBarred} onPress={() => void save()}>
          {t('save')}
        </Button>
        <Button $plain onPress={onDone}>
          {t('cancel')}
        </Button>
      </FormLine>
      <FormError text={entry.general} />
    </Stack>
  )
}
