import { bloomEvents, endpoints, type BloomTrigger, type Indicator } from '@bocado/contract'
import { Link } from 'react-router'
import { useBand, useBlocks, useProducts } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Columns, Fields, Heading, Line, Rows, Sheet, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'

function useTriggerWords(plants: readonly Indicator[]) {
  const t = useText()
  const f = useFormat()
  return (trigger: BloomTrigger): string =>
    t('trigger.line', {
      plant: trigger.plantId === null ? 'none' : (plants.find(({ id }) => id === trigger.plantId)?.name ?? trigger.plantId),
      event: trigger.eventName ?? t(`bloom.event.${trigger.event as (typeof bloomEvents)[number]}`),
      days: trigger.daysAfter,
      action: trigger.action,
      product: trigger.productName ?? '',
      watch: trigger.watchName,
      state: trigger.state,
      due: trigger.dueOn ? f.dateInDays(trigger.dueOn) : '',
    })
}

/** What is due because of a bloom that was seen, beside what blooms say. */
export function DueTriggers({ triggers, plants }: { triggers: readonly BloomTrigger[]; plants: readonly Indicator[] }) {
  const t = useText()
  const site = useSite()
  const words = useTriggerWords(plants)
  const due = triggers.filter(({ state }) => state === 'due' || state === 'coming')
  if (due.length === 0) return null
  return (
    <Stack data-testid="due-triggers">
      <Heading>{t('trigger.due')}</Heading>
      {due.map((trigger) => (
        <p key={trigger.id}>
          {words(trigger)}{' '}
          <Link
            to={`/sites/${site.id}/${trigger.action === 'scout' ? `scouting/${trigger.watchId}/count` : `windows?watch=${trigger.watchId}`}`}
          >
            {t(trigger.action === 'scout' ? 'trigger.count' : 'trigger.plan')}
          </Link>
        </p>
      ))}
    </Stack>
  )
}

/** Scout or treat once a bloom is seen. */
export function Triggers({ triggers, plants }: { triggers: readonly BloomTrigger[]; plants: readonly Indicator[] }) {
  const t = useText()
  const site = useSite()
  const words = useTriggerWords(plants)
  return (
    <Columns $left="1fr" $right="1fr">
      <AddTrigger plants={plants} />
      <Stack>
        <Heading>{t('trigger.title')}</Heading>
        {triggers.length === 0 ? <p>{t('trigger.none')}</p> : null}
        <Rows data-testid="triggers">
          {triggers.map((trigger) => {
            return (
              <li key={trigger.id}>
                <Line>
                  <span style={{ flex: '1 1 26ch' }}>{words(trigger)}</span>
                  <RemoveButton
                    remove={endpoints.bloom.removeTrigger}
                    restore={endpoints.bloom.restoreTrigger}
                    params={{ siteId: site.id, recordId: trigger.id }}
                    rowVersion={trigger.rowVersion}
                    label={t('trigger.removeOne', { watch: trigger.watchName })}
                    said={t('trigger.removed')}
                  />
                </Line>
              </li>
            )
          })}
        </Rows>
      </Stack>
    </Columns>
  )
}

/** Stands for the organism that is watched, in place of a plant. */
const ITSELF = 'itself'

function AddTrigger({ plants }: { plants: readonly Indicator[] }) {
  const t = useText()
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: products = [] } = useProducts(site.id)
  const initial = {
    plantId: null as string | null,
    event: 'first-open',
    daysAfter: 0 as number | null,
    watchId: null as string | null,
    action: 'scout' as 'scout' | 'treat',
    productId: null as string | null,
  }
  const form = useEntry(endpoints.bloom.addTrigger, initial, null, site.id)
  const { values, set, errors } = form
  const watched = band?.watches.find(({ watch }) => watch.id === values.watchId)
  const events =
    values.plantId !== ITSELF
      ? bloomEvents.map((id) => ({ id, label: t(`bloom.event.${id}`) }))
      : [...(watched?.events ?? []), ...(watched?.named ?? [])]
          .filter(({ id }, i, all) => all.findIndex((one) => one.id === id) === i)
          .map(({ id, name }) => ({ id, label: name }))
  const save = async (): Promise<void> => {
    const saved = await form.submit({ siteId: site.id }, (v) => ({
      ...v,
      plantId: v.plantId === ITSELF ? null : (v.plantId ?? ''),
      daysAfter: v.daysAfter ?? undefined,
      watchId: v.watchId ?? '',
      productId: v.action === 'treat' ? v.productId : null,
    }))
    if (saved) form.beginWith({ ...values, watchId: null })
  }
  return (
    <Sheet>
      <Stack>
        <Heading>{t('trigger.add')}</Heading>
        <DraftNote entry={form} />
        <Fields>
          <Select
            label={t('trigger.when')}
            placeholder={t('choose')}
            width="22ch"
            options={[...plants.map(({ id, name }) => ({ id, label: name })), { id: ITSELF, label: t('trigger.itself') }]}
            value={values.plantId}
            onChange={(plantId) => set({ plantId, event: plantId === ITSELF ? '' : 'first-open' })}
            error={errors['plantId']}
          />
          <Select
            label={t('bloom.what')}
            placeholder={t('choose')}
            width="20ch"
            options={events}
            value={values.event === '' ? null : values.event}
            onChange={(event) => set({ event })}
            error={errors['event']}
          />
          <NumberField
            label={t('trigger.after')}
            unit={t('trigger.daysUnit')}
            width="14ch"
            digits={0}
            value={values.daysAfter}
            onChange={(daysAfter) => set({ daysAfter })}
            error={errors['daysAfter']}
          />
        </Fields>
        <Fields>
          <Select
            label={t('trigger.do')}
            placeholder={t('choose')}
            width="16ch"
            options={(['scout', 'treat'] as const).map((id) => ({ id, label: t(`trigger.action.${id}`) }))}
            value={values.action}
            onChange={(action) => set({ action: action as 'scout' | 'treat' })}
          />
          <Select
            label={t('trigger.watch')}
            placeholder={t('choose')}
            width="30ch"
            options={(band?.watches ?? []).map(({ watch, organismName }) => ({
              id: watch.id,
              label: `${organismName}, ${blocks.find(({ id }) => id === watch.blockId)?.name ?? ''}`,
            }))}
            value={values.watchId}
            onChange={(watchId) => set(values.plantId === ITSELF ? { watchId, event: '' } : { watchId })}
            error={errors['watchId']}
          />
          {values.action === 'treat' ? (
            <Select
              label={t('trigger.product')}
              placeholder={t('choose')}
              width="26ch"
              options={products.map(({ id, name }) => ({ id, label: name }))}
              value={values.productId}
              onChange={(productId) => set({ productId })}
              error={errors['productId']}
            />
          ) : null}
        </Fields>
        <Caution>{t('trigger.caution')}</Caution>
        <FormError text={form.general} />
        <FormLine onSave={save} isBarred={form.isBarred}>
          <Button onPress={() => void save()} isDisabled={form.isBarred}>
            {t('save')}
          </Button>
        </FormLine>
      </Stack>
    </Sheet>
  )
}
