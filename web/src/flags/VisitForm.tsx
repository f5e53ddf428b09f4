import { endpoints, type Flag, type Organism } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Choice } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { Stack } from '../design/text.js'
import type { SmallPhoto } from '../library/photo.js'
import { useText } from '../messages/useText.js'
import { nothingSeen, seenInput, type SeenValues } from './seen.js'
import { SeenFields } from './SeenFields.js'

type Sight = Flag['last']['sight']

/** What is seen and done at a flag on a later visit. */
export function VisitForm(p: { flag: Flag; name: string; organism: Organism | undefined; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { flag } = p
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const usual: Sight =
    flag.state === 'none-standing' || flag.state === 'gone' ? 'none' : flag.state === 'treated' ? 'regrowing' : 'standing'
  const entry = useEntry(
    endpoints.flags.visit,
    { sight: usual, ...nothingSeen(site.today) } as SeenValues & { sight: Sight },
    null,
    flag.id,
  )
  const { values, bind, errors, set } = entry
  // Gone is said once what lies in the soil has died, and not offered before.
  const mayBeGone = flag.bankAlive !== null && flag.bankAlive.until <= site.today
  const sights: Sight[] = ['standing', 'regrowing', 'none', ...(mayBeGone ? (['gone'] as const) : [])]
  const save = async (): Promise<void> => {
    const says = t('flags.visitSays', { number: flag.number, name: p.name, sight: t(`flags.sight.${values.sight}`) })
    const saved = await entry.put({ siteId: site.id }, says, `scouting?panel=flags&flag=${flag.id}`, (v) => ({
      flagId: flag.id,
      ...seenInput(v, v.sight, photo, site.today),
    }))
    if (saved) p.onDone()
  }
  return (
    <Stack>
      <Choice
        label={t('flags.sight')}
        options={sights.map((id) => ({ id, label: t(`flags.sight.${id}`) }))}
        value={values.sight}
        onChange={(sight) => set({ sight })}
      />
      <FormError text={errors['sight'] ?? errors['flagId'] ?? null} />
      <SeenFields sight={values.sight} organism={p.organism} bind={bind as never} errors={errors} photo={photo} onPhoto={setPhoto} />
      <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
    </Stack>
  )
}
