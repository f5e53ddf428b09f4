import { endpoints, type ToldApart } from '@bocado/contract'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Caution, Heading, Line, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Drawing } from './drawings/Drawing.js'
import '../messages/en/duties.js'
import { useToldApart, type Subject } from './useToldApart.js'

const Sides = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 22ch));
  gap: 8px 18px;
  p {
    font-size: 13px;
  }
`

/** Asks for the one character that tells it from a look-alike that is to be protected; says why nothing is planned where that is not settled. */
export function TellApart({ told, subject }: { told: ToldApart; subject: Subject }) {
  const t = useText()
  const site = useSite()
  const tell = useWrite(endpoints.library.tellApart)
  const open = told.open.join(', ')
  const check = <Link to={`/sites/${site.id}/library/organisms/${subject.organismId}/check`}>{t('apart.again')}</Link>
  if (told.state === 'clear') return null
  const { character } = told
  if (told.state !== 'ask' || !character)
    return (
      <Caution data-testid="told-apart">
        {t(told.state === 'other' ? 'apart.other' : 'apart.stopped', { open })} {check}
      </Caution>
    )
  const say = (answer: 'here' | 'others' | 'unsure'): void =>
    void tell.save({ params: { siteId: site.id, watchId: subject.watchId }, input: { characterId: character.id, answer } })
  return (
    <Stack data-testid="told-apart" role="group" aria-label={t('apart.title', { open })}>
      <Heading as="h3">{t('apart.title', { open })}</Heading>
      <p>
        {t('apart.why')} <b>{character.ask}</b>
      </p>
      <Sides>
        <div>
          <Drawing name={character.here.drawing} label={character.here.text} />
          <p>
            <b>{subject.name}:</b> {character.here.text}
          </p>
        </div>
        <div>
          <Drawing name={character.others.drawing} label={character.others.text} />
          <p>
            <b>{open}:</b> {character.others.text}
          </p>
        </div>
      </Sides>
      <Line>
        <Button isDisabled={tell.isBarred} onPress={() => say('here')}>
          {t('apart.here', { name: subject.name })}
        </Button>
        <Button $plain isDisabled={tell.isBarred} onPress={() => say('others')}>
          {t('apart.others')}
        </Button>
        <Button $plain isDisabled={tell.isBarred} onPress={() => say('unsure')}>
          {t('apart.unsure')}
        </Button>
      </Line>
    </Stack>
  )
}

/** Said once more as somebody goes out to do it; nothing where no look-alike is to be protected. */
export function ToldApartReminder({ subject }: { subject: Subject }) {
  const t = useText()
  const f = useFormat()
  const told = useToldApart(subject.watchId)
  if (!told) return null
  if (told.state !== 'clear') return <TellApart told={told} subject={subject} />
  return told.checkedOn === null ? null : <Caution data-testid="told-apart">{t('apart.clear', { date: f.date(told.checkedOn) })}</Caution>
}
