import { endpoints, type Block, type Flag, type Organism, type Shape } from '@bocado/contract'
import { useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { NumberField } from '../design/NumberField.js'
import { Bullets, Caution, Fields, Heading, Line, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { KitSketch } from './KitSketch.js'
import '../messages/en/flags.js'
import '../messages/en/helping.js'
import '../messages/en/kit.js'

/** What is only asked on the screen, and stands as a sentence on paper. */
const OnScreen = styled.div`
  @media print {
    display: none;
  }
`
const Card = styled.section`
  border: 1px solid ${colour.rule};
  border-radius: 4px;
  padding: 12px;
  break-inside: avoid;
`

interface Kit {
  meet: string
  until: string
  bags: number | null
  lanes: string
  notStep: string
}
const NOTHING: Kit = { meet: '', until: '', bags: null, lanes: '', notStep: '' }
const keyOf = (blockId: string): string => `bocado.kit.${blockId}`

/** What was typed for a block is there again for the next work day. */
function keptKit(blockId: string): Kit {
  try {
    return { ...NOTHING, ...(JSON.parse(localStorage.getItem(keyOf(blockId)) ?? '{}') as Partial<Kit>) }
  } catch {
    return NOTHING
  }
}

/** One sheet for people who help for a day: what to take and what to leave, where, how long, and what may harm them. */
export function WorkDayKit(p: {
  block: Block
  /** Of the block. */
  flags: readonly Flag[]
  organisms: readonly Organism[]
  shapes: readonly Shape[]
  onDone: () => void
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { block } = p
  const [kit, setKit] = useState(() => keptKit(block.id))
  const set = (change: Partial<Kit>): void => {
    const next = { ...kit, ...change }
    setKit(next)
    localStorage.setItem(keyOf(block.id), JSON.stringify(next))
  }
  const up = p.flags.filter(({ state }) => state !== 'none-standing' && state !== 'gone')
  const known = [...new Set(up.flatMap(({ organismId }) => organismId ?? []))].flatMap(
    (id) => p.organisms.find((one) => one.id === id) ?? [],
  )
  const { data: grows } = useRead(endpoints.companions.list, { params: { siteId: site.id }, input: {} })
  const stays = grows?.companions.filter(({ blockId }) => blockId === block.id) ?? []
  const people = known.flatMap(({ name, hazards }) => hazards.filter(({ group }) => group === 'people').map(({ text }) => ({ name, text })))
  const numbers = (organismId: string): string =>
    up
      .filter((flag) => flag.organismId === organismId)
      .map(({ number }) => `#${number}`)
      .join(', ')
  return (
    <Stack $gap={16}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('kit.title', { block: block.name, date: f.date(site.today) })}</Heading>
        <OnScreen>
          <Line>
            <Button onPress={() => window.print()}>{t('kit.print')}</Button>
            <Link to={`/sites/${site.id}/scouting/as-volunteers?blocks=${block.id}`}>{t('helping.preview')}</Link>
            <TextButton onPress={p.onDone}>{t('kit.back')}</TextButton>
          </Line>
        </OnScreen>
      </Line>
      <OnScreen>
        <Fields>
          <TextField label={t('kit.meet')} width="26ch" value={kit.meet} onChange={(meet) => set({ meet })} />
          <TextField label={t('kit.until')} width="12ch" value={kit.until} onChange={(until) => set({ until })} />
          <NumberField label={t('kit.bags')} width="12ch" digits={0} value={kit.bags} onChange={(bags) => set({ bags })} />
          <TextField label={t('kit.lanes')} width="40ch" value={kit.lanes} onChange={(lanes) => set({ lanes })} />
          <TextField label={t('kit.notStep')} width="40ch" value={kit.notStep} onChange={(notStep) => set({ notStep })} />
        </Fields>
      </OnScreen>
      {people.map(({ name, text }) => (
        <Caution key={text}>
          <b>{name}:</b> {text}
        </Caution>
      ))}
      <Bullets>
        {kit.meet || kit.until ? <li>{t('kit.hours', { meet: kit.meet || '–', until: kit.until || '–' })}</li> : null}
        {kit.bags === null ? null : <li>{t('kit.bagsSaid', { count: kit.bags })}</li>}
        {kit.lanes ? <li>{t('kit.lanesSaid', { lanes: kit.lanes })}</li> : null}
        {kit.notStep ? (
          <li>
            <b>{t('kit.notStepSaid', { places: kit.notStep })}</b>
          </li>
        ) : null}
        {stays.map((one) => (
          <li key={one.id}>
            <b>{t('kit.stays', { name: one.name, where: one.placeId === block.id ? 'block' : one.placeName })}</b>{' '}
            {t('helping.staysAwake', { from: f.monthDay(one.awake.from), until: f.monthDay(one.awake.until), note: one.note || 'none' })}
          </li>
        ))}
        <li>{t('kit.boots')}</li>
        <li>{t('kit.unsure')}</li>
      </Bullets>
      <KitSketch block={block} shapes={p.shapes} flags={up} />
      {up.length === 0 ? <Small>{t('kit.nothingUp')}</Small> : null}
      {known.map((organism) => (
        <Card key={organism.id}>
          <Stack $gap={6}>
            <Heading as="h3">
              {organism.name} <i>{organism.scientificName}</i>
            </Heading>
            <p>{t('kit.take', { numbers: numbers(organism.id), where: organism.look.where })}</p>
            <b>{t('kit.notThese')}</b>
            <Bullets>
              {organism.lookAlikes.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </Bullets>
            {organism.hazards
              .filter(({ group }) => group !== 'people')
              .map(({ text }) => (
                <Small key={text}>{text}</Small>
              ))}
          </Stack>
        </Card>
      ))}
    </Stack>
  )
}
