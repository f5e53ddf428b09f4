import { endpoints, type LibraryEntry } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import styled from 'styled-components'
import { call } from '../api/client.js'
import { useBlocks, useRead, useWrite, watched } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Explained } from '../design/Explained.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { onStageFill, stageFill, StageShape } from '../design/StageShape.js'
import { Bullets, Caution, Heading, Line, PlainTable, Quiet, Stack, Title } from '../design/text.js'
import { size } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'
import { DamageDegree } from './DamageDegree.js'
import { Hazards } from '../design/Hazards.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { LibraryNumbers } from './LibraryNumbers.js'
import { Reach, TriedHere } from './Reach.js'
import { ReportDuty } from './ReportDuty.js'
import { Varieties } from './Varieties.js'
import { monthsWords, signWords } from './signWords.js'
import { YearHere } from './YearHere.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/library.js'
import '../messages/en/varieties.js'

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 26px 32px;
  align-items: start;
`
const Degrees = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(76px, 1fr));
  gap: 10px;
  figure {
    margin: 0;
  }
  figcaption {
    font-size: ${size.small};
  }
`
/** An organism: its year by this site's weather, how to find it and be sure of it, and what can be done. */
export function OrganismPage() {
  const { organismId = '' } = useParams()
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [blockId, setBlockId] = useState<string>('site')
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: entry } = useRead(endpoints.library.entry, {
    params: { siteId: site.id, organismId },
    input: blockId === 'site' ? {} : { blockId },
  })
  usePageTitle(entry?.name)
  if (!entry) return <Waiting />
  const { about } = entry
  const api = `/api/v1/sites/${site.id}/library/organisms/${organismId}`
  return (
    <Stack $gap={20}>
      <div>
        <Title data-at="entry" tabIndex={-1} as="h2">
          {entry.name}
        </Title>
        <p>
          <i>{entry.scientificName}</i> <Quiet>{about.family}</Quiet>
        </p>
      </div>
      <Hazards hazards={entry.hazards} byTouch />
      <Line $gap={16}>
        <Link to="check">{t('organism.check')}</Link>
        <Link to="drill">{t('organism.drill')}</Link>
        {entry.generations.every(({ events }) => events.length === 0) ? null : <Link to="bench">{t('organism.bench')}</Link>}
        <Link to={`/sites/${site.id}/library/new?from=${organismId}`}>{t(entry.own ? 'organism.edit' : 'organism.copy')}</Link>
        <a href={`${api}/file`} download>
          {t('organism.export')}
        </a>
        {entry.own ? <RemoveOwn entry={entry} /> : null}
      </Line>
      <Stack>
        <Line>
          <Heading style={{ flex: '1 1 30ch' }}>{t('organism.year')}</Heading>
          <Select
            label={t('organism.where')}
            placeholder={t('choose')}
            width="22ch"
            options={[{ id: 'site', label: t('organism.wholeSite') }, ...blocks.map(({ id, name }) => ({ id, label: name }))]}
            value={blockId}
            onChange={setBlockId}
          />
        </Line>
        <YearHere entry={entry} />
        <WatchIt entry={entry} />
      </Stack>
      <Grid>
        <Stack>
          <Heading>{t('organism.signs')}</Heading>
          <Bullets>
            {about.signs.map((sign) => (
              <li key={`${sign.part} ${sign.sign}`}>
                <b>{signWords(sign, t)}</b> {sign.tell} <Quiet>{monthsWords(sign.months, t, f.month)}</Quiet>
              </li>
            ))}
          </Bullets>
          <p>{t('organism.look', { where: about.look.where, hour: about.look.hour })}</p>
          <p>
            <Explained>{t('organism.winters', { as: about.winters.as, where: about.winters.where })}</Explained>
          </p>
          <p>{t('organism.hosts', { hosts: about.hosts.join(', '), families: about.hostFamilies.join(', ') || 'none' })}</p>
        </Stack>
        <Stack>
          <Heading>{t('organism.damage')}</Heading>
          <p>{about.damage.text}</p>
          <Degrees>
            {about.damage.degrees.map((percent) => (
              <figure key={percent}>
                <DamageDegree
                  drawing={about.damage.drawing}
                  percent={percent}
                  label={t('organism.degree', { percent: f.number(percent) })}
                />
                <figcaption>{t('organism.degree', { percent: f.number(percent) })}</figcaption>
              </figure>
            ))}
          </Degrees>
          <Stages entry={entry} />
        </Stack>
      </Grid>
      <Reach entry={entry} />
      <TriedHere entry={entry} />
      {entry.kind === 'weed' ? null : <Varieties entry={entry} blockId={blockId === 'site' ? null : blockId} />}
      <LibraryNumbers entry={entry} />
      <Grid>
        <Stack>
          <Heading>{t('organism.doesNotWork')}</Heading>
          <Bullets>
            {about.doesNotWork.map(({ what, why }) => (
              <li key={what}>
                <b>{what}:</b> {why}
              </li>
            ))}
          </Bullets>
          <p>{t('organism.tooLate', { text: entry.tooLate })}</p>
        </Stack>
        <Stack>
          <Heading>{t('organism.around')}</Heading>
          <p>{t('organism.enemies', { list: about.enemies.join(', ') })}</p>
          <p>{t('organism.arrives', { list: about.arrives.join(', ') })}</p>
          {about.hygiene.length > 0 ? <p>{t('organism.hygiene', { list: about.hygiene.join(', ') })}</p> : null}
        </Stack>
      </Grid>
      <Stack>
        <ReportDuty organismId={entry.id} />
        <Hazards hazards={entry.hazards} />
        <Caution>{t('caution.label')}</Caution>
      </Stack>
    </Stack>
  )
}

function Stages({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  return (
    <PlainTable>
      <caption style={{ textAlign: 'left' }}>
        <b>{t('organism.stages')}</b>
      </caption>
      <tbody>
        {entry.stages.map((stage) => (
          <tr key={stage.id}>
            <td style={{ width: 40 }}>
              <svg width="32" height="22" viewBox="-16 -11 32 22" aria-hidden>
                <rect x="-16" y="-11" width="32" height="22" rx="3" fill={stageFill(stage.silhouette)} />
                <StageShape shape={stage.silhouette} fill={onStageFill(stage.silhouette)} />
              </svg>
            </td>
            <th scope="row">
              {stage.name} {stage.id === entry.about.damage.stage ? <b>{t('organism.damaging')}</b> : null} <Quiet>{stage.where}</Quiet>
            </th>
            <td>{reachedBy(entry, stage.id) || t('organism.unreachable')}</td>
          </tr>
        ))}
      </tbody>
    </PlainTable>
  )
}

/** The methods that reach a stage, by their names. */
const reachedBy = ({ about, methods }: LibraryEntry, stage: string): string =>
  about.reach
    .filter(({ stages }) => stages.includes(stage))
    .map(({ method }) => methods.find(({ id }) => id === method)?.name ?? '')
    .filter((name, i, all) => name !== '' && all.indexOf(name) === i)
    .join(', ')

/** Watches it in a block, from here on. */
function WatchIt({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const site = useSite()
  const navigate = useNavigate()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: list } = useRead(endpoints.library.list, { params: { siteId: site.id }, input: {} })
  const watched = list?.find(({ id }) => id === entry.id)?.watches ?? []
  const form = useEntry(endpoints.watches.create, { blockId: null as string | null })
  const save = async (): Promise<void> => {
    const watch = await form.submit({ siteId: site.id }, ({ blockId }) => ({
      organismId: entry.id,
      blockId: blockId ?? '',
      season: site.season.start,
      biofix: null,
      threshold: null,
    }))
    if (watch) await navigate(`/sites/${site.id}/windows?watch=${watch.id}`)
  }
  return (
    <Stack>
      {watched.map(({ id, blockId }) => (
        <Link key={id} to={`/sites/${site.id}/windows?watch=${id}`}>
          {t('organism.watchedIn', { block: blocks.find((block) => block.id === blockId)?.name ?? '' })}
        </Link>
      ))}
      <Line>
        <Select
          label={t('organism.watchIn')}
          placeholder={t('choose')}
          width="24ch"
          options={blocks.filter(({ id }) => !watched.some(({ blockId }) => blockId === id)).map(({ id, name }) => ({ id, label: name }))}
          value={form.values.blockId}
          onChange={(blockId) => form.set({ blockId })}
          error={form.errors['blockId'] ?? form.errors['organismId']}
        />
        <Button onPress={() => void save()} isDisabled={form.isBarred}>
          {t('organism.watch')}
        </Button>
      </Line>
      <FormError text={form.general} />
    </Stack>
  )
}

function RemoveOwn({ entry }: { entry: LibraryEntry }) {
  const t = useText()
  const site = useSite()
  const undo = useUndo()
  const navigate = useNavigate()
  const [refused, setRefused] = useState<string | null>(null)
  const restore = useWrite(endpoints.library.restoreOwn)
  const client = useQueryClient()
  if (!entry.own) return null
  const params = { siteId: site.id, kind: 'organism' as const, rowId: entry.own.id }
  const { rowVersion } = entry.own
  const run = async (): Promise<void> => {
    try {
      const gone = await watched(
        call(endpoints.library.removeOwn, { params, input: { rowVersion } }, { idempotencyKey: crypto.randomUUID() }),
      )
      undo.offer(t('own.removed', { name: entry.name }), () => restore.save({ params, input: { rowVersion: gone.rowVersion } }))
      // The page of what is gone is left before anything is read anew: it would not be found.
      await navigate(`/sites/${site.id}/library`)
      await client.invalidateQueries()
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <>
      <TextButton isDisabled={restore.isBarred} onPress={() => void run()}>
        {t('own.remove')}
      </TextButton>
      <FormError text={refused} />
    </>
  )
}
