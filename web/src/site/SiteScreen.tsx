import { endpoints, type Block } from '@bocado/contract'
import { lazy, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useArrivals, useBand, useBlocks, usePlaces, useRead, useShapes, useSiteItself } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { Columns, Empty, Heading, Line, Page, Quiet, Rows, Small, Stack, Title } from '../design/text.js'
import { colour, font } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { useAsked } from '../shell/useAsked.js'
import { partLater } from '../shell/partLater.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { DutiesPanel } from '../library/DutiesPanel.js'
import { ArrivalsPart } from '../arrivals/ArrivalsPart.js'
import { BlockForm } from './BlockForm.js'
import { ClocksOf } from './ClocksOf.js'
import { NormalsPanel } from './NormalsPanel.js'
import { People } from './People.js'
import { RulesPanel } from './RulesPanel.js'
import { SiteEnd } from './SiteEnd.js'
import '../messages/en/field.js'
import '../messages/en/ground.js'
import '../messages/en/normals.js'
import '../messages/en/site.js'

const PermissionsPanel = partLater(async () => (await import('./PermissionsPanel.js')).PermissionsPanel)

/** What draws the ground. Where something is drawn, the screen waits for it, so that nothing moves; else it comes when it is asked for. */
const loadMap = async () => (await import('../ground/MapPart.js')).MapPart
const MapThere = lazy(async () => ({ default: await loadMap() }))
const CompanionsPanel = partLater(async () => (await import('./CompanionsPanel.js')).CompanionsPanel)
const FindLinks = partLater(async () => (await import('./FindLinks.js')).FindLinks)
const MapBegun = partLater(loadMap)
const PartsOfBlock = partLater(async () => (await import('./PartsOfBlock.js')).PartsOfBlock)
const EditSite = partLater(async () => (await import('./EditSite.js')).EditSite)

const BlockRow = styled.div<{ $chosen: boolean }>`
  ${({ $chosen }) => ($chosen ? `box-shadow: -12px 0 0 ${colour.ground}, -16px 0 0 ${colour.petrol};` : '')}
  display: grid;
  grid-template-columns: minmax(0, 5fr) 9ch minmax(0, 4fr) 23ch;
  > :nth-child(4) {
    justify-content: flex-end;
  }
  gap: 4px 16px;
  align-items: baseline;
  b {
    font-family: ${font.heading};
    font-size: 18px;
  }
  .area {
    text-align: right;
  }
  @media (max-width: 720px) {
    grid-template-columns: 1fr;
    .area {
      text-align: left;
    }
  }
`
/** The name of a block, which shows it on the map. */
const Named = styled(TextButton)`
  color: inherit;
  text-decoration: none;
  &:hover {
    text-decoration: underline;
  }
`
const Watched = styled.span`
  border-left: 4px solid ${colour.petrol};
  padding-left: 6px;
`

/** The ground: blocks with what grows there and what is watched, the people, and the site itself. */
export function SiteScreen() {
  const t = useText()
  usePageTitle(t('nav.site'))
  const f = useFormat()
  const site = useSite()
  const { data: blocks } = useBlocks(site.id)
  const { data: band } = useBand(site.id, site.season.start)
  const { data: normals } = useRead(endpoints.sites.normals, { params: { siteId: site.id }, input: {} })
  const [open, setOpen] = useState<string | null>(null)
  const [more, setMore] = useState(false)
  const { data: shapes } = useShapes(site.id)
  const [chosen, setChosen] = useState<string | null>(null)
  const [begins, setBegins] = useState<'draw' | null>(null)
  const [wasBegun, setBegun] = useState(false)
  useAsked('block', () => setOpen('new'))
  const { data: arrivals } = useArrivals(site.id)
  if (!blocks || !band || !normals || !shapes || !arrivals) return <Waiting />
  const total = blocks.reduce((sum, { areaHa }) => sum + (areaHa ?? 0), 0)
  return (
    <Page>
      <Columns $left="7fr" $right="4fr">
        <Stack>
          <Line style={{ justifyContent: 'space-between' }}>
            <Title>{t('site.blocks', { count: blocks.length, area: f.area(total) })}</Title>
            <Line>
              {shapes.length === 0 && !begins ? (
                <TextButton
                  onPress={() => {
                    setBegins('draw')
                    setBegun(true)
                  }}
                >
                  {t('drawn.begin')}
                </TextButton>
              ) : null}
              <Button $plain onPress={() => setOpen('new')}>
                {t('block.add')}
              </Button>
            </Line>
          </Line>
          {open === 'new' ? <BlockForm onDone={() => setOpen(null)} /> : null}
          {wasBegun ? (
            <MapBegun
              key={begins ?? 'map'}
              blocks={blocks}
              chosenPlace={chosen}
              onChoose={setChosen}
              begins={begins}
              onDone={() => setBegins(null)}
            />
          ) : shapes.length > 0 ? (
            <MapThere blocks={blocks} chosenPlace={chosen} onChoose={setChosen} begins={null} onDone={() => undefined} />
          ) : null}
          {blocks.length === 0 && open !== 'new' ? (
            <Empty>
              <p>{t('site.empty')}</p>
            </Empty>
          ) : (
            <Rows>
              {blocks.map((block) => (
                <li key={block.id}>
                  {open === block.id ? (
                    <BlockForm block={block} onDone={() => setOpen(null)} />
                  ) : (
                    <BlockLine
                      block={block}
                      isChosen={chosen === block.id}
                      onShow={shapes.some(({ placeId }) => placeId === block.id) ? () => setChosen(block.id) : undefined}
                      onEdit={() => setOpen(block.id)}
                    />
                  )}
                </li>
              ))}
            </Rows>
          )}
        </Stack>
        <Stack $gap={28}>
          <People />
          <ArrivalsPart all={arrivals} />
          <SiteFacts />
          {site.kind === 'garden' && !more ? (
            <TextButton onPress={() => setMore(true)}>{t('site.more')}</TextButton>
          ) : (
            <>
              <RulesPanel />
              <CompanionsPanel />
              <PermissionsPanel />
              <DutiesPanel />
              <NormalsPanel />
              <FindLinks />
            </>
          )}
        </Stack>
      </Columns>
    </Page>
  )
}

interface BlockLineProps {
  block: Block
  isChosen: boolean
  /** Shows it on the map; undefined where it is not drawn. */
  onShow: (() => void) | undefined
  onEdit: () => void
}

function BlockLine({ block, isChosen, onShow, onEdit }: BlockLineProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: band } = useBand(site.id, site.season.start)
  const { temperature } = f.measures
  const degrees = (c: number): string => {
    const shown = temperature.shown(c) - temperature.shown(0)
    return `${shown > 0 ? '+' : ''}${f.number(shown, 1)} ${temperature.unit}`
  }
  const { data: places = [] } = usePlaces(site.id)
  const parts = places.filter(({ parentId }) => parentId === block.id).length
  const [showsParts, setShowsParts] = useState(false)
  const watched = band?.watches.filter(({ watch }) => watch.blockId === block.id) ?? []
  return (
    <BlockRow data-at={`block ${block.id}`} tabIndex={-1} $chosen={isChosen} aria-current={isChosen || undefined}>
      <span>
        {onShow ? (
          <Named aria-label={t('drawn.show', { name: block.name })} onPress={onShow}>
            <b>{block.name}</b>
          </Named>
        ) : (
          <b>{block.name}</b>
        )}{' '}
        <Quiet>{t(`kind.${block.kind}`)}</Quiet>
        <br />
        {block.grows}
        <ClocksOf blockId={block.id} />
      </span>
      <span className="area">{block.areaHa === null ? '' : f.area(block.areaHa)}</span>
      <span>
        {watched.length > 0 ? (
          <Watched>
            {watched.map(({ watch, organismName }, i) => (
              <span key={watch.id}>
                {i > 0 ? ', ' : ''}
                <Link to={`/sites/${site.id}/windows?watch=${watch.id}`}>{organismName}</Link>
              </span>
            ))}
          </Watched>
        ) : null}
        <Small as="span" style={{ display: 'block' }}>
          {block.follows ? (
            <Link to={`/sites/${site.id}/weather?station=${block.follows.stationId}&block=${block.id}`}>
              {t('block.follows', { station: block.follows.name, how: block.follows.how })}
            </Link>
          ) : (
            t('block.noStation')
          )}
          {block.offsetMin !== 0 || block.offsetMax !== 0
            ? `, ${t('block.offset', { min: degrees(block.offsetMin), max: degrees(block.offsetMax) })}`
            : ''}
          {block.checkAreas.length > 0 ? ` · ${t('block.checks', { names: block.checkAreas.map(({ name }) => name).join(', ') })}` : ''}
        </Small>
      </span>
      <Line>
        <TextButton
          aria-expanded={showsParts}
          aria-label={t('parts.showNamed', { block: block.name })}
          onPress={() => setShowsParts(!showsParts)}
        >
          {showsParts ? t('parts.hide') : t('parts.show', { count: parts })}
        </TextButton>
        <TextButton onPress={onEdit} aria-label={t('block.editNamed', { name: block.name })}>
          {t('edit')}
        </TextButton>
        <RemoveButton
          remove={endpoints.blocks.remove}
          restore={endpoints.blocks.restore}
          params={{ siteId: site.id, blockId: block.id }}
          rowVersion={block.rowVersion}
          label={t('block.removeNamed', { name: block.name })}
          said={t('block.removed', { name: block.name })}
        />
      </Line>
      {showsParts ? <PartsOfBlock block={block} /> : null}
    </BlockRow>
  )
}

function SiteFacts() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const itself = useSiteItself()
  const [editing, setEditing] = useState(false)
  return (
    <Stack>
      <Heading>{site.name}</Heading>
      {editing ? (
        <EditSite onDone={() => setEditing(false)} />
      ) : (
        <>
          <p>
            {site.place}
            {site.latitude !== null && site.longitude !== null
              ? ` · ${t('site.position', { latitude: site.latitude.toFixed(2), longitude: site.longitude.toFixed(2) })}`
              : ''}
            {site.elevationM === null ? '' : ` · ${f.height(site.elevationM)}`}
            <br />
            {t('site.clock', { zone: site.timeZone.replaceAll('_', ' ') })}
            <br />
            {t(`units.${itself.units}`)}
          </p>
          <HoldingFacts />
          <TextButton onPress={() => setEditing(true)}>{t('site.edit')}</TextButton>
          <Link to="/start">{t('start.title')}</Link>
          <SiteEnd />
        </>
      )}
    </Stack>
  )
}

/** Who owns the site, and may name it otherwise. */
function HoldingFacts() {
  const t = useText()
  const site = useSite()
  const { holding } = site
  const [editing, setEditing] = useState(false)
  const entry = useEntry(endpoints.sites.nameHolding, { name: holding.name }, holding, holding.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id }, (v, rowVersion) => ({ ...v, rowVersion }))) setEditing(false)
  }
  return (
    <>
      <p>
        {t('holding.of', { name: holding.name, sites: holding.sites })}{' '}
        {editing ? null : (
          <TextButton onPress={() => setEditing(true)} aria-label={t('holding.edit')}>
            {t('holding.rename')}
          </TextButton>
        )}
      </p>
      {holding.sites > 1 ? <Small>{t('holding.what')}</Small> : null}
      {editing ? (
        <Stack>
          <TextField label={t('holding.name')} {...entry.bind.text('name')} autoFocus />
          <EntryEnd entry={entry} onSave={save} onCancel={() => setEditing(false)} />
        </Stack>
      ) : null}
    </>
  )
}
