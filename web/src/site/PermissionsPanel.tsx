import { endpoints, permissionKinds, type Permission } from '@bocado/contract'
import { useState } from 'react'
import { useBlocks, usePlaces, useProducts, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Caution, Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/equipment.js'
import '../messages/en/job.js'

/** Days before the end of a permission in which it is said. */
const SOON_DAYS = 30

/** Who allowed what, where, until when: owners, neighbours and authorities. Job sheets are held against it. */
export function PermissionsPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.permissions.list, { params: { siteId: site.id }, input: {} })
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: products = [] } = useProducts(site.id)
  const [open, setOpen] = useState<string | null>(null)
  if (!data) return null
  const where = (id: string | null): string => [...blocks, ...places].find((place) => place.id === id)?.name ?? t('permission.everywhere')
  const what = (id: string | null): string => products.find((product) => product.id === id)?.name ?? t('permission.anything')
  const soon = f.nudge(site.today, SOON_DAYS)
  return (
    <Stack>
      <Heading>{t('permission.title')}</Heading>
      {data.length === 0 && open === null ? <Small>{t('permission.none')}</Small> : null}
      <Rows>
        {data.map((one) => (
          <li key={one.id}>
            {open === one.id ? (
              <PermissionForm permission={one} onDone={() => setOpen(null)} />
            ) : (
              <>
                <b>{t(`permission.says.${one.kind}`, { who: one.byWhom })}</b>{' '}
                {t('permission.what', { product: what(one.productId), place: where(one.placeId) })}{' '}
                <Quiet>
                  {one.validUntil === null ? t('permission.noEnd') : t('permission.until', { date: f.withYear(one.validUntil) })}{' '}
                  {one.reference}
                </Quiet>{' '}
                <Line as="span" style={{ display: 'inline-flex' }}>
                  <TextButton aria-label={t('permission.edit', { who: one.byWhom })} onPress={() => setOpen(one.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.permissions.remove}
                    restore={endpoints.permissions.restore}
                    params={{ siteId: site.id, permissionId: one.id }}
                    rowVersion={one.rowVersion}
                    label={t('permission.removeOne', { who: one.byWhom })}
                    said={t('permission.removed', { who: one.byWhom })}
                  />
                </Line>
                {one.validUntil !== null && one.validUntil <= soon ? (
                  <Caution>
                    {one.validUntil < site.today
                      ? t('permission.over', { date: f.withYear(one.validUntil) })
                      : t('permission.soon', { date: f.dateInDays(one.validUntil) })}
                  </Caution>
                ) : null}
              </>
            )}
          </li>
        ))}
      </Rows>
      {open === 'new' ? (
        <PermissionForm onDone={() => setOpen(null)} />
      ) : (
        <TextButton onPress={() => setOpen('new')}>{t('permission.add')}</TextButton>
      )}
    </Stack>
  )
}

const ANY = 'any'
const orAny = (id: string | null): string => id ?? ANY
const orNull = (id: string): string | null => (id === ANY ? null : id)

function PermissionForm({ permission, onDone }: { permission?: Permission; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: products = [] } = useProducts(site.id)
  const { data: rules = [] } = useRead(endpoints.rules.list, { params: { siteId: site.id }, input: {} })
  const asking = rules.filter(({ kind }) => kind === 'consent')
  const initial = {
    kind: permission?.kind ?? ('consent' as Permission['kind']),
    byWhom: permission?.byWhom ?? '',
    // A rule that was removed asks for nothing any more.
    ruleId: orAny(asking.find(({ id }) => id === permission?.ruleId)?.id ?? null),
    placeId: orAny(permission?.placeId ?? null),
    productId: orAny(permission?.productId ?? null),
    validFrom: permission?.validFrom ?? (site.today as string | null),
    validUntil: permission?.validUntil ?? (null as string | null),
    reference: permission?.reference ?? '',
  }
  const add = useEntry(endpoints.permissions.add, initial, null, permission ? undefined : site.id)
  const update = useEntry(endpoints.permissions.update, initial, permission, permission?.id)
  const entry = permission ? update : add
  const { values, bind } = entry
  const typed = (v: typeof initial) => ({
    ...v,
    ruleId: v.kind === 'consent' ? orNull(v.ruleId) : null,
    placeId: orNull(v.placeId),
    productId: orNull(v.productId),
    validFrom: v.validFrom ?? '',
  })
  const save = async (): Promise<void> => {
    const saved = permission
      ? await update.submit({ siteId: site.id, permissionId: permission.id }, (v, rowVersion) => ({ ...typed(v), rowVersion }))
      : await add.submit({ siteId: site.id }, typed)
    if (saved) onDone()
  }
  const any = (label: string) => ({ id: ANY, label })
  const named = (all: readonly { id: string; name: string }[]) => all.map(({ id, name }) => ({ id, label: name }))
  return (
    <Stack>
      <Fields>
        <Select
          label={t('permission.kind')}
          placeholder={t('choose')}
          width="22ch"
          options={permissionKinds.map((id) => ({ id, label: t(`permission.kind.${id}`) }))}
          {...bind.choice('kind')}
        />
        <TextField label={t('permission.byWhom')} width="26ch" {...bind.text('byWhom')} autoFocus />
      </Fields>
      {values.kind === 'consent' && asking.length > 0 ? (
        <Select
          label={t('permission.rule')}
          placeholder={t('choose')}
          width="36ch"
          options={[any(t('permission.anyRule')), ...named(asking)]}
          {...bind.choice('ruleId')}
        />
      ) : null}
      <Fields>
        <Select
          label={t('permission.where')}
          placeholder={t('choose')}
          width="22ch"
          options={[any(t('permission.everywhere')), ...named([...blocks, ...places])]}
          {...bind.choice('placeId')}
        />
        <Select
          label={t('permission.product')}
          placeholder={t('choose')}
          width="26ch"
          options={[any(t('permission.anything')), ...named(products)]}
          {...bind.choice('productId')}
        />
      </Fields>
      <Fields>
        <DateField label={t('permission.from')} {...bind.day('validFrom')} />
        <DateField label={t('permission.to')} {...bind.day('validUntil')} />
        <TextField label={t('permission.reference')} width="22ch" hint={t('optional')} {...bind.text('reference')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
