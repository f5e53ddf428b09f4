import { alertKinds, endpoints, mailWays, pushWays, type Alert, type AlertSettings } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Several } from '../design/Several.js'
import { Columns, Fields, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { alertSays } from './alertWords.js'
import { OnThisDevice } from './OnThisDevice.js'
import '../messages/en/alerts.js'

/** What was worth telling, and how it reaches one elsewhere. */
export function AlertsScreen() {
  const t = useText()
  usePageTitle(t('alert.title'))
  const site = useSite()
  const { others } = useWorkplace()
  const params = { siteId: site.id }
  const { data: all } = useRead(endpoints.alerts.list, { params, input: {} })
  const { data: settings } = useRead(endpoints.alerts.settings, { params, input: {} })
  if (!all || !settings) return <Waiting />
  return (
    <Page>
      <Columns $left="3fr" $right="2fr">
        <Told all={all} />
        <Stack $gap={28}>
          <How key={`${settings.push} ${settings.devices}`} settings={settings} />
          <OnThisDevice settings={settings} />
          <Calendar settings={settings} />
          {others ? (
            <Small>
              <Link to={`/sites/${site.id}/inbox`}>{t('inbox.title')}</Link>
            </Small>
          ) : null}
        </Stack>
      </Columns>
    </Page>
  )
}

/** Where an alert is acted on. */
function pathOf({ kind, watchId }: Alert, siteId: string): string {
  if (kind === 'count' && watchId !== null) return `/sites/${siteId}/scouting/${watchId}/count`
  if (watchId !== null) return `/sites/${siteId}/windows?watch=${watchId}`
  const screens: Partial<Record<Alert['kind'], string>> = {
    bloom: 'bloom',
    silent: 'weather',
    frost: 'weather',
    hours: 'treatments',
    entry: 'treatments',
    order: 'schedule',
    keeps: 'schedule',
  }
  return `/sites/${siteId}/${screens[kind] ?? 'today'}`
}

function Told({ all }: { all: readonly Alert[] }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { save, isBarred } = useWrite(endpoints.alerts.see)
  const fresh = all.filter(({ seen }) => !seen).length
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t('alert.title')}</Title>
        {fresh > 0 ? (
          <TextButton isDisabled={isBarred} onPress={() => void save({ params: { siteId: site.id }, input: {} })}>
            {t('alert.seen')}
          </TextButton>
        ) : null}
      </Line>
      {all.length === 0 ? <Small>{t('alert.none')}</Small> : null}
      <Rows data-testid="alerts">
        {all.map((alert) => (
          <li key={alert.id}>
            <Link to={pathOf(alert, site.id)}>{alert.seen ? alertSays(alert, t, f) : <b>{alertSays(alert, t, f)}</b>}</Link>
            <br />
            <Quiet>
              {t('alert.made', { when: f.moment(alert.madeAt) })}
              {alert.urgent ? `, ${t('alert.urgent')}` : ''}
            </Quiet>
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

const NO_HOUR = 'none'
const HOURS = Array.from({ length: 24 }, (_, hour) => hour)

function How({ settings }: { settings: AlertSettings }) {
  const t = useText()
  const site = useSite()
  const { canMail, calendarSince: _, devices, quietFrom, quietUntil, digestHour, ...rest } = settings
  const typed = (hour: number | null): string => (hour === null ? NO_HOUR : String(hour))
  const read = (hour: string): number | null => (hour === NO_HOUR ? null : Number(hour))
  const entry = useEntry(endpoints.alerts.set, {
    ...rest,
    muted: [...rest.muted] as string[],
    quietFrom: typed(quietFrom),
    quietUntil: typed(quietUntil),
    digestHour: String(digestHour),
  })
  const [isSaved, setSaved] = useState(false)
  const { bind, values } = entry
  const save = async (): Promise<void> => {
    const input = (v: typeof values) => ({
      ...v,
      quietFrom: read(v.quietFrom),
      quietUntil: read(v.quietUntil),
      digestHour: Number(v.digestHour),
    })
    setSaved((await entry.submit({ siteId: site.id }, input)) !== undefined)
  }
  const hours = HOURS.map((hour) => ({ id: String(hour), label: t('alert.hour', { hour: String(hour).padStart(2, '0') }) }))
  const orNone = [{ id: NO_HOUR, label: t('alert.noHour') }, ...hours]
  return (
    <Stack>
      <Heading>{t('alert.how')}</Heading>
      <Small>{t('alert.howText')}</Small>
      {canMail ? null : <Small>{t('alert.cannotMail')}</Small>}
      <Fields>
        <Select
          label={t('alert.mail')}
          placeholder={t('choose')}
          width="20ch"
          isDisabled={!canMail}
          options={mailWays.map((id) => ({ id, label: t(`alert.mail.${id}`) }))}
          {...bind.choice('mail')}
        />
        {values.mail === 'digest' ? (
          <Select label={t('alert.digestHour')} placeholder={t('choose')} width="10ch" options={hours} {...bind.choice('digestHour')} />
        ) : null}
      </Fields>
      {devices > 0 ? (
        <Select
          label={t('alert.push', { count: devices })}
          placeholder={t('choose')}
          width="30ch"
          options={pushWays.map((id) => ({ id, label: t(`alert.push.${id}`) }))}
          {...bind.choice('push')}
        />
      ) : null}
      {values.mail === 'none' ? null : (
        <>
          <TextField label={t('alert.address')} width="100%" autoComplete="email" {...bind.text('address')} />
          {values.mail === 'at-once' ? (
            <Fields>
              <Select label={t('alert.quiet')} placeholder={t('choose')} width="17ch" options={orNone} {...bind.choice('quietFrom')} />
              <Select
                label={t('alert.quietUntil')}
                placeholder={t('choose')}
                width="17ch"
                options={orNone}
                {...bind.choice('quietUntil')}
              />
            </Fields>
          ) : null}
          <Checkbox label={t('alert.urgentAnyway')} {...bind.check('urgentAnyway')} />
          <Several
            label={t('alert.muted')}
            placeholder={t('choose')}
            options={alertKinds.map((id) => ({ id, label: t(`alert.kind.${id}`) }))}
            value={values.muted}
            onChange={(muted) => entry.set({ muted })}
            dropWords={(name) => t('alert.mutedNot', { name })}
          />
        </>
      )}
      <FormError text={entry.general} />
      <Line>
        <Button onPress={() => void save()} isDisabled={entry.isBarred}>
          {t('save')}
        </Button>
        {isSaved ? <Small role="status">{t('alert.saved')}</Small> : null}
      </Line>
    </Stack>
  )
}

/** The link by which a calendar reads what lies further ahead. */
function Calendar({ settings: { calendarSince } }: { settings: AlertSettings }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id }
  const make = useWrite(endpoints.alerts.makeCalendar)
  const end = useWrite(endpoints.alerts.endCalendar)
  const [link, setLink] = useState<string | null>(null)
  const press = async (): Promise<void> => {
    const { token } = await make.save({ params, input: {} })
    setLink(`${location.origin}/api/v1/calendar/${token}.ics`)
  }
  const finish = async (): Promise<void> => {
    await end.save({ params, input: {} })
    setLink(null)
  }
  return (
    <Stack>
      <Heading>{t('alert.calendar')}</Heading>
      <Small>{t('alert.calendarText')}</Small>
      {link === null ? (
        calendarSince === null ? null : (
          <p>{t('alert.calendarSince', { since: f.moment(calendarSince) })}</p>
        )
      ) : (
        <>
          <p style={{ overflowWrap: 'anywhere' }} data-testid="calendar-link">
            {link}
          </p>
          <Small>{t('alert.calendarOnce')}</Small>
        </>
      )}
      <Line>
        {link === null ? null : <TextButton onPress={() => void navigator.clipboard.writeText(link)}>{t('alert.copy')}</TextButton>}
        <TextButton isDisabled={make.isBarred} onPress={() => void press()}>
          {t(calendarSince === null ? 'alert.calendarMake' : 'alert.calendarAgain')}
        </TextButton>
        {calendarSince === null ? null : (
          <TextButton isDisabled={end.isBarred} onPress={() => void finish()}>
            {t('alert.calendarEnd')}
          </TextButton>
        )}
      </Line>
    </Stack>
  )
}
