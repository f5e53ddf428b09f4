import { endpoints, type InputOf, type Living } from '@bocado/contract'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { differenceOf, PERCENT } from '../design/units.js'
import { Caution, Fields, Line, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useLiving } from './useLiving.js'
import '../messages/en/field.js'
import '../messages/en/living.js'

/** Of a planned treatment with something living: its order, what it would live in, and what would harm it. */
export function LivingThere({ treatmentId }: { treatmentId: string }) {
  const found = useLiving()?.planned.find((one) => one.treatmentId === treatmentId)
  return found ? (
    <Stack $gap={6} data-testid="living">
      <Order living={found} />
      <Around living={found} />
    </Stack>
  ) : null
}

const PRESSING: readonly Living['state'][] = ['late', 'stale', 'dead']

function Order({ living }: { living: Living }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const may = useMay('tend')
  const [looks, setLooks] = useState(false)
  const note = useWrite(endpoints.living.note)
  const { supply, state, orderBy, usableUntil, treatmentId } = living
  const says = t(`living.state.${state}`, {
    by: orderBy === null ? '' : f.date(orderBy),
    ordered: supply?.orderedOn ? f.date(supply.orderedOn) : '',
    arrived: supply?.arrivedOn ? f.date(supply.arrivedOn) : '',
    until: usableUntil === null ? 'none' : f.date(usableUntil),
    alive: supply?.alive == null ? 'none' : f.percent(supply.alive),
  })
  const keep = (changes: Partial<InputOf<typeof endpoints.living.note>>): void => {
    const { orderedOn = null, arrivedOn = null, alive = null, note: words = '', rowVersion = null } = supply ?? {}
    void note.save({
      params: { siteId: site.id },
      input: { treatmentId, orderedOn, arrivedOn, alive, note: words, rowVersion, ...changes },
    })
  }
  const isOrdered = supply?.orderedOn != null
  const isThere = supply?.arrivedOn != null
  return (
    <>
      {PRESSING.includes(state) ? <Caution>{says}</Caution> : <p>{says}</p>}
      {may ? (
        <Line>
          {isOrdered || isThere ? null : (
            <TextButton isDisabled={note.isBarred} onPress={() => keep({ orderedOn: site.today })}>
              {t('living.orderedToday')}
            </TextButton>
          )}
          {isThere ? null : (
            <TextButton isDisabled={note.isBarred} onPress={() => keep({ arrivedOn: site.today })}>
              {t('living.cameToday')}
            </TextButton>
          )}
          {isThere && !looks ? <TextButton onPress={() => setLooks(true)}>{t('living.howAlive')}</TextButton> : null}
        </Line>
      ) : null}
      {isThere && supply.alive === null ? <Small>{t('living.look')}</Small> : null}
      {may && looks ? <Alive living={living} onDone={() => setLooks(false)} /> : null}
    </>
  )
}

/** What is seen under a lens once it is there. */
function Alive({ living: { supply, treatmentId }, onDone }: { living: Living; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const entry = useEntry(endpoints.living.note, { alive: supply?.alive ?? null }, supply, treatmentId)
  const { orderedOn = null, arrivedOn = null, note = '' } = supply ?? {}
  const save = async (): Promise<void> => {
    const stored = await entry.submit({ siteId: site.id }, ({ alive }, rowVersion) => ({
      treatmentId,
      orderedOn,
      arrivedOn,
      alive,
      note,
      rowVersion,
    }))
    if (stored) onDone()
  }
  return (
    <Stack $gap={6}>
      <Fields>
        <NumberField label={t('living.alive')} width="10ch" unit="%" digits={0} {...entry.bind.number('alive', PERCENT)} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}

function Around({ living: { conditions, plannedOn, placeId, residues } }: { living: Living }) {
  const t = useText()
  const f = useFormat()
  const mayLook = useMay('observe')
  const [reads, setReads] = useState(false)
  return (
    <>
      {residues.map(({ name, until }) => (
        <Caution key={`${name} ${until}`}>{t('living.residue', { name, until: f.date(until) })}</Caution>
      ))}
      {conditions ? (
        <>
          {conditions.verdict === 'fits' ? null : (
            <Caution>{t(conditions.verdict === 'too-cold' ? 'living.tooCold' : 'living.tooHot')}</Caution>
          )}
          <Small>
            {t('living.onTheDay', {
              medium: conditions.medium,
              on: f.temperature(conditions.onTheDay),
              date: f.date(plannedOn < f.today ? f.today : plannedOn),
              floor: f.temperature(conditions.floor),
              from: conditions.floorFrom,
              ceiling: f.temperature(conditions.ceiling),
            })}{' '}
            {conditions.days > 0
              ? t('living.after', { warm: f.percent(conditions.warmEnough), cool: f.percent(conditions.coolEnough), days: conditions.days })
              : null}
          </Small>
          {conditions.medium === 'soil' ? (
            <Small>
              {t('living.moist')}{' '}
              {conditions.offset
                ? t(`living.offset.${conditions.offset.by}`, {
                    by: `${f.signed(differenceOf(conditions.offset.celsius, '°C', f.measures), 1)} ${f.measures.temperature.unit}`,
                    count: conditions.offset.readings,
                  })
                : t('living.estimated')}
            </Small>
          ) : null}
          {conditions.medium === 'soil' && mayLook ? (
            reads ? (
              <Reading placeId={placeId} onDone={() => setReads(false)} />
            ) : (
              <TextButton onPress={() => setReads(true)}>{t('living.thermometer')}</TextButton>
            )
          ) : null}
        </>
      ) : null}
    </>
  )
}

/** What a thermometer reads in the soil of a bed or pot. */
function Reading({ placeId, onDone }: { placeId: string; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { temperature } = useFormat().measures
  const entry = useEntry(endpoints.living.readSoil, { celsius: null as number | null }, null, placeId)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, ({ celsius }) => ({ placeId, readOn: site.today, celsius }))) onDone()
  }
  return (
    <Stack $gap={6}>
      <Small>{t('living.readings')}</Small>
      <Fields>
        <NumberField
          label={t('living.reading')}
          width="11ch"
          unit={temperature.unit}
          digits={1}
          {...entry.bind.number('celsius', temperature)}
        />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
