import { chemicalPolicies, endpoints, ruleActs, ruleKinds, ruleOwners, type SiteRule } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks, useRead, useWrite } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { ruleSays } from './ruleWords.js'
import '../messages/en/rules.js'

/** Rules of the place that plans and hours are held against, and how the site uses chemicals. */
export function RulesPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.rules.list, { params: { siteId: site.id }, input: {} })
  const [open, setOpen] = useState<string | null>(null)
  const { data: blocks = [] } = useBlocks(site.id)
  const placeName = (id: string): string => blocks.find((block) => block.id === id)?.name ?? ''
  if (!data) return null
  // What a plant closes is changed with the plant.
  const written = data.filter(({ companionId }) => companionId === null)
  const year = site.today.slice(0, 4)
  return (
    <Stack>
      <Heading>{t('house.title')}</Heading>
      <Policy />
      <SharesFirst />
      {written.length === 0 && open === null ? <Small>{t('house.none')}</Small> : null}
      <Rows>
        {written.map((rule) => (
          <li key={rule.id}>
            {open === rule.id ? (
              <RuleForm rule={rule} onDone={() => setOpen(null)} />
            ) : (
              <>
                <b>{rule.name}</b>{' '}
                <Quiet>
                  {t(`house.owner.${rule.whose}`)}
                  {rule.placeId === null ? '' : `, ${placeName(rule.placeId)}`}
                </Quiet>
                <br />
                {ruleSays(rule, year, t, f)}
                {rule.source === '' ? null : (
                  <Small>
                    {rule.readOn === null
                      ? t('house.neverRead', { source: rule.source })
                      : t('house.written', { source: rule.source, date: f.withYear(rule.readOn) })}
                  </Small>
                )}{' '}
                <Line as="span" style={{ display: 'inline-flex' }}>
                  <TextButton aria-label={t('house.changeOne', { name: rule.name })} onPress={() => setOpen(rule.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.rules.remove}
                    restore={endpoints.rules.restore}
                    params={{ siteId: site.id, siteRuleId: rule.id }}
                    rowVersion={rule.rowVersion}
                    label={t('house.removeOne', { name: rule.name })}
                    said={t('house.removed', { name: rule.name })}
                  />
                </Line>
              </>
            )}
          </li>
        ))}
      </Rows>
      {open === 'new' ? (
        <RuleForm onDone={() => setOpen(null)} />
      ) : (
        <TextButton onPress={() => setOpen('new')}>{t('house.add')}</TextButton>
      )}
    </Stack>
  )
}

/** Whether first finds are told to other sites of the server; only whoever owns it says so. */
function SharesFirst() {
  const t = useText()
  const site = useSite()
  const mayShare = useMay('own')
  const { save, isBarred } = useWrite(endpoints.sites.shareFirst)
  if (!mayShare) return null
  return (
    <div>
      <Checkbox
        label={t('house.sharesFirst')}
        isDisabled={isBarred}
        value={site.sharesFirst}
        onChange={(sharesFirst) => void save({ params: { siteId: site.id }, input: { sharesFirst, rowVersion: site.rowVersion } })}
      />
      <Small>{t('house.sharesFirstWhat')}</Small>
    </div>
  )
}

/** How the site uses chemicals, and its certificate. */
function Policy() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { chemicals, certificate, certifiedOn } = site.policy
  const [isOpen, setOpen] = useState(false)
  const entry = useEntry(endpoints.sites.setPolicy, { ...site.policy }, site, `policy ${site.id}`)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, (values, rowVersion) => ({ ...values, rowVersion }))) setOpen(false)
  }
  if (!isOpen)
    return (
      <p>
        {t('policy.title')}: {t(`policy.${chemicals}`, { certificate, since: certifiedOn === null ? 'none' : f.withYear(certifiedOn) })}{' '}
        <TextButton aria-label={t('policy.change')} onPress={() => setOpen(true)}>
          {t('edit')}
        </TextButton>
      </p>
    )
  return (
    <Stack>
      <Select
        label={t('policy.use')}
        placeholder={t('choose')}
        options={chemicalPolicies.map((id) => ({ id, label: t(`policy.use.${id}`) }))}
        {...entry.bind.choice('chemicals')}
      />
      {entry.values.chemicals === 'organic' ? (
        <Fields>
          <TextField label={t('policy.certificate')} width="24ch" {...entry.bind.text('certificate')} />
          <DateField label={t('policy.certifiedOn')} {...entry.bind.day('certifiedOn')} />
        </Fields>
      ) : null}
      <EntryEnd entry={entry} onSave={save} onCancel={() => setOpen(false)} />
    </Stack>
  )
}

/** Stands for the whole site. */
const EVERYWHERE = 'everywhere'

const NEW = {
  name: '',
  kind: null as SiteRule['kind'] | null,
  act: null as SiteRule['act'] | null,
  whose: 'own' as SiteRule['whose'],
  placeId: null as string | null,
  fromHour: null as number | null,
  untilHour: null as number | null,
  amount: null as number | null,
  source: '',
  readOn: null as string | null,
}

/** A rule: what it says, what it sets, and the numbers that this needs. */
function RuleForm({ rule, onDone }: { rule?: SiteRule; onDone: () => void }) {
  const t = useText()
  const { wind, height } = useFormat().measures
  const site = useSite()
  // A day of the year is chosen as one of this year.
  const dated = (day: string | null): string | null => (day === null ? null : `${site.today.slice(0, 4)}-${day}`)
  const {
    id: _,
    rowVersion: __,
    blockId: ___,
    companionId: ____,
    fromDay,
    untilDay,
    placeId,
    ...rest
  } = rule ?? {
    ...NEW,
    id: '',
    rowVersion: 0,
    blockId: null,
    companionId: null,
    fromDay: null,
    untilDay: null,
  }
  const initial = { ...rest, placeId: placeId ?? EVERYWHERE, fromDay: dated(fromDay), untilDay: dated(untilDay) }
  const { data: blocks = [] } = useBlocks(site.id)
  const add = useEntry(endpoints.rules.add, initial, null, rule ? undefined : site.id)
  const update = useEntry(endpoints.rules.update, initial, rule, rule?.id)
  const entry = rule ? update : add
  const { values, bind } = entry
  const { kind } = values
  const typed = (v: typeof initial) => ({
    ...v,
    kind: v.kind ?? undefined,
    act: v.act ?? undefined,
    placeId: v.placeId === EVERYWHERE ? null : v.placeId,
    fromDay: v.fromDay?.slice(5) ?? null,
    untilDay: v.untilDay?.slice(5) ?? null,
  })
  const save = async (): Promise<void> => {
    const saved = rule
      ? await update.submit({ siteId: site.id, siteRuleId: rule.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  const amount = { wind, 'kept-clear': height, notice: null, consent: null, 'closed-days': null, 'closed-hours': null }
  const measure = kind === null ? null : amount[kind]
  return (
    <Stack>
      <TextField label={t('house.name')} width="100%" {...bind.text('name')} autoFocus />
      <Fields>
        <Select
          label={t('house.kind')}
          placeholder={t('choose')}
          width="19ch"
          options={ruleKinds.map((id) => ({ id, label: t(`house.kind.${id}`) }))}
          {...bind.choice('kind')}
        />
        <Select
          label={t('house.act')}
          placeholder={t('choose')}
          width="22ch"
          options={ruleActs.map((id) => ({ id, label: t(`house.act.${id}`) }))}
          {...bind.choice('act')}
        />
        <Select
          label={t('house.where')}
          placeholder=""
          width="20ch"
          options={[{ id: EVERYWHERE, label: t('house.everywhere') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
          {...bind.choice('placeId')}
        />
      </Fields>
      {kind === 'closed-hours' ? (
        <Fields>
          <NumberField label={t('house.fromHour')} width="12ch" digits={1} {...bind.number('fromHour')} />
          <NumberField label={t('house.untilHour')} width="12ch" digits={1} {...bind.number('untilHour')} />
        </Fields>
      ) : null}
      {kind === 'wind' || kind === 'notice' || kind === 'kept-clear' ? (
        <NumberField
          label={t(`house.amount.${kind}`)}
          width="14ch"
          digits={measure?.digits ?? 0}
          unit={measure?.unit ?? t('days')}
          {...bind.number('amount', measure ?? undefined)}
        />
      ) : null}
      {kind === null ? null : (
        <Fields>
          <DateField label={t('house.from')} {...bind.day('fromDay')} />
          <DateField label={t('house.until')} {...bind.day('untilDay')} />
          <Small>{t('house.yearly')}</Small>
        </Fields>
      )}
      <Fields>
        <Select
          label={t('house.whose')}
          placeholder={t('choose')}
          width="18ch"
          options={ruleOwners.map((id) => ({ id, label: t(`house.whose.${id}`) }))}
          {...bind.choice('whose')}
        />
        {values.whose === 'law' ? <TextField label={t('house.source')} width="26ch" {...bind.text('source')} /> : null}
        {values.whose === 'law' ? <DateField label={t('house.readOn')} {...bind.day('readOn')} /> : null}
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
