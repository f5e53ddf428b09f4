import { endpoints, type Block, type Organism, type PublicFind } from '@bocado/contract'
import { useState } from 'react'
import { usePlaces, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import { nameOptions } from './named.js'
import { NONE } from './seen.js'
import '../messages/en/finds.js'
import '../messages/en/flags.js'

interface Known {
  blocks: readonly Block[]
  /** In the order in which they are offered. */
  organisms: readonly Organism[]
}

/** So many are looked at in one go; flags come behind them. */
const FEW = 3
const MORE = 20

/** What people without an account sent, until somebody who works here has looked at it; nothing where nothing was sent. */
export function PublicFinds({ finds, ...p }: Known & { finds: readonly PublicFind[] }) {
  const t = useText()
  const [most, setMost] = useState(FEW)
  const waiting = finds.filter(({ state }) => state === 'waits')
  const away = finds.filter(({ state }) => state === 'refused')
  if (waiting.length === 0 && away.length === 0) return null
  return (
    <Stack $gap={8} data-part="finds" data-testid="public-finds">
      {waiting.length > 0 ? (
        <>
          <Heading as="h3">{t('finds.waiting', { count: waiting.length })}</Heading>
          <Small>{t('finds.how')}</Small>
          <Rows>
            {waiting.slice(0, most).map((find) => (
              <li key={find.id}>
                <OneFind {...p} find={find} />
              </li>
            ))}
          </Rows>
          {waiting.length > most ? (
            <TextButton onPress={() => setMost(most + MORE)}>{t('finds.more', { count: waiting.length - most })}</TextButton>
          ) : null}
        </>
      ) : null}
      {away.length > 0 ? (
        <Unfold title={t('finds.away')}>
          <Rows>
            {away.map((find) => (
              <li key={find.id}>
                <Said find={find} /> <PutAway find={find} />
              </li>
            ))}
          </Rows>
        </Unfold>
      ) : null}
    </Stack>
  )
}

function Said({ find }: { find: PublicFind }) {
  const t = useText()
  const f = useFormat()
  return (
    <span>
      <b>{find.said === '' ? t('finds.unsaid') : t('finds.said', { said: find.said })}</b> {find.note}{' '}
      <Quiet>
        {t('finds.of', { link: find.linkName, date: f.date(find.seenOn) })}
        {find.position ? `, ${t('finds.position')}` : ''}
      </Quiet>
    </span>
  )
}

function OneFind(p: Known & { find: PublicFind }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [isOpen, setOpen] = useState(false)
  const { find } = p
  const date = f.date(find.seenOn)
  return (
    <Stack $gap={6}>
      <Line style={{ alignItems: 'start', flexWrap: 'nowrap' }}>
        {find.hasPhoto ? (
          <img
            src={`/api/v1/sites/${site.id}/finds/${find.id}/jpeg`}
            alt={t('finds.photo', { date })}
            height={isOpen ? 240 : 96}
            loading="lazy"
          />
        ) : null}
        <Stack $gap={6}>
          <Said find={find} />
          {isOpen ? null : (
            <Line>
              <Button $plain aria-label={t('finds.flagNamed', { date })} onPress={() => setOpen(true)}>
                {t('finds.flag')}
              </Button>
              <PutAway find={find} />
            </Line>
          )}
        </Stack>
      </Line>
      {isOpen ? <LetIn {...p} onDone={() => setOpen(false)} /> : null}
    </Stack>
  )
}

/** Puts a find away, or takes it back. */
function PutAway({ find }: { find: PublicFind }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const undo = useUndo()
  const refuse = useWrite(endpoints.finds.refuse)
  const params = { siteId: site.id, findId: find.id }
  const date = f.date(find.seenOn)
  const isAway = find.state === 'refused'
  const press = async (): Promise<void> => {
    const { rowVersion } = await refuse.save({ params, input: { refused: !isAway, rowVersion: find.rowVersion } })
    if (!isAway) undo.offer(t('finds.refused'), () => refuse.save({ params, input: { refused: false, rowVersion } }))
  }
  return (
    <TextButton
      isDisabled={refuse.isBarred}
      aria-label={t(isAway ? 'finds.backNamed' : 'finds.refuseNamed', { date })}
      onPress={() => void press()}
    >
      {t(isAway ? 'finds.back' : 'finds.refuse')}
    </TextButton>
  )
}

/** What it is, where it stands and how many there are, as somebody who knows says; its photo and words come with it. */
function LetIn({ find, blocks, organisms, onDone }: Known & { find: PublicFind; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: places = [] } = usePlaces(site.id)
  const initial = { organismId: NONE, placeId: find.placeId, plants: null as number | null, withPosition: find.position !== null }
  const entry = useEntry(endpoints.finds.flag, initial, find)
  const { bind, errors } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, findId: find.id }, ({ organismId, placeId, ...v }, rowVersion) => ({
      ...v,
      organismId: organismId === NONE ? null : organismId,
      placeId: placeId ?? '',
      rowVersion,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <Select
            label={t('flags.what')}
            placeholder={t('choose')}
            width="24ch"
            options={nameOptions(organisms, t('flags.unnamed'))}
            {...bind.choice('organismId')}
          />
          <Select
            label={t('flags.where')}
            placeholder={t('choose')}
            width="22ch"
            options={[...blocks, ...places].map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('placeId')}
          />
          <NumberField label={t('flags.plants')} width="12ch" digits={0} hint={t('optional')} {...bind.number('plants')} />
        </Fields>
        {find.position ? <Checkbox label={t('finds.keepPosition')} {...bind.check('withPosition')} /> : null}
        <FormError text={errors['position'] ?? errors['position.latitude'] ?? null} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('finds.flag')} />
      </Stack>
    </Sheet>
  )
}
