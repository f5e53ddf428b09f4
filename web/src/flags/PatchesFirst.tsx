import type { Flag } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { patchesFirst } from '../band/triage.js'
import { TextButton } from '../design/buttons.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Quiet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/triage.js'

const MINUTES_PER_HOUR = 60
const MOST_HOURS = 400
const HOURS = 8
const LEFT_SHOWN = 5

/** Within the hours that there are: which patches to take, in which order, and what that leaves. */
export function PatchesFirst({ flags, onChoose }: { flags: readonly Flag[]; onChoose: (id: string) => void }) {
  const t = useText()
  const f = useFormat()
  const [hours, setHours] = useState<number | null>(HOURS)
  const isSaid = hours !== null && hours > 0 && hours <= MOST_HOURS
  const found = useMemo(() => (isSaid ? patchesFirst(flags, hours) : null), [flags, hours, isSaid])
  const nameOf = (flag: Flag): string =>
    t('triage.patch', { number: flag.number, name: flag.organismName ?? t('triage.unnamed'), place: flag.placeName })
  return (
    <Stack>
      <Fields>
        <NumberField label={t('triage.hours')} unit="h" width="11ch" value={hours} onChange={setHours} />
      </Fields>
      {found ? (
        <>
          <p data-testid="triage-says">
            {t('triage.says', {
              taken: found.taken.length,
              hours: f.number(found.minutes / MINUTES_PER_HOUR, 1),
              left: found.left.length,
              plants: f.number(found.left.reduce((sum, { plants }) => sum + plants, 0)),
            })}
          </p>
          <ol>
            {found.taken.map(({ id, flag, plants, minutes, apartM, seeds }) => (
              <li key={id}>
                <TextButton onPress={() => onChoose(id)}>{nameOf(flag)}</TextButton>{' '}
                <Quiet>
                  {[
                    t('triage.plants', { plants: f.number(plants), minutes: f.number(minutes) }),
                    apartM >= 100 ? t('triage.apart') : '',
                    seeds ? '' : t('triage.notYet'),
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </Quiet>
              </li>
            ))}
          </ol>
          {found.left.length > 0 ? (
            <Small>
              {t('triage.left', {
                all: found.left
                  .slice(0, LEFT_SHOWN)
                  .map(({ flag }) => nameOf(flag))
                  .join('; '),
                more: Math.max(0, found.left.length - LEFT_SHOWN),
              })}
            </Small>
          ) : null}
          <Small>{t('triage.how')}</Small>
        </>
      ) : (
        <Small>{t('triage.sayHours', { most: f.number(MOST_HOURS) })}</Small>
      )}
    </Stack>
  )
}
