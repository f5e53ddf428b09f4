import { endpoints, type LibraryEntry, type Photo } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Heading, Line, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Drawing } from './drawings/Drawing.js'
import { drillScore, type DrillTrial } from './drillScore.js'
import '../messages/en/library.js'

const Card = styled.div`
  width: 320px;
  max-width: 100%;
  min-height: 240px;
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 10px;
  padding: 16px;
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  background: ${colour.white};
  svg {
    max-width: 260px;
    border: 0;
    background: none;
  }
  img {
    max-width: 100%;
    max-height: 240px;
  }
`

/** A card of the drill: a drawing or a photo, and whether it is the organism. */
interface DrillCard {
  key: string
  isIt: boolean
  /** What tells it, said after the answer. */
  why: string
  drawing: string | null
  photoId: string | null
}

/** Cards from the drawings of both sides of each character and the site's own reference photos, in an order that chance made once. */
function cardsOf(entry: LibraryEntry, photos: readonly Photo[], seed: number): DrillCard[] {
  const { characters, lookAlikes } = entry.about.identity
  const nameOf = (id: string): string => lookAlikes.find((l) => l.id === id)?.name ?? entry.name
  const cards = [
    ...characters.flatMap((character): DrillCard[] => [
      { key: `${character.id} here`, isIt: true, why: character.here.text, drawing: character.here.drawing, photoId: null },
      {
        key: `${character.id} others`,
        isIt: false,
        why: `${character.others.of.map(nameOf).join(', ')}: ${character.others.text}`,
        drawing: character.others.drawing,
        photoId: null,
      },
    ]),
    ...photos
      .filter(({ reference }) => reference)
      .map((photo): DrillCard => ({
        key: photo.id,
        isIt: photo.shows === entry.id,
        why: nameOf(photo.shows),
        drawing: null,
        photoId: photo.id,
      })),
  ]
  const place = (key: string): number => [...`${seed}${key}`].reduce((h, c) => (h * 31 + c.charCodeAt(0)) % 9973, 7)
  return cards.sort((a, b) => place(a.key) - place(b.key))
}

/** A short drill: is it, or is it not? Misses and false alarms are counted apart, since they cost different things. */
export function Drill() {
  const { organismId = '' } = useParams()
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const params = { siteId: site.id }
  const { data: entry } = useRead(endpoints.library.entry, { params: { ...params, organismId }, input: {} })
  usePageTitle(entry && t('drill.title', { name: entry.name }))
  const { data: photos } = useRead(endpoints.library.photos, { params, input: { organismId } })
  const [round, setRound] = useState(1)
  const [trials, setTrials] = useState<DrillTrial[]>([])
  const [said, setSaid] = useState<boolean | null>(null)
  const cards = useMemo(() => (entry && photos ? cardsOf(entry, photos, round) : []), [entry, photos, round])
  if (!entry || !photos) return <Waiting />
  const card = cards[trials.length]
  const answer = (saidIt: boolean): void => setSaid(saidIt)
  const next = (): void => {
    if (card && said !== null) setTrials((before) => [...before, { isIt: card.isIt, saidIt: said }])
    setSaid(null)
  }
  const score = drillScore(trials)
  return (
    <Stack $gap={16}>
      <div>
        <Title as="h2">{t('drill.title', { name: entry.name })}</Title>
        <Link to={`/sites/${site.id}/library/organisms/${organismId}`}>{t('check.back')}</Link>
      </div>
      {card ? (
        <>
          <Small>{t('drill.progress', { now: trials.length + 1, all: cards.length })}</Small>
          <Card data-testid="drill-card" data-is={card.isIt ? 'yes' : 'no'}>
            {card.drawing ? <Drawing name={card.drawing} label={t('drill.card')} /> : null}
            {card.photoId ? <img src={`/api/v1/sites/${site.id}/photos/${card.photoId}/jpeg`} alt={t('drill.card')} /> : null}
          </Card>
          {said === null ? (
            <Line>
              <Button onPress={() => answer(true)}>{t('drill.isIt', { name: entry.name })}</Button>
              <Button $plain onPress={() => answer(false)}>
                {t('drill.isNot')}
              </Button>
            </Line>
          ) : (
            <Stack aria-live="polite">
              <p data-testid="drill-answer">
                {t('drill.answer', {
                  right: said === card.isIt ? 'yes' : card.isIt ? 'missed' : 'alarm',
                  name: entry.name,
                  why: card.why,
                })}
              </p>
              <Line>
                <Button onPress={next} autoFocus>
                  {t('drill.next')}
                </Button>
              </Line>
            </Stack>
          )}
        </>
      ) : (
        <Line>
          <Button
            onPress={() => {
              setTrials([])
              setRound((r) => r + 1)
            }}
          >
            {t('drill.again')}
          </Button>
        </Line>
      )}
      {trials.length > 0 ? (
        <Stack data-testid="drill-score">
          <Heading>{t('drill.score')}</Heading>
          <p>
            {t('drill.misses', { misses: score.misses, of: trials.filter(({ isIt }) => isIt).length, share: f.percent(score.missRate) })}
          </p>
          <p>
            {t('drill.alarms', {
              alarms: score.falseAlarms,
              of: trials.filter(({ isIt }) => !isIt).length,
              share: f.percent(score.falseAlarmRate),
            })}
          </p>
        </Stack>
      ) : null}
    </Stack>
  )
}
