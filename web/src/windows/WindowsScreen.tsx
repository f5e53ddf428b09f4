import { Plus } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useBand, useBlocks, useOrganisms } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { SeasonBand, type AxisKind, type DraftPin } from '../band/SeasonBand.js'
import { byUrgency, currentWindow, windowSentence } from '../band/words.js'
import { Button, Choice } from '../design/controls.js'
import { Columns, Empty, Line, Page, Rows, Title } from '../design/text.js'
import { colour, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { useKeys } from '../shell/keys.js'
import { Waiting } from '../shell/Waiting.js'
import { AddWatch } from './AddWatch.js'
import { PlanPanel } from './PlanPanel.js'
import { WatchDetail } from './WatchDetail.js'

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding: 14px 20px;
  .right {
    margin-left: auto;
    display: flex;
    gap: 12px;
    align-items: center;
  }
  @media ${PHONE} {
    padding: 12px 14px;
  }
`
const Sentences = styled(Rows)`
  display: none;
  @media ${PHONE} {
    display: block;
    margin: 0 14px;
  }
  button {
    border: 0;
    border-left: 5px solid transparent;
    background: none;
    text-align: left;
    padding: 6px 10px;
    width: 100%;
    min-height: 56px;
    &[aria-pressed='true'] {
      background: ${colour.white};
      border-left-color: ${colour.petrol};
    }
    b {
      display: block;
    }
  }
`

/** The season band with what it says about the chosen watch, and a treatment planned into its window. */
export function WindowsScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const { data: band } = useBand(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const [axis, setAxis] = useState<AxisKind>('days')
  const [adding, setAdding] = useState(false)
  const [draft, setDraft] = useState<DraftPin | null>(null)
  const rows = useMemo(() => (band ? [...band.watches].sort(byUrgency) : []), [band])
  const blockNames = useMemo(() => new Map((blocks ?? []).map(({ id, name }) => [id, name])), [blocks])
  const selected = rows.find(({ watch }) => watch.id === search.get('watch')) ?? rows[0]
  useKeys({ h: () => band?.heatAxis && setAxis((now) => (now === 'heat' ? 'days' : 'heat')) })

  if (!band || !blocks || !organisms) return <Waiting />
  const select = (watchId: string): void => {
    setDraft(null)
    setSearch({ watch: watchId }, { replace: true })
  }
  const open = rows.filter((row) => ['open', 'closing'].includes(currentWindow(row)?.state ?? '')).length
  return (
    <main>
      <Head>
        <Title>{t('windows.title', { watches: rows.length, open })}</Title>
        <span className="right">
          {band.heatAxis ? (
            <Choice
              label={t('band.axis')}
              options={[
                { id: 'days', label: t('band.days') },
                { id: 'heat', label: t('band.heat') },
              ]}
              value={axis}
              onChange={setAxis}
            />
          ) : null}
          <Button $plain onPress={() => setAdding((now) => !now)} aria-expanded={adding}>
            <Plus size={16} aria-hidden style={{ verticalAlign: '-3px' }} /> {t('watch.add')}
          </Button>
        </span>
      </Head>
      {adding ? (
        <AddWatch
          blocks={blocks}
          organisms={organisms}
          onAdded={(id) => {
            setAdding(false)
            select(id)
          }}
          onCancel={() => setAdding(false)}
        />
      ) : null}
      {selected ? (
        <>
          <Sentences>
            {rows.map((row) => (
              <li key={row.watch.id}>
                <button type="button" aria-pressed={row === selected} onClick={() => select(row.watch.id)}>
                  <b>
                    {row.organismName}, {blockNames.get(row.watch.blockId)}
                  </b>
                  {windowSentence(row, t, f)}
                </button>
              </li>
            ))}
          </Sentences>
          <SeasonBand
            band={band}
            rows={rows}
            blockNames={blockNames}
            axis={axis}
            selected={selected.watch.id}
            onSelect={select}
            draft={draft}
          />
          <Page as="div">
            <Columns $left="5fr" $right="6fr">
              <WatchDetail
                key={selected.watch.id}
                forecast={selected}
                organism={organisms.find(({ id }) => id === selected.watch.organismId)}
              />
              <PlanPanel key={`plan-${selected.watch.id}`} forecast={selected} onDraft={setDraft} />
            </Columns>
          </Page>
        </>
      ) : adding ? null : (
        <Page as="div">
          <Empty>
            <p>{t(blocks.length === 0 ? 'windows.emptyNoBlocks' : 'windows.empty')}</p>
            <Line>
              {blocks.length === 0 ? (
                <Link to={`/sites/${site.id}/site`}>{t('windows.toSite')}</Link>
              ) : (
                <Button onPress={() => setAdding(true)}>{t('watch.first')}</Button>
              )}
              <Link to={`/sites/${site.id}/weather`}>{t('windows.toWeather')}</Link>
            </Line>
          </Empty>
        </Page>
      )}
    </main>
  )
}
