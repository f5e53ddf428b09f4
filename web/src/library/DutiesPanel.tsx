import { endpoints, type Reportable } from '@bocado/contract'
import { useState } from 'react'
import { useOrganisms, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Caution, Fields, Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/duties.js'

/** What somebody puts on the list: an organism that is named already, or one to be chosen. */
interface Putting {
  organismId: string | null
  listed: Reportable | null
}

/** The site's own list of what must be reported, whom to tell, and what the library asks to check. */
export function DutiesPanel() {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.library.reportDuties, { params: { siteId: site.id }, input: {} })
  const [putting, setPutting] = useState<Putting | null>(null)
  const [checking, setChecking] = useState(false)
  if (!data) return null
  const { listed, toCheck } = data
  return (
    <Stack>
      <Heading>{t('duty.title')}</Heading>
      <RulesOf />
      {listed.length === 0 ? <p>{t('duty.none')}</p> : null}
      <Rows>
        {listed.map((one) => (
          <li key={one.id}>
            <b>{one.organismName}</b>
            <br />
            {one.whom} {one.note}{' '}
            <Line as="span" style={{ display: 'inline-flex' }}>
              <TextButton
                aria-label={t('duty.changeOne', { name: one.organismName })}
                onPress={() => setPutting({ organismId: one.organismId, listed: one })}
              >
                {t('duty.change')}
              </TextButton>
              <RemoveButton
                remove={endpoints.library.removeReportable}
                restore={endpoints.library.restoreReportable}
                params={{ siteId: site.id, reportableId: one.id }}
                rowVersion={one.rowVersion}
                label={t('duty.removeOne', { name: one.organismName })}
                said={t('duty.removed', { name: one.organismName })}
              />
            </Line>
          </li>
        ))}
      </Rows>
      {putting ? (
        <PutOnList
          key={putting.organismId}
          {...putting}
          taken={listed.map(({ organismId }) => organismId)}
          onDone={() => setPutting(null)}
        />
      ) : (
        <TextButton onPress={() => setPutting({ organismId: null, listed: null })}>{t('duty.other')}</TextButton>
      )}
      {toCheck.length > 0 ? (
        <TextButton aria-expanded={checking} onPress={() => setChecking(!checking)}>
          {t('duty.checkTitle', { count: toCheck.length })}
        </TextButton>
      ) : null}
      {checking ? (
        <Rows>
          {toCheck.map(({ organismId, organismName, text }) => (
            <li key={organismId}>
              {organismName}: <Small as="span">{text}</Small>{' '}
              <TextButton aria-label={t('duty.putOne', { name: organismName })} onPress={() => setPutting({ organismId, listed: null })}>
                {t('duty.put')}
              </TextButton>
            </li>
          ))}
        </Rows>
      ) : null}
    </Stack>
  )
}

/** Whose rules hold here, and whether the list was held against them: it is never taken for complete by itself. */
function RulesOf() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { rules } = site
  const [isOpen, setOpen] = useState(false)
  const entry = useEntry(endpoints.sites.setRules, { ...rules }, site, `rules ${site.id}`)
  const params = { siteId: site.id }
  const save = async (): Promise<void> => {
    if (await entry.submit(params, (values, rowVersion) => ({ ...values, rowVersion }))) setOpen(false)
  }
  const whose = [rules.region, rules.country].filter((name) => name !== '').join(', ')
  if (isOpen)
    return (
      <Stack>
        <Fields>
          <TextField label={t('rules.country')} width="24ch" {...entry.bind.text('country')} />
          <TextField label={t('rules.region')} width="24ch" hint={t('optional')} {...entry.bind.text('region')} />
        </Fields>
        <EntryEnd entry={entry} onSave={save} onCancel={() => setOpen(false)} />
      </Stack>
    )
  if (whose === '') return <TextButton onPress={() => setOpen(true)}>{t('rules.say')}</TextButton>
  return (
    <div>
      {rules.checkedOn === null ? (
        <Caution>{t('rules.unchecked', { whose })}</Caution>
      ) : (
        <Small>{t('rules.checked', { whose, date: f.withYear(rules.checkedOn) })}</Small>
      )}
      <Line>
        <TextButton
          isDisabled={entry.isBarred}
          onPress={() => void entry.submit(params, (_, rowVersion) => ({ ...rules, checkedOn: site.today, rowVersion }))}
        >
          {t(rules.checkedOn === null ? 'rules.isChecked' : 'rules.again')}
        </TextButton>
        <TextButton aria-label={t('rules.change')} onPress={() => setOpen(true)}>
          {t('duty.change')}
        </TextButton>
      </Line>
    </div>
  )
}

function PutOnList({ organismId, listed, taken, onDone }: Putting & { taken: readonly string[]; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: organisms = [] } = useOrganisms()
  const [chosen, setChosen] = useState(organismId)
  const [missing, setMissing] = useState(false)
  const entry = useEntry(
    endpoints.library.setReportable,
    { whom: listed?.whom ?? '', note: listed?.note ?? '' },
    listed,
    `${site.id} ${organismId ?? ''}`,
  )
  const save = async (): Promise<void> => {
    if (chosen === null) return setMissing(true)
    const params = { siteId: site.id, organismId: chosen }
    if (await entry.submit(params, (values, rowVersion) => ({ ...values, rowVersion: listed ? rowVersion : null }))) onDone()
  }
  return (
    <Stack>
      {organismId === null ? (
        <Select
          label={t('duty.organism')}
          placeholder={t('choose')}
          options={organisms.filter(({ id }) => !taken.includes(id)).map(({ id, name }) => ({ id, label: name }))}
          value={chosen}
          onChange={(id) => {
            setChosen(id)
            setMissing(false)
          }}
          error={missing ? t('duty.choose') : undefined}
        />
      ) : (
        <b>{organisms.find(({ id }) => id === organismId)?.name}</b>
      )}
      <TextField label={t('duty.whom')} {...entry.bind.text('whom')} />
      <TextField label={t('note')} {...entry.bind.text('note')} />
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
