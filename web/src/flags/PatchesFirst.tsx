import type { Flag } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { patchesFirst, type PatchInLine } from '../band/triage.js'
import { TextButton } from '../design/buttons.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Quiet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useGround } from './useGround.js'
import { useLeftLater } from './useLeftLater.js'
import '../messages/en/triage.js'

const MINUTES_PER_HOUR = 60
const MOST_HOURS = 400
const HOURS = 8
const LEFT_SHOWN = 5
const NOTHING: readonly PatchInLine[] = []

/** Within the hours that there are: which patches to take, in which order, and what that leaves. */
export function PatchesFirst({ flags, onChoose }: { flags: readonly Flag[]; onChoose: (id: string) => void }) {
  const t = useText()
  const f = useFormat()
  const [hours, setHours] = useState<number | null>(HOURS)
  const isSaid = hours !== null && hours > 0 && hours <= MOST_HOURS
  const groundOf = useGround()
  const found = useMemo(() => (isSaid ? patchesFirst(flags, hours, groundOf) : null), [flags, hours, isSaid, groundOf])
  const later = useLeftLater(found?.left ?? NOTHING)
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
            {found.taken.map(({ id, flag, plants, minutes, apartM, seeds, rank, spreads }) => (
              <li key={id}>
                <TextButton onPress={() => onChoose(id)}>{nameOf(flag)}</TextButton>{' '}
                <Quiet>
                  {[
                    t('triage.plants', { plants: f.number(plants), minutes: f.number(minutes) }),
                    apartM >= 100 ? t('triage.apart') : '',
                    seeds ? '' : t('triage.notYet'),
                    seeds && spreads ? t('triage.getsAway') : '',
                    rank ? t('triage.rank', { rank }) : '',
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
          {later ? (
            <p data-testid="triage-later">
              {t('triage.later', {
                patches: later.patches,
                plants: f.number(later.plants.middle),
                low: f.number(Math.floor(later.plants.low)),
                high: f.number(Math.ceil(later.plants.high)),
                hours: f.number(later.minutes / MINUTES_PER_HOUR, 1),
                now: f.number(found.left.reduce((sum, { minutes }) => sum + minutes, 0) / MINUTES_PER_HOUR, 1),
              })}
            </p>
          ) : null}
          <Small>{t('triage.how')}</Small>
        </>
      ) : (
        <Small>{t('triage.sayHours', { most: f.number(MOST_HOURS) })}</Small>
      )}
    </Stack>
  )
}
