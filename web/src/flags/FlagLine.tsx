import { endpoints, type Block, type Flag, type FlagVisit, type Organism } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { nameOf } from '../api/unsent.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { WithActions } from '../design/sections.js'
import { Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour, PHONE } from '../design/theme.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { FlagEdit } from './FlagForm.js'
import { NoneStands } from './NoneStands.js'
import { VisitForm } from './VisitForm.js'

const Row = styled.div<{ $chosen: boolean }>`
  ${({ $chosen }) => ($chosen ? `box-shadow: -12px 0 0 ${colour.ground}, -16px 0 0 ${colour.petrol};` : '')}
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 4px 16px;
  align-items: start;
  @media ${PHONE} {
    grid-template-columns: minmax(0, 1fr);
  }
`
const Due = styled.b`
  border-left: 4px solid ${colour.pollen};
  padding-left: 6px;
`
const Wide = styled.div`
  grid-column: 1 / -1;
`

/** A flag in two lines: what and where, and how it stands; its visits and its form when it is chosen. */
export function FlagLine(p: {
  flag: Flag
  blocks: readonly Block[]
  organisms: readonly Organism[]
  isChosen: boolean
  onChoose: (id: string | null) => void
  /** As of a day that is past nothing is written down. */
  isPast: boolean
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { flag, isChosen, isPast } = p
  const [doing, setDoing] = useState<'visit' | 'edit' | null>(null)
  const name = flag.organismName ?? t('flags.unnamed')
  const organism = p.organisms.find(({ id }) => id === flag.organismId)
  const isDue = flag.dueOn !== null && flag.dueOn <= site.today
  const begin = (what: 'visit' | 'edit'): void => {
    setDoing(what)
    p.onChoose(flag.id)
  }
  const facts = factsOf(flag, useSeenWords(organism), t, f)
  return (
    <Row $chosen={isChosen}>
      <div>
        <TextButton
          aria-expanded={isChosen}
          aria-label={t('flags.open', { number: flag.number, name })}
          onPress={() => p.onChoose(isChosen ? null : flag.id)}
        >
          <b>
            #{flag.number} {name}
          </b>
        </TextButton>{' '}
        <Quiet>{flag.placeName}</Quiet>
        <p>
          {t(`flags.state.${flag.state}`, { date: dayIn(flag.last.seenOn, f) })}
          {facts ? `, ${facts}` : ''}{' '}
          {flag.dueOn === null ? null : isDue ? (
            <Due>{t('flags.dueSince', { date: f.date(flag.dueOn) })}</Due>
          ) : (
            <Small as="span">{t('flags.dueOn', { date: f.date(flag.dueOn) })}</Small>
          )}
        </p>
        <UnsentHere of={({ what, input }) => what === nameOf(endpoints.flags.visit) && input['flagId'] === flag.id} />
      </div>
      {isPast ? null : (
        <Line>
          {flag.state === 'gone' || doing === 'visit' ? null : <NoneStands flag={flag} name={name} />}
          {doing === 'visit' ? null : (
            <Button $plain onPress={() => begin('visit')} aria-label={t('flags.visitNamed', { number: flag.number, name })}>
              {t('flags.visit')}
            </Button>
          )}
        </Line>
      )}
      {doing === 'visit' ? (
        <Wide>
          <VisitForm flag={flag} name={name} organism={organism} onDone={() => setDoing(null)} />
        </Wide>
      ) : null}
      {isChosen && doing === null ? (
        <Wide>
          <Visits flag={flag} name={name} organism={organism} isPast={isPast} onEdit={() => begin('edit')} />
        </Wide>
      ) : null}
      {doing === 'edit' ? (
        <Wide>
          <FlagEdit {...p} onDone={() => setDoing(null)} />
        </Wide>
      ) : null}
    </Row>
  )
}

/** A day of this year by its weekday, an older one by its year. */
const dayIn = (day: string, f: Format): string => (day.slice(0, 4) === f.today.slice(0, 4) ? f.date(day) : f.withYear(day))

type SeenWords = (visit: FlagVisit) => string[]

/** What was seen and done on a visit, in words. */
function useSeenWords(organism: Organism | undefined): SeenWords {
  const t = useText()
  const f = useFormat()
  return (visit) => [
    visit.plants === null ? '' : t('flags.plantsSeen', { count: visit.plants }),
    visit.areaM2 === null ? '' : f.area(visit.areaM2 / 10_000),
    visit.cover === null ? '' : t('flags.coverSeen', { cover: t(`flags.cover.${visit.cover}`) }),
    visit.stage === null ? '' : (organism?.stages.find(({ id }) => id === visit.stage)?.name ?? visit.stage),
    visit.height === null ? '' : t('flags.heightSeen', { height: t(`flags.height.${visit.height}`) }),
    visit.methodName ?? '',
    visit.taken === null ? '' : t('flags.tookOut', { amount: f.number(visit.taken.amount, 1), unit: t(`taken.${visit.taken.unit}`) }),
    visit.minutes === null ? '' : t('flags.searchMinutes', { minutes: visit.minutes }),
    visit.note,
  ]
}

/** What the state leaves to say: how much stands, or how often it was clean and how long the soil may hold more. */
function factsOf(flag: Flag, seenWords: SeenWords, t: Say, f: Format): string {
  if (flag.state === 'none-standing')
    return [
      t('flags.clean', { count: flag.cleanLooks }),
      flag.absent && t('flags.absent', { share: f.percent(Math.floor(100 * flag.absent.probability) / 100), count: flag.absent.looks }),
      flag.bankAlive && t('flags.bank', { of: flag.bankAlive.of, until: flag.bankAlive.until.slice(0, 4) }),
    ]
      .filter(Boolean)
      .join('; ')
  if (flag.state === 'gone') return ''
  return seenWords(flag.last).slice(0, 3).filter(Boolean).join(', ')
}

/** What was seen at a flag, the newest first, and what can be put right. */
function Visits(p: { flag: Flag; name: string; organism: Organism | undefined; isPast: boolean; onEdit: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const seenWords = useSeenWords(p.organism)
  const { flag } = p
  return (
    <Stack>
      {flag.colour === null ? null : <Small>{t('flags.pinColour', { colour: t(`flags.colour.${flag.colour}`) })}</Small>}
      <Rows>
        {flag.visits.map((visit) => (
          <li key={visit.id}>
            <WithActions>
              <span>
                {f.withYear(visit.seenOn)}: {[t(`flags.sight.${visit.sight}`), ...seenWords(visit)].filter(Boolean).join(', ')}{' '}
                <Small as="span">
                  {visit.personName}{' '}
                  {visit.photoId === null ? null : (
                    <a href={`/api/v1/sites/${site.id}/photos/${visit.photoId}/jpeg`}>
                      {t('flags.photoOf', { date: f.date(visit.seenOn) })}
                    </a>
                  )}
                </Small>
              </span>
              {flag.visits.length > 1 && !p.isPast ? (
                <RemoveButton
                  remove={endpoints.flags.removeVisit}
                  restore={endpoints.flags.restoreVisit}
                  params={{ siteId: site.id, visitId: visit.id }}
                  rowVersion={visit.rowVersion}
                  label={t('flags.removeVisit', { number: flag.number, date: f.date(visit.seenOn) })}
                  said={t('flags.visitRemoved', { date: f.date(visit.seenOn) })}
                />
              ) : null}
            </WithActions>
          </li>
        ))}
      </Rows>
      {flag.bankAlive && flag.state === 'none-standing' ? (
        <Small>{t('flags.bankHow', { from: f.withYear(flag.bankAlive.from), until: f.withYear(flag.bankAlive.until) })}</Small>
      ) : null}
      {p.isPast ? null : (
        <Line>
          <TextButton onPress={p.onEdit}>{t(flag.organismId === null ? 'flags.name' : 'flags.edit')}</TextButton>
          <RemoveButton
            remove={endpoints.flags.remove}
            restore={endpoints.flags.restore}
            params={{ siteId: site.id, flagId: flag.id }}
            rowVersion={flag.rowVersion}
            label={t('flags.removeOne', { number: flag.number, name: p.name })}
            said={t('flags.removed', { number: flag.number, name: p.name })}
          />
        </Line>
      )}
    </Stack>
  )
}
