import { endpoints, type AuditEntry } from '@bocado/contract'
import { useState } from 'react'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import '../messages/en/account.js'
import '../messages/en/audit.js'

const ALL = 'all'

/** Kinds of things that have a word; others are told by the name that the record has for them. */
const KINDS = [
  'place',
  'site',
  'site_person',
  'deed',
  'round',
  'flag',
  'flag_visit',
  'search',
  'trap',
  'watch',
  'product',
  'station',
  'bloom_record',
  'event_record',
  'typed_day',
  'link',
  'phone',
  'ground_shape',
  'harvest',
  'site_rule',
  'programme',
  'job',
  'arrangement',
  'supply',
  'machine',
  'trial',
  'plot',
  'plot_look',
  'wanted_plant',
  'replacement',
  'companion',
  'find_link',
  'public_find',
  'review_note',
  'lot',
  'permission',
  'notice',
  'soil_reading',
  'planting',
  'crop_stage',
  'decision',
  'arrival',
  'plant_event',
  'aerial_image',
  'trap_lure',
  'second_look',
] as const
const isKind = (entity: string): entity is (typeof KINDS)[number] => (KINDS as readonly string[]).includes(entity)

/** Who changed what at the site, the newest first. */
export function AuditScreen() {
  const t = useText()
  const site = useSite()
  usePageTitle(t('audit.title'))
  const [personId, setPersonId] = useState(ALL)
  const [pages, setPages] = useState<readonly (number | undefined)[]>([undefined])
  const by = personId === ALL ? {} : { personId }
  return (
    <Page>
      <Stack>
        <Line $gap={16}>
          <Title>{t('audit.title')}</Title>
          <Select
            hideLabel
            label={t('audit.by')}
            placeholder={t('choose')}
            width="24ch"
            options={[{ id: ALL, label: t('audit.everybody') }, ...site.people.map(({ id, name }) => ({ id, label: name }))]}
            value={personId}
            onChange={(id) => {
              setPersonId(id)
              setPages([undefined])
            }}
          />
          <a href={`/api/v1/sites/${site.id}/audit.csv`}>{t('audit.csv')}</a>
        </Line>
        <Small>{t('audit.text')}</Small>
        <SignIns />
        {pages.map((before, i) => (
          <Entries
            key={before ?? 'newest'}
            input={{ ...by, ...(before === undefined ? {} : { before }) }}
            onMore={i === pages.length - 1 ? (last) => setPages([...pages, last]) : undefined}
          />
        ))}
      </Stack>
    </Page>
  )
}

/** Who signed in lately, where it is asked for. */
function SignIns() {
  return (
    <Unfold title={useText()('audit.signIns')}>
      <SignInList />
    </Unfold>
  )
}

function SignInList() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.audit.signIns, { params: { siteId: site.id }, input: {} })
  if (!data) return <Waiting />
  return (
    <Rows>
      {data.map(({ name, how, phone, at, seenAt }) => (
        <li key={`${name} ${at} ${how}`}>
          {name}{' '}
          <Quiet>
            {phone === null ? t(`account.how.${how}`) : t('audit.onPhone', { phone })},{' '}
            {t('audit.signedIn', { at: f.moment(at), seen: f.moment(seenAt) })}
          </Quiet>
        </li>
      ))}
    </Rows>
  )
}

function Entries({ input, onMore }: { input: { before?: number; personId?: string }; onMore: ((last: number) => void) | undefined }) {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.audit.list, { params: { siteId: site.id }, input })
  if (!data) return <Waiting />
  const last = data.entries.at(-1)
  if (!last) return <p>{t('audit.nothing')}</p>
  return (
    <>
      <Rows>
        {data.entries.map((entry) => (
          <li key={entry.id}>
            <Entry entry={entry} />
          </li>
        ))}
      </Rows>
      {data.isMore && onMore ? <TextButton onPress={() => onMore(last.id)}>{t('audit.more')}</TextButton> : null}
    </>
  )
}

function Entry({ entry }: { entry: AuditEntry }) {
  const t = useText()
  const f = useFormat()
  const { at, by, action, entity, name, changes } = entry
  const kind = isKind(entity) ? t(`audit.of.${entity}`) : entity.replaceAll('_', ' ')
  const values = changes.map(({ field, before, after }) => (
    <li key={field}>
      <Small>
        {t('audit.value', { field: field.replaceAll('_', ' '), before: before ?? t('audit.none'), after: after ?? t('audit.none') })}
      </Small>
    </li>
  ))
  return (
    <>
      <Line>
        <span>{t(`audit.${action}`, { by, kind, name: name ?? '' })}</span>
        <Quiet>{f.moment(at)}</Quiet>
      </Line>
      {action === 'change' ? (
        <ul>{values}</ul>
      ) : changes.length > 0 ? (
        <details>
          <summary>{t('audit.details')}</summary>
          <ul>{values}</ul>
        </details>
      ) : null}
    </>
  )
}
