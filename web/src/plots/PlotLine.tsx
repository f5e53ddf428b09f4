import { endpoints, type Plot, type PlotLook } from '@bocado/contract'
import { useState } from 'react'
import styled from 'styled-components'
import { nameOf } from '../api/unsent.js'
import { useMay } from '../api/may.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { WithActions } from '../design/sections.js'
import { Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { whereNow, type Whereabouts } from '../flags/whereabouts.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { partLater } from '../shell/partLater.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import type { PlotKnown } from './PlotForm.js'
import { usePhoto } from './usePhoto.js'
import { wayTo } from './wayTo.js'

const LookForm = partLater(async () => (await import('./LookForm.js')).LookForm)
const PlotEdit = partLater(async () => (await import('./PlotForm.js')).PlotEdit)

const Due = styled.b`
  border-left: 4px solid ${colour.pollen};
  padding-left: 6px;
`
const Photos = styled.div`
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  figure {
    margin: 0;
  }
  img {
    display: block;
    width: 150px;
    aspect-ratio: 4 / 3;
    object-fit: cover;
    border-radius: 4px;
  }
`

/** What was seen of each plant, in words. */
const coversSay = ({ covers }: PlotLook, t: Say): string =>
  covers.map(({ name, cover }) => t('plots.coverWords', { name, cover: cover === 'none' ? 'none' : t(`plots.cover.${cover}`) })).join(', ')

/** A plot in two lines: how it stood, and when it is due; how it is found, its looks and its form when it is chosen. */
export function PlotLine(p: PlotKnown & { plot: Plot; isChosen: boolean; onChoose: (id: string | null) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { plot, isChosen } = p
  const [doing, setDoing] = useState<'look' | 'edit' | null>(null)
  const [last] = plot.looks
  const isDue = plot.dueOn !== null && plot.dueOn <= site.today
  const begin = (what: 'look' | 'edit'): void => {
    setDoing(what)
    p.onChoose(plot.id)
  }
  return (
    <Stack $gap={6}>
      <WithActions>
        <div>
          <TextButton
            aria-expanded={isChosen}
            aria-label={t('plots.oneAt', { number: plot.number, place: plot.placeName })}
            onPress={() => p.onChoose(isChosen ? null : plot.id)}
          >
            <b>{t('plots.one', { number: plot.number })}</b>
          </TextButton>{' '}
          <Quiet>
            {plot.placeName}
            {plot.worked ? '' : `, ${t('plots.left')}`}
          </Quiet>
          <p>
            {last ? t('plots.seen', { date: f.withYear(last.lookedOn), covers: coversSay(last, t) }) : t('plots.unseen')}{' '}
            {plot.dueOn === null ? null : isDue ? (
              <Due>{t('plots.due', { date: f.date(plot.dueOn) })}</Due>
            ) : (
              <Small as="span">{t('plots.next', { date: f.withYear(plot.dueOn) })}</Small>
            )}
          </p>
          <UnsentHere of={({ what, input }) => what === nameOf(endpoints.plots.look) && input['plotId'] === plot.id} />
        </div>
        {doing === 'look' ? null : (
          <Button $plain onPress={() => begin('look')} aria-label={t('plots.lookAt', { number: plot.number, place: plot.placeName })}>
            {t('plots.look')}
          </Button>
        )}
      </WithActions>
      {isChosen || doing === 'look' ? <HowFound plot={plot} /> : null}
      {doing === 'look' ? <LookForm plot={plot} onDone={() => setDoing(null)} /> : null}
      {isChosen && doing === null ? <Looks plot={plot} onEdit={() => begin('edit')} /> : null}
      {doing === 'edit' ? <PlotEdit {...p} onDone={() => setDoing(null)} /> : null}
    </Stack>
  )
}

/** By stake, bearing and paces, or by this device. */
function HowFound({ plot }: { plot: Plot }) {
  const t = useText()
  const f = useFormat()
  const [here, setHere] = useState<Whereabouts | 'asking' | 'none' | null>(null)
  const ask = async (): Promise<void> => {
    setHere('asking')
    setHere((await whereNow()) ?? 'none')
  }
  const way = plot.position && here !== null && typeof here === 'object' ? wayTo(here, plot.position) : null
  return (
    <Stack $gap={2}>
      <p>
        {plot.fromWhat === ''
          ? t('plots.findNone')
          : t('plots.find', { from: plot.fromWhat, bearing: plot.bearingDeg ?? 'none', paces: plot.paces ?? 'none' })}{' '}
        {plot.note}
      </p>
      {plot.position === null ? null : (
        <Line>
          <TextButton isDisabled={here === 'asking'} onPress={() => void ask()}>
            {t('plots.locate')}
          </TextButton>
          <Small role="status">
            {here === 'asking'
              ? t('plots.locating')
              : here === 'none'
                ? t('plots.locatedNot')
                : way && here !== null
                  ? t('plots.located', {
                      metres: f.height(Math.round(way.metres)),
                      compass: way.compass,
                      degrees: Math.round(way.degrees),
                      accuracy: f.height(here.accuracyM),
                    })
                  : ''}
          </Small>
        </Line>
      )}
    </Stack>
  )
}

/** What was seen there, the newest first, with its photos beside each other; and what can be put right. */
function Looks({ plot, onEdit }: { plot: Plot; onEdit: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const may = useMay('tend')
  const photos = plot.looks.flatMap(({ photoId, lookedOn }) => (photoId === null ? [] : [{ photoId, lookedOn }])).reverse()
  return (
    <Stack>
      {photos.length > 0 ? (
        <Photos aria-label={t('plots.photos')} role="group">
          {photos.map(({ photoId, lookedOn }) => (
            <PhotoThen key={photoId} photoId={photoId} lookedOn={lookedOn} number={plot.number} />
          ))}
        </Photos>
      ) : null}
      <Rows>
        {plot.looks.map((look) => (
          <li key={look.id}>
            <WithActions>
              <span>
                {t('plots.seen', { date: f.withYear(look.lookedOn), covers: coversSay(look, t) })}
                {look.note ? `, ${look.note}` : ''} <Small as="span">{look.personName}</Small>
              </span>
              <RemoveButton
                remove={endpoints.plots.removeLook}
                restore={endpoints.plots.restoreLook}
                params={{ siteId: site.id, plotLookId: look.id }}
                rowVersion={look.rowVersion}
                label={t('plots.removeLook', { number: plot.number, date: f.withYear(look.lookedOn) })}
                said={t('plots.lookRemoved', { date: f.withYear(look.lookedOn) })}
              />
            </WithActions>
          </li>
        ))}
      </Rows>
      {may ? (
        <Line>
          <TextButton onPress={onEdit}>{t('plots.edit')}</TextButton>
          <RemoveButton
            remove={endpoints.plots.remove}
            restore={endpoints.plots.restore}
            params={{ siteId: site.id, plotId: plot.id }}
            rowVersion={plot.rowVersion}
            label={t('plots.removeOne', { number: plot.number })}
            words={t('plots.removeOne', { number: plot.number })}
            said={t('plots.removed', { number: plot.number })}
          />
        </Line>
      ) : null}
    </Stack>
  )
}

function PhotoThen({ photoId, lookedOn, number }: { photoId: string; lookedOn: string; number: number }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const url = usePhoto(site.id, photoId)
  return (
    <figure>
      {url ? (
        <a href={`/api/v1/sites/${site.id}/photos/${photoId}/jpeg`}>
          <img src={url} alt={t('plots.photoOf', { number, date: f.withYear(lookedOn) })} />
        </a>
      ) : null}
      <Small as="figcaption">{f.withYear(lookedOn)}</Small>
    </figure>
  )
}
