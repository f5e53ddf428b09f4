import { endpoints, type Block, type Organism, type ResponseOf } from '@bocado/contract'
import { useState } from 'react'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/flags.js'

type Listed = ResponseOf<typeof endpoints.flags.list>

/** How much one look overlooks, from two people who searched the same ground one after the other. */
export function SecondLooks(p: {
  data: Pick<Listed, 'detect' | 'secondLooks'>
  blocks: readonly Block[]
  organisms: readonly Organism[]
  isPast: boolean
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [isOpen, setOpen] = useState(false)
  const { detect, secondLooks } = p.data
  const nameOf = (id: string): string => p.organisms.find((one) => one.id === id)?.name ?? id
  return (
    <Stack $gap={6}>
      <Heading>{t('flags.second')}</Heading>
      {detect.length === 0 ? <Small>{t('flags.secondNone')}</Small> : null}
      {detect.map(({ organismId, share, lower }) => (
        <Small key={organismId}>
          {t('flags.secondShare', { name: nameOf(organismId), share: f.percent(share), lower: f.percent(lower) })}
        </Small>
      ))}
      <Rows>
        {secondLooks.map((look) => (
          <li key={look.id}>
            <Line style={{ justifyContent: 'space-between' }}>
              <Small as="span">
                {t('flags.secondLine', {
                  date: f.withYear(look.lookedOn),
                  name: look.organismName,
                  place: look.placeName,
                  first: look.first,
                  second: look.second,
                  both: look.both,
                })}
              </Small>
              {p.isPast ? null : (
                <RemoveButton
                  remove={endpoints.flags.removeSecondLook}
                  restore={endpoints.flags.restoreSecondLook}
                  params={{ siteId: site.id, secondLookId: look.id }}
                  rowVersion={look.rowVersion}
                  label={t('flags.secondRemove', { date: f.date(look.lookedOn) })}
                  said={t('flags.secondRemoved')}
                />
              )}
            </Line>
          </li>
        ))}
      </Rows>
      {isOpen ? (
        <SecondForm {...p} onDone={() => setOpen(false)} />
      ) : p.isPast ? null : (
        <TextButton onPress={() => setOpen(true)}>{t('flags.secondAdd')}</TextButton>
      )}
    </Stack>
  )
}

function SecondForm(p: { blocks: readonly Block[]; organisms: readonly Organism[]; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const initial = {
    organismId: null as string | null,
    placeId: null as string | null,
    lookedOn: site.today as string | null,
    first: null as number | null,
    second: null as number | null,
    both: null as number | null,
  }
  const entry = useEntry(endpoints.flags.addSecondLook, initial, null, `${site.id} second`)
  const { bind } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id }, (v) => ({
      organismId: v.organismId ?? '',
      placeId: v.placeId ?? '',
      lookedOn: v.lookedOn ?? '',
      first: v.first ?? NaN,
      second: v.second ?? NaN,
      both: v.both ?? NaN,
    }))
    if (saved) p.onDone()
  }
  const named = (all: readonly { id: string; name: string }[]) => all.map(({ id, name }) => ({ id, label: name }))
  return (
    <Sheet>
      <Stack>
        <Small>{t('flags.secondHow')}</Small>
        <Fields>
          <Select
            label={t('flags.what')}
            placeholder={t('choose')}
            width="24ch"
            options={named(p.organisms)}
            {...bind.choice('organismId')}
          />
          <Select label={t('flags.where')} placeholder={t('choose')} width="20ch" options={named(p.blocks)} {...bind.choice('placeId')} />
          <DateField label={t('flags.secondOn')} {...bind.day('lookedOn')} />
        </Fields>
        <Fields>
          {(['first', 'second', 'both'] as const).map((who) => (
            <NumberField key={who} label={t(`flags.secondFound.${who}`)} width="18ch" digits={0} {...bind.number(who)} />
          ))}
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={p.onDone} />
      </Stack>
    </Sheet>
  )
}
