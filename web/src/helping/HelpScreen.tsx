import { endpoints, type HelpDay } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Bullets, Caution, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { KitSketch } from '../scouting/KitSketch.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { useText } from '../messages/useText.js'
import { AllTaken } from './AllTaken.js'
import { FindForm } from './FindForm.js'
import { RestForm } from './RestForm.js'
import '../messages/en/field.js'
import '../messages/en/ground.js'
import '../messages/en/helping.js'
import '../messages/en/work.js'

type HelpFlag = HelpDay['flags'][number]

const Card = styled.section`
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  padding: 12px;
`

const LookOnly = styled.b`
  display: block;
`

/** The one screen of whoever helps for a day: where, what stands there, how to know it, what to mind, and what was done. */
export function HelpScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { personId } = useWorkplace()
  const help = site.people.find(({ id }) => id === personId)?.help
  const isToday = !help || help.on === site.today
  const { data } = useRead(endpoints.helping.day, { params: { siteId: site.id }, input: {} }, isToday)
  usePageTitle(site.name)
  if (help && !isToday)
    return (
      <Page>
        <Title>{site.name}</Title>
        <p>{help.on > site.today ? t('helping.notToday', { date: f.dateInDays(help.on) }) : t('helping.over', { site: site.name })}</p>
      </Page>
    )
  if (!data) return <Waiting />
  return <HelpWork day={data} />
}

/** The work of the day; as a preview it is only looked at. */
export function HelpWork({ day, isPreview = false }: { day: HelpDay; isPreview?: boolean }) {
  const t = useText()
  const f = useFormat()
  const [finding, setFinding] = useState(false)
  const left = day.flags.filter(({ isDone }) => !isDone)
  const shapes = day.blocks.flatMap(({ id, outline }) => (outline ? [{ id, placeId: id, geometry: outline }] : []))
  return (
    <Page>
      <Title>{t('helping.title', { blocks: day.blocks.map(({ name }) => name).join(', ') })}</Title>
      {day.organisms.flatMap(({ name, hazards }) =>
        hazards
          .filter(({ group }) => group === 'people')
          .map(({ text }) => (
            <Caution key={`${name} ${text}`}>
              <b>{name}:</b> {text}
            </Caution>
          )),
      )}
      <Bullets>
        {day.keepOff.length > 0 ? (
          <li>
            <b>{t('helping.keepOff', { places: day.keepOff.map(({ name, kind }) => name || t(`drawn.shape.${kind}`)).join(', ') })}</b>
          </li>
        ) : null}
        {day.stays.map(({ name, where, from, until }) => (
          <li key={`${name} ${where}`}>
            <b>{t('helping.stays', { name, where })}</b>{' '}
            {t('helping.staysAwake', { from: f.monthDay(from), until: f.monthDay(until), note: 'none' })}
          </li>
        ))}
        <li>{t('helping.boots')}</li>
        <li>{t('helping.unsure')}</li>
      </Bullets>
      <Heading aria-live="polite">{t('helping.left', { count: left.length })}</Heading>
      {finding ? (
        <FindForm day={day} onDone={() => setFinding(false)} />
      ) : (
        <Line>
          <Button isDisabled={isPreview} onPress={() => setFinding(true)} style={{ minHeight: 48 }}>
            {t('helping.find')}
          </Button>
        </Line>
      )}
      {day.organisms.map((organism) => (
        <Known key={organism.id} organism={organism} />
      ))}
      <UnsentHere of={({ what }) => what.includes('/helping/')} />
      {day.blocks.map((block) => (
        <KitSketch key={block.id} block={block} shapes={shapes} flags={day.flags.filter(({ blockId }) => blockId === block.id)} />
      ))}
      <Rows data-testid="help-flags">
        {day.flags.map((flag) => (
          <li key={flag.id}>
            <FlagWork flag={flag} day={day} isPreview={isPreview} />
          </li>
        ))}
      </Rows>
    </Page>
  )
}

/** A flag with what was done there: one tap where all was taken. */
function FlagWork({ flag, day, isPreview }: { flag: HelpFlag; day: HelpDay; isPreview: boolean }) {
  const t = useText()
  const [telling, setTelling] = useState(false)
  const { number, organismId, organismName, blockName, plants, isDone, colour: pin } = flag
  const byHand = day.organisms.some(({ id, byHand }) => id === organismId && byHand)
  return (
    <Stack $gap={6}>
      <div>
        <b>{t('helping.flag', { number, name: organismName ?? t('helping.unknown') })}</b>{' '}
        <Quiet>
          {[
            day.blocks.length > 1 ? blockName : '',
            plants === null ? '' : t('helping.plants', { count: plants }),
            pin === null ? '' : t(`flags.colour.${pin}`),
          ]
            .filter(Boolean)
            .join(', ')}
        </Quiet>{' '}
        {isDone ? <Small as="span">{t('helping.done')}</Small> : null}
        {byHand ? null : <LookOnly>{t('helping.lookOnly')}</LookOnly>}
      </div>
      {telling ? (
        <RestForm flag={flag} on={day.on} byHand={byHand} onDone={() => setTelling(false)} />
      ) : isDone ? null : (
        <Line>
          <AllTaken flag={flag} on={day.on} byHand={byHand} isBarred={isPreview} />
          <Button
            $plain
            isDisabled={isPreview}
            aria-label={t('helping.restNamed', { number })}
            onPress={() => setTelling(true)}
            style={{ minHeight: 48 }}
          >
            {t('helping.rest')}
          </Button>
        </Line>
      )}
    </Stack>
  )
}

/** What one has to know of a plant before one takes it out, or leaves it. */
function Known({ organism }: { organism: HelpDay['organisms'][number] }) {
  const t = useText()
  const { name, scientificName, byHand, characters, doesNotWork, hazards } = organism
  return (
    <Card>
      <Stack $gap={8}>
        <Heading as="h3">
          {t('helping.known')}: {name} <i>{scientificName}</i>
        </Heading>
        {byHand ? null : <b>{t('helping.lookOnly')}</b>}
        {characters.map(({ ask, here, others }) => (
          <div key={ask}>
            <b>{ask}</b>
            <br />
            {t('helping.isIt')}: {here}
            <br />
            <Quiet>
              {t('helping.isNot')}: {others}
            </Quiet>
          </div>
        ))}
        {byHand && doesNotWork.length > 0 ? (
          <div>
            <b>{t('helping.doesNotWork')}</b>
            <Bullets>
              {doesNotWork.map(({ what, why }) => (
                <li key={what}>
                  {what}: {why}
                </li>
              ))}
            </Bullets>
          </div>
        ) : null}
        {hazards
          .filter(({ group }) => group === 'spread')
          .map(({ text }) => (
            <div key={text}>{text}</div>
          ))}
      </Stack>
    </Card>
  )
}
