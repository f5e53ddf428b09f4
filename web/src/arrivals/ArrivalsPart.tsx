import { endpoints, type Arrival } from '@bocado/contract'
import { useState } from 'react'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { WithActions } from '../design/sections.js'
import { Caution, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { partLater } from '../shell/partLater.js'
import '../messages/en/arrivals.js'

/** Needed by those who write down what came. */
const ArrivalForm = partLater(async () => (await import('./ArrivalForm.js')).ArrivalForm)

/** As many as came of late. */
const SHOWN = 4

/** What came in from elsewhere, what looks at it showed, and what it may have brought along. */
export function ArrivalsPart({ all }: { all: readonly Arrival[] }) {
  const t = useText()
  const [open, setOpen] = useState<string | null>(null)
  const [most, setMost] = useState(SHOWN)
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('arrivals.title')}</Heading>
        {open === 'new' ? null : <TextButton onPress={() => setOpen('new')}>{t('arrivals.add')}</TextButton>}
      </Line>
      {open === 'new' ? <ArrivalForm onDone={() => setOpen(null)} /> : null}
      {all.length === 0 && open !== 'new' ? <Small>{t('arrivals.none')}</Small> : null}
      <Rows>
        {all.slice(0, most).map((arrival) => (
          <li key={arrival.id}>
            {open === arrival.id ? (
              <ArrivalForm arrival={arrival} onDone={() => setOpen(null)} />
            ) : (
              <ArrivalLine arrival={arrival} onEdit={() => setOpen(arrival.id)} />
            )}
          </li>
        ))}
      </Rows>
      {all.length > most ? (
        <TextButton onPress={() => setMost(most + 50)}>{t('arrivals.more', { count: all.length - most })}</TextButton>
      ) : null}
    </Stack>
  )
}

function ArrivalLine({ arrival, onEdit }: { arrival: Arrival; onEdit: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { name, rootLook, stemLook, isolatedUntil, releasedOn, carries } = arrival
  const isOpen = releasedOn === null
  const hasSigns = rootLook === 'signs' || stemLook === 'signs'
  const isUnseen = rootLook === 'not-looked' || stemLook === 'not-looked'
  return (
    <>
      <WithActions>
        <span>
          <b>{t('arrivals.line', { name, source: arrival.source || 'none' })}</b>{' '}
          <Quiet>{t('arrivals.came', { date: f.date(arrival.arrivedOn), place: arrival.placeName })}</Quiet>
          <Small>
            {t('arrivals.looks', { root: t(`arrivals.look.${rootLook}`), stem: t(`arrivals.look.${stemLook}`) })}. {arrival.note}
          </Small>
        </span>
        <Line>
          <TextButton onPress={onEdit} aria-label={`${t('arrivals.edit')}: ${name}`}>
            {t('arrivals.edit')}
          </TextButton>
          <RemoveButton
            remove={endpoints.arrivals.remove}
            restore={endpoints.arrivals.restore}
            params={{ siteId: site.id, arrivalId: arrival.id }}
            rowVersion={arrival.rowVersion}
            label={t('arrivals.remove', { name })}
            said={t('arrivals.removed', { name })}
          />
        </Line>
      </WithActions>
      {isOpen && hasSigns ? <Caution>{t('arrivals.isSigns')}</Caution> : null}
      {isOpen && carries.length > 0 ? (
        <Caution>
          {t('arrivals.carries', {
            list: carries
              .map(({ organismName, what, day }) => t(`arrivals.carried.${what}`, { name: organismName, date: day ? f.date(day) : '' }))
              .join('; '),
          })}
        </Caution>
      ) : null}
      {isOpen && isUnseen ? <Small>{t('arrivals.unlooked')}</Small> : null}
      {isOpen && isolatedUntil !== null ? (
        <Small>{t(isolatedUntil > site.today ? 'arrivals.isApart' : 'arrivals.isOver', { date: f.date(isolatedUntil) })}</Small>
      ) : null}
    </>
  )
}
