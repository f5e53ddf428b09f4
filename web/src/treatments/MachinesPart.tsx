import { endpoints, machineKinds, type Machine } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { PERCENT } from '../design/units.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { SharedCheckbox } from '../shell/SharedCheckbox.js'
import '../messages/en/equipment.js'

/** Sprayers, machines and tools: what they hold, what they are set to, and how their last catch test went. */
export function MachinesPart() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: machines } = useRead(endpoints.equipment.machines, { params: { siteId: site.id }, input: {} })
  const [open, setOpen] = useState<string | null>(null)
  if (!machines) return null
  const says = ({ tankL, sprayLPerHa, testedOn, testOff, lowDrift }: Machine): string =>
    [
      tankL === null ? '' : t('machine.tank', { tank: f.volume(tankL) }),
      sprayLPerHa === null ? '' : t('machine.set', { spray: f.sprayVolume(sprayLPerHa) }),
      lowDrift ? t('machine.lowDrift') : '',
      testedOn === null
        ? ''
        : t('machine.tested', {
            date: f.withYear(testedOn),
            off: testOff === null ? 'none' : f.percent(Math.abs(testOff)),
            way: (testOff ?? 0) < 0 ? 'less' : 'more',
          }),
    ]
      .filter(Boolean)
      .join(', ')
  return (
    <Stack>
      <Heading>{t('machine.title')}</Heading>
      {machines.length === 0 && open === null ? <Small>{t('machine.none')}</Small> : null}
      <Rows>
        {machines.map((machine) => (
          <li key={machine.id}>
            {open === machine.id ? (
              <MachineForm machine={machine} onDone={() => setOpen(null)} />
            ) : (
              <>
                <b>{machine.name}</b> <Quiet>{t(`machine.kind.${machine.kind}`)}</Quiet>{' '}
                <Line as="span" style={{ display: 'inline-flex' }}>
                  <TextButton aria-label={t('machine.edit', { name: machine.name })} onPress={() => setOpen(machine.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.equipment.removeMachine}
                    restore={endpoints.equipment.restoreMachine}
                    params={{ siteId: site.id, machineId: machine.id }}
                    rowVersion={machine.rowVersion}
                    label={t('machine.removeOne', { name: machine.name })}
                    said={t('machine.removed', { name: machine.name })}
                  />
                </Line>
                <Small>{says(machine)}</Small>
              </>
            )}
          </li>
        ))}
      </Rows>
      {open === 'new' ? (
        <MachineForm onDone={() => setOpen(null)} />
      ) : (
        <TextButton onPress={() => setOpen('new')}>{t('machine.add')}</TextButton>
      )}
    </Stack>
  )
}

/** Kinds of which a tank is filled. */
const SPRAYERS: readonly (Machine['kind'] | null)[] = ['boom', 'air-blast', 'knapsack', 'hand-sprayer']

function MachineForm({ machine, onDone }: { machine?: Machine; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { volume, sprayVolume } = useFormat().measures
  const initial = {
    name: machine?.name ?? '',
    kind: machine?.kind ?? (null as Machine['kind'] | null),
    tankL: machine?.tankL ?? (null as number | null),
    sprayLPerHa: machine?.sprayLPerHa ?? (null as number | null),
    lowDrift: machine?.lowDrift ?? false,
    testedOn: machine?.testedOn ?? (null as string | null),
    testOff: machine?.testOff ?? (null as number | null),
    shared: machine?.shared ?? false,
  }
  const add = useEntry(endpoints.equipment.addMachine, initial, null, machine ? undefined : site.id)
  const update = useEntry(endpoints.equipment.updateMachine, initial, machine, machine?.id)
  const entry = machine ? update : add
  const { values, bind } = entry
  const typed = (v: typeof initial) => ({ ...v, kind: v.kind ?? undefined })
  const save = async (): Promise<void> => {
    const saved = machine
      ? await update.submit({ siteId: site.id, machineId: machine.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Fields>
          <TextField label={t('machine.name')} width="24ch" {...bind.text('name')} autoFocus />
          <Select
            label={t('machine.kind')}
            placeholder={t('choose')}
            width="22ch"
            options={machineKinds.map((id) => ({ id, label: t(`machine.kind.${id}`) }))}
            {...bind.choice('kind')}
          />
        </Fields>
        {SPRAYERS.includes(values.kind) ? (
          <>
            <Fields>
              <NumberField label={t('machine.tankHolds')} width="14ch" unit={volume.unit} digits={1} {...bind.number('tankL', volume)} />
              <NumberField
                label={t('machine.setTo')}
                width="16ch"
                unit={sprayVolume.unit}
                digits={1}
                {...bind.number('sprayLPerHa', sprayVolume)}
              />
            </Fields>
            <Checkbox label={t('machine.nozzles')} {...bind.check('lowDrift')} />
            <Fields>
              <DateField label={t('machine.testedOn')} {...bind.day('testedOn')} />
              <NumberField
                label={t('machine.testOff')}
                width="16ch"
                unit="%"
                digits={0}
                hint={t('machine.testHint')}
                {...bind.number('testOff', PERCENT)}
              />
            </Fields>
          </>
        ) : null}
        <SharedCheckbox bound={bind.check('shared')} />
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
      </Stack>
    </Sheet>
  )
}
