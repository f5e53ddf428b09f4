import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import { useBlocks, usePlaces, useRead } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Fields, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/finds.js'

/** Links and boards by which anybody may tell the site what they found; for who leads it. */
export function FindLinks() {
  return useMay('lead') ? <Links /> : null
}

function Links() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [isNew, setNew] = useState(false)
  const { data } = useRead(endpoints.finds.links, { params: { siteId: site.id }, input: {} })
  if (!data) return null
  return (
    <Stack>
      <Heading>{t('findLinks.title')}</Heading>
      {data.length === 0 ? <Small>{t('findLinks.none')}</Small> : null}
      <Rows>
        {data.map(({ id, name, placeName, endsOn, sent, rowVersion }) => (
          <li key={id}>
            <b>{name}</b>{' '}
            <Quiet>
              {t('findLinks.line', { where: placeName ?? t('findLinks.anywhere'), sent })}
              {endsOn === null ? '' : `, ${t('findLinks.until', { date: f.withYear(endsOn) })}`}
            </Quiet>{' '}
            <Line as="span" style={{ display: 'inline-flex' }}>
              <Link to={`/sites/${site.id}/found-board?link=${id}`} aria-label={t('findLinks.signNamed', { name })}>
                {t('findLinks.sign')}
              </Link>
              <RemoveButton
                remove={endpoints.finds.removeLink}
                restore={endpoints.finds.restoreLink}
                params={{ siteId: site.id, findLinkId: id }}
                rowVersion={rowVersion}
                words={t('findLinks.end')}
                label={t('findLinks.endNamed', { name })}
                said={t('findLinks.ended', { name })}
              />
            </Line>
          </li>
        ))}
      </Rows>
      {isNew ? <NewLink onDone={() => setNew(false)} /> : <TextButton onPress={() => setNew(true)}>{t('findLinks.add')}</TextButton>}
    </Stack>
  )
}

const ANYWHERE = 'anywhere'

function NewLink({ onDone }: { onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const entry = useEntry(endpoints.finds.addLink, { name: '', placeId: ANYWHERE, endsOn: null as string | null }, null, site.id)
  const { bind } = entry
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id }, (v) => ({ ...v, placeId: v.placeId === ANYWHERE ? null : v.placeId }))
    if (saved) onDone()
  }
  return (
    <Stack>
      <TextField label={t('findLinks.name')} autoFocus {...bind.text('name')} />
      <Fields>
        <Select
          label={t('findLinks.place')}
          placeholder={t('choose')}
          width="22ch"
          options={[
            { id: ANYWHERE, label: t('findLinks.anywhere') },
            ...[...blocks, ...places].map(({ id, name }) => ({ id, label: name })),
          ]}
          {...bind.choice('placeId')}
        />
        <DateField label={t('findLinks.endsOn')} {...bind.day('endsOn')} />
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
