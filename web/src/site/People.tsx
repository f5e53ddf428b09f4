import { endpoints, type Person, type Role } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useMay } from '../api/may.js'
import { useSites } from '../api/hooks.js'
import type { Bound } from '../api/bindings.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useAsked } from '../shell/useAsked.js'
import { HelpFields } from './helpLater.js'
import { helpInput, type HelpValues } from './helpValues.js'
import { Invitations, GiveLink } from './Invitations.js'
import { Left } from './Left.js'
import { Phones } from './Phones.js'
import { useRoleOptions } from './useRoleOptions.js'
import { WayIn } from './WayIn.js'

const NEW = 'new'
const NO_HELP: HelpValues = { on: null, blockIds: [] }

/** Who works at the site, each with what they may do; they can be changed, leave and come back. */
export function People() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [open, setOpen] = useState<string | null>(null)
  const [more, setMore] = useState(false)
  useAsked('person', () => setOpen(NEW))
  const leads = useMay('lead')
  const owns = useMay('own')
  return (
    <Stack>
      <Heading>{t('site.people')}</Heading>
      <Rows>
        {site.people.map((person) => (
          <li key={person.id}>
            {open === person.id ? (
              <ChangePerson person={person} onDone={() => setOpen(null)} />
            ) : (
              <Line>
                <span>
                  {person.name}{' '}
                  <Quiet>
                    {t(`role.${person.role}`)}
                    {person.help ? ` ${t('helping.onDay', { date: f.date(person.help.on) })}` : ''}
                    {person.licensed ? `, ${licenceWords(person, site.today, t, f)}` : ''}
                    {person.signsIn ? '' : `, ${t('person.noAccount')}`}
                  </Quiet>
                </span>
                {leads && (owns || person.role !== 'owner') ? <GiveLink person={person} /> : null}
                <TextButton aria-label={t('person.editNamed', { name: person.name })} onPress={() => setOpen(person.id)}>
                  {t('edit')}
                </TextButton>
                <RemoveButton
                  remove={endpoints.sites.removePerson}
                  restore={endpoints.sites.restorePerson}
                  params={{ siteId: site.id, personId: person.id }}
                  rowVersion={person.rowVersion}
                  words={t('person.leaves')}
                  label={t('person.leavesNamed', { name: person.name })}
                  said={t('person.left', { name: person.name })}
                />
              </Line>
            )}
          </li>
        ))}
      </Rows>
      {open === NEW ? <AddPerson onDone={() => setOpen(null)} /> : <TextButton onPress={() => setOpen(NEW)}>{t('person.add')}</TextButton>}
      {leads ? <Invitations /> : null}
      {leads ? (
        <TextButton onPress={() => setMore(!more)} aria-expanded={more}>
          {t('person.more')}
        </TextButton>
      ) : null}
      {leads && more ? (
        <>
          <Phones />
          <WayIn />
          <Left />
          <Link to={`/sites/${site.id}/changes`}>{t('site.changes')}</Link>
        </>
      ) : null}
      <Small>{t('person.note')}</Small>
    </Stack>
  )
}

/** That somebody is licensed, and until when; that it has ended, where it has. */
function licenceWords({ licenceUntil }: Person, today: string, t: Say, f: Format): string {
  if (licenceUntil === null) return t('person.licensed')
  return t(licenceUntil < today ? 'person.licenceEnded' : 'person.licensedUntil', { date: f.withYear(licenceUntil) })
}

interface LicenceProps {
  has: { value: boolean; onChange: (value: boolean) => void }
  number: Bound<string>
  until: Bound<string | null>
}

/** Nobody asks a gardener for a licence; one that is there is shown. */
function Licence({ has, number, until }: LicenceProps) {
  const t = useText()
  const site = useSite()
  if (site.kind === 'garden' && !has.value) return null
  return (
    <>
      <Checkbox label={t('person.isLicensed')} {...has} />
      {has.value ? (
        <Line>
          <TextField label={t('person.licenceNumber')} width="18ch" {...number} />
          <DateField label={t('person.licenceUntil')} {...until} />
        </Line>
      ) : null}
    </>
  )
}

function ChangePerson({ person, onDone }: { person: Person; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { name, role, licensed, licenceNumber, licenceUntil, help } = person
  const entry = useEntry(
    endpoints.sites.changePerson,
    { name, role, licensed, licenceNumber, licenceUntil, help: (help ?? NO_HELP) as HelpValues },
    person,
    person.id,
  )
  const { bind } = entry
  const save = async (): Promise<void> => {
    if (
      await entry.submit({ siteId: site.id, personId: person.id }, (v, rowVersion) => ({
        ...v,
        help: helpInput(v.role, v.help),
        rowVersion,
      }))
    )
      onDone()
  }
  return (
    <Stack>
      <TextField label={t('person.name')} {...bind.text('name')} autoFocus />
      <Select label={t('person.role')} placeholder={t('choose')} options={useRoleOptions()} {...bind.choice('role')} />
      {entry.values.role === 'volunteer' ? (
        <HelpFields value={entry.values.help} onChange={(next) => entry.set({ help: next })} errors={entry.errors} />
      ) : (
        <Licence has={bind.check('licensed')} number={bind.text('licenceNumber')} until={bind.day('licenceUntil')} />
      )}
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}

/** Somebody new, or somebody who works at another site of the holding. */
function AddPerson({ onDone }: { onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: sites = [] } = useSites()
  const entry = useEntry(
    endpoints.sites.addPerson,
    {
      name: '',
      role: 'scout' as Role,
      licensed: false,
      licenceNumber: '',
      licenceUntil: null as string | null,
      personId: null as string | null,
      help: NO_HELP as HelpValues,
    },
    null,
    site.id,
  )
  const { bind, values, set, errors } = entry
  const here = new Set(site.people.map(({ id }) => id))
  const elsewhere = new Map(
    sites.filter(({ holding }) => holding.id === site.holding.id).flatMap(({ people }) => people.map((one) => [one.id, one] as const)),
  )
  const others = [...elsewhere.values()].filter(({ id }) => !here.has(id))
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, (v) => ({ ...v, help: helpInput(v.role, v.help) }))) onDone()
  }
  return (
    <Stack>
      {others.length > 0 ? (
        <Select
          label={t('person.who')}
          placeholder={t('choose')}
          options={[{ id: NEW, label: t('person.new') }, ...others.map(({ id, name }) => ({ id, label: name }))]}
          value={values.personId ?? NEW}
          error={errors['personId']}
          onChange={(id) => {
            const known = elsewhere.get(id)
            set(known ? { personId: id, name: known.name, role: known.role, licensed: known.licensed } : { personId: null, name: '' })
          }}
        />
      ) : null}
      {values.personId === null ? <TextField label={t('person.name')} {...bind.text('name')} autoFocus /> : null}
      <Select label={t('person.role')} placeholder={t('choose')} options={useRoleOptions()} {...bind.choice('role')} />
      {values.role === 'volunteer' ? (
        <HelpFields value={values.help} onChange={(help) => set({ help })} errors={errors} />
      ) : (
        <Licence has={bind.check('licensed')} number={bind.text('licenceNumber')} until={bind.day('licenceUntil')} />
      )}
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
