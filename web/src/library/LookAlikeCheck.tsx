import { endpoints, type IdentityCheck, type LibraryEntry, type Photo } from '@bocado/contract'
import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { Link, useParams } from 'react-router'
import styled from 'styled-components'
import { useBlocks, useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Checkbox, Choice, Select, TextField } from '../design/controls.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { FormLine } from '../design/FormLine.js'
import { Caution, Heading, Line, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Drawing } from './drawings/Drawing.js'
import { Hazards } from '../design/Hazards.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { smallPhoto, type SmallPhoto } from './photo.js'
import '../messages/en/field.js'
import '../messages/en/library.js'

type Answer = IdentityCheck['answers'][string]

const Sides = styled.div`
  display: grid;
  grid-template-columns: 150px 150px;
  gap: 18px;
  p {
    font-size: 13px;
  }
`
const Photos = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  img {
    width: 160px;
    height: 120px;
    object-fit: cover;
    border: 1px solid ${colour.rule};
    border-radius: 3px;
  }
  figure {
    margin: 0;
    width: 180px;
  }
`

/** Is it really that? One character after the other, each beside its look-alike, until it is sure or somebody has to be asked. */
export function LookAlikeCheck() {
  const { organismId = '' } = useParams()
  const t = useText()
  const site = useSite()
  const { data: entry } = useRead(endpoints.library.entry, { params: { siteId: site.id, organismId }, input: {} })
  usePageTitle(entry && t('check.title', { name: entry.name }))
  const [answers, setAnswers] = useState<Record<string, Answer>>({})
  const [kept, setKept] = useState(false)
  const said = Object.entries(answers)
    .map(([id, answer]) => `${id}:${answer}`)
    .join(',')
  const { data: verdict } = useRead(endpoints.library.verdict, { params: { siteId: site.id, organismId }, input: { answers: said } })
  if (!entry) return <Waiting />
  const { lookAlikes, characters } = entry.about.identity
  // Until it is known what may be touched, nothing is asked that has to be.
  const touching = characters.filter(({ by }) => by === 'touch').map(({ id }) => id)
  const nameOf = (id: string): string => lookAlikes.find((l) => l.id === id)?.name ?? id
  return (
    <Stack $gap={18}>
      <div>
        <Title as="h2">{t('check.title', { name: entry.name })}</Title>
        <Link to={`/sites/${site.id}/library/organisms/${organismId}`}>{t('check.back')}</Link>
      </div>
      <p>{t('check.likes', { list: lookAlikes.map(({ name, status }) => `${name} (${status})`).join(', ') })}</p>
      <Hazards hazards={entry.hazards.filter(({ group }) => group === 'people' || group === 'animals')} />
      {verdict && verdict.later.length > 0 ? <Caution data-testid="later">{t('check.later')}</Caution> : null}
      {[...characters]
        .filter(({ id }) => !(verdict?.later ?? touching).includes(id))
        .sort((a, b) => Number(a.by === 'touch') - Number(b.by === 'touch'))
        .map((character) => (
          <Stack key={character.id} role="group" aria-label={character.ask} data-testid={`character-${character.id}`}>
            <Heading as="h3">{character.ask}</Heading>
            <Sides>
              <div>
                <Drawing name={character.here.drawing} label={character.here.text} />
                <p>
                  <b>{entry.name}:</b> {character.here.text}
                </p>
              </div>
              <div>
                <Drawing name={character.others.drawing} label={character.others.text} />
                <p>
                  <b>{character.others.of.map(nameOf).join(', ')}:</b> {character.others.text}
                </p>
              </div>
            </Sides>
            <Choice
              label={character.ask}
              options={[
                { id: 'none', label: t('check.notLooked') },
                { id: 'here', label: t('check.here') },
                { id: 'others', label: t('check.others') },
                { id: 'unsure', label: t('check.unsure') },
              ]}
              value={answers[character.id] ?? 'none'}
              onChange={(answer) => {
                setKept(false)
                setAnswers((before) => {
                  const { [character.id]: _, ...rest } = before
                  return answer === 'none' ? rest : { ...rest, [character.id]: answer }
                })
              }}
            />
          </Stack>
        ))}
      {verdict && said !== '' ? (
        <Stack data-testid="verdict" aria-live="polite">
          <Heading>{t(`verdict.${verdict.verdict}`, { name: entry.name })}</Heading>
          {verdict.verdict === 'does-not-match' && verdict.likely.length > 0 ? (
            <p>{t('verdict.likely', { list: verdict.likely.map(nameOf).join(', ') })}</p>
          ) : null}
          {verdict.verdict === 'unsure' ? <p>{t('verdict.open', { list: verdict.open.map(nameOf).join(', ') || 'none' })}</p> : null}
          {verdict.verdict === 'matches' ? null : <Caution>{t('caution.identity')}</Caution>}
        </Stack>
      ) : null}
      {said !== '' && !kept ? <KeepCheck entry={entry} answers={answers} onKept={() => setKept(true)} /> : null}
      {kept ? <p>{t('check.kept')}</p> : null}
      <Evidence entry={entry} />
    </Stack>
  )
}

function KeepCheck({ entry, answers, onKept }: { entry: LibraryEntry; answers: Record<string, Answer>; onKept: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const [photo, setPhoto] = useState<SmallPhoto | null>(null)
  const [keepPosition, setKeepPosition] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const form = useEntry(endpoints.library.check, { blockId: 'none', note: '' }, null, `${site.id} ${entry.id}`)
  const choose = async (files: FileList | null): Promise<void> => {
    setWrong(null)
    const file = files?.[0]
    if (!file) return
    try {
      setPhoto(await smallPhoto(file))
    } catch {
      setWrong(t('check.noPicture', { name: file.name }))
    }
  }
  const save = async (): Promise<void> => {
    const says = t('check.says', { name: entry.name })
    const done = await form.put({ siteId: site.id }, says, `library/organisms/${entry.id}/check`, ({ blockId, note }) => ({
      checkedOn: site.today,
      organismId: entry.id,
      blockId: blockId === 'none' ? null : blockId,
      answers,
      photo: photo ? { jpeg: photo.jpeg, takenOn: photo.takenOn ?? site.today, position: keepPosition ? photo.position : null } : null,
      note,
    }))
    if (done) onKept()
  }
  return (
    <Stack>
      <DraftNote entry={form} />
      <Line>
        <Select
          label={t('check.block')}
          placeholder={t('choose')}
          width="22ch"
          options={[{ id: 'none', label: t('check.noBlock') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
          value={form.values.blockId}
          onChange={(blockId) => form.set({ blockId })}
        />
        <TextField
          label={t('check.note')}
          width="36ch"
          value={form.values.note}
          onChange={(note) => form.set({ note })}
          error={form.errors['note']}
        />
      </Line>
      <Line>
        <FileTrigger acceptedFileTypes={['image/*']} onSelect={(files) => void choose(files)}>
          <Button $plain>{t(photo ? 'check.otherPhoto' : 'check.photo')}</Button>
        </FileTrigger>
        {photo ? <TextButton onPress={() => setPhoto(null)}>{t('check.withoutPhoto')}</TextButton> : null}
      </Line>
      {photo ? (
        <Stack>
          <Photos>
            <img src={`data:image/jpeg;base64,${photo.jpeg}`} alt={t('check.yourPhoto')} />
          </Photos>
          <Small>{t('check.stripped', { day: photo.takenOn ? f.withYear(photo.takenOn) : 'none' })}</Small>
          {photo.position ? (
            <Checkbox
              label={t('check.position', {
                latitude: f.number(photo.position.latitude, 4),
                longitude: f.number(photo.position.longitude, 4),
              })}
              value={keepPosition}
              onChange={setKeepPosition}
            />
          ) : null}
        </Stack>
      ) : null}
      <FormError text={wrong ?? form.errors['photo.jpeg'] ?? form.errors['photo.takenOn'] ?? form.general} />
      <FormLine onSave={save} isBarred={form.isBarred}>
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('check.keep')}
        </Button>
      </FormLine>
    </Stack>
  )
}

/** Checks that were kept, and the photos of the site's own reference set. */
function Evidence({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const input = { organismId: entry.id }
  const { data: checks = [] } = useRead(endpoints.library.checks, { params: { siteId: site.id }, input })
  const { data: photos = [] } = useRead(endpoints.library.photos, { params: { siteId: site.id }, input })
  if (checks.length === 0 && photos.length === 0) return null
  return (
    <Stack>
      <Heading>{t('check.evidence')}</Heading>
      <Rows data-testid="checks">
        {checks.map((check) => (
          <li key={check.id}>
            <Line>
              <span style={{ flex: '1 1 30ch' }}>
                {f.date(check.checkedOn)}: {t(`verdict.${check.verdict}`, { name: entry.name })} <Quiet>{check.personName}</Quiet>{' '}
                {check.note}
              </span>
              <RemoveButton
                remove={endpoints.library.removeCheck}
                restore={endpoints.library.restoreCheck}
                params={{ siteId: site.id, rowId: check.id }}
                rowVersion={check.rowVersion}
                label={t('check.removeOne', { date: f.date(check.checkedOn) })}
                said={t('check.removed')}
              />
            </Line>
          </li>
        ))}
      </Rows>
      <Photos>
        {photos.map((photo) => (
          <PhotoChoice key={photo.id} photo={photo} entry={entry} />
        ))}
      </Photos>
    </Stack>
  )
}

function PhotoChoice({ photo, entry }: { photo: Photo; entry: LibraryEntry }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const confirm = useWrite(endpoints.library.confirmPhoto)
  const [shows, setShows] = useState(photo.shows)
  const put = (reference: boolean, what = shows): void =>
    void confirm.save({ params: { siteId: site.id, rowId: photo.id }, input: { shows: what, reference, rowVersion: photo.rowVersion } })
  const names = [{ id: entry.id, label: entry.name }, ...entry.about.identity.lookAlikes.map(({ id, name }) => ({ id, label: name }))]
  return (
    <figure>
      <img
        src={`/api/v1/sites/${site.id}/photos/${photo.id}/jpeg`}
        alt={t('check.photoOf', { name: names.find(({ id }) => id === photo.shows)?.label ?? '', date: f.withYear(photo.takenOn) })}
      />
      <figcaption>
        <Select label={t('check.shows')} placeholder={t('choose')} width="100%" options={names} value={shows} onChange={setShows} />
        <Checkbox label={t('check.reference')} value={photo.reference} onChange={(reference) => put(reference)} />
        {shows === photo.shows ? null : (
          <TextButton isDisabled={confirm.isBarred} onPress={() => put(photo.reference)}>
            {t('save')}
          </TextButton>
        )}
        <RemoveButton
          remove={endpoints.library.removePhoto}
          restore={endpoints.library.restorePhoto}
          params={{ siteId: site.id, rowId: photo.id }}
          rowVersion={photo.rowVersion}
          label={t('check.removePhoto', { date: f.withYear(photo.takenOn) })}
          said={t('check.photoRemoved')}
        />
      </figcaption>
    </figure>
  )
}
