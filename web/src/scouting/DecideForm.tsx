import { decisionKinds, endpoints, type Round } from '@bocado/contract'
import { civilDate, dayNumber } from '@bocado/core/time'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { Fields, Sheet, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { enemyWords } from './enemyWords.js'
import '../messages/en/work.js'

/** As long as most counts are apart. */
const A_WEEK = 7

/** Leaves what is over its threshold for now: why, and when somebody looks again. */
export function DecideForm({ round, onDone }: { round: Round; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const enemies = enemyWords(round.enemies, t)
  // What was seen of them on the walk is why.
  const initial = {
    kind: (enemies ? 'enemies' : 'tolerate') as string | null,
    reason: enemies ? t('decide.seen', { enemies, count: round.units.length, units: round.unit.many }) : '',
    lookAgainOn: civilDate(dayNumber(site.today) + A_WEEK) as string | null,
  }
  const entry = useEntry(endpoints.scouting.decide, initial, null, round.id)
  const { bind, errors } = entry
  const save = async (): Promise<void> => {
    const input = (v: typeof initial) => ({ ...v, lookAgainOn: v.lookAgainOn ?? '', roundId: round.id })
    if (await entry.submit({ siteId: site.id }, input)) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('decide.kind')}
            placeholder=""
            width="26ch"
            options={decisionKinds.map((id) => ({ id, label: t(`decide.kind.${id}`) }))}
            {...bind.choice('kind')}
          />
          <TextField label={t('decide.reason')} width="36ch" {...bind.text('reason')} />
          <DateField label={t('decide.until')} {...bind.day('lookAgainOn')} />
        </Fields>
        <FormError text={errors['roundId'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('decide.save')} />
      </Stack>
    </Sheet>
  )
}
