import { endpoints, type ReviewNote } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Heading, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/review.js'

/** What those who work there say of a season themselves: beside what was counted, and printed with it. */
export function OwnWords({ note, blockId, season }: { note: ReviewNote | undefined; blockId: string; season: string }) {
  const t = useText()
  const [isOpen, setOpen] = useState(false)
  const said = note?.said ?? ''
  return (
    <Stack $gap={6} className={said === '' ? 'off-paper' : undefined} data-testid="own-words">
      <Heading>{t('review.own')}</Heading>
      {isOpen ? (
        <Write note={note} blockId={blockId} season={season} onDone={() => setOpen(false)} />
      ) : (
        <>
          {said === '' ? null : (
            <p style={{ whiteSpace: 'pre-wrap' }}>
              {said} <Small as="span">{note?.personName}</Small>
            </p>
          )}
          <TextButton onPress={() => setOpen(true)}>{t(said === '' ? 'review.ownWrite' : 'review.ownChange')}</TextButton>
        </>
      )}
    </Stack>
  )
}

function Write(p: { note: ReviewNote | undefined; blockId: string; season: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { note, blockId, season } = p
  const entry = useEntry(endpoints.outcomes.keepNote, { said: note?.said ?? '' }, note, `${blockId} ${season} review`)
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, blockId }, ({ said }, rowVersion) => ({ said, season, rowVersion }))
    if (saved) p.onDone()
  }
  return (
    <>
      <TextField label={t('review.ownLabel')} rows={5} width="min(80ch, 100%)" autoFocus {...entry.bind.text('said')} />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
    </>
  )
}
