import { endpoints, type LibraryEntry, type ResponseOf, type VarietyStanding } from '@bocado/contract'
import { scaleLinear } from 'd3-scale'
import { useState } from 'react'
import styled from 'styled-components'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Bullets, Figure, Heading, Line, PlainTable, Quiet, Rows, Small, Stack } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { TakeFile } from '../shell/TakeFile.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Waiting } from '../shell/Waiting.js'
import { DamageDegree } from './DamageDegree.js'
import { RecordVariety, UNJUDGED } from './RecordVariety.js'

const Words = styled.div`
  flex: 1 1 24ch;
`
/** Lies over the whole cell; the bar goes from one end of the interval to the other. */
const Track = styled.div`
  position: relative;
  min-width: 90px;
  height: 20px;
  border-left: 1px solid ${colour.rule};
  border-right: 1px solid ${colour.ruleSoft};
  span {
    position: absolute;
    top: 9px;
    height: 2px;
    background: ${colour.ink};
  }
  i {
    position: absolute;
    top: 5px;
    width: 10px;
    height: 10px;
    margin-left: -5px;
    border-radius: 50%;
    background: ${colour.petrol};
  }
`

/** How varieties bear it: what the library says, with its source, and what was seen here. */
export function Varieties({ entry, blockId }: { entry: LibraryEntry; blockId: string | null }) {
  const t = useText()
  const site = useSite()
  const [recording, setRecording] = useState(false)
  const { data: here } = useRead(endpoints.varieties.get, { params: { siteId: site.id }, input: { organismId: entry.id } })
  return (
    <Stack data-testid="varieties">
      <Heading>{t('varieties.title')}</Heading>
      {entry.about.varieties.length === 0 ? <p>{t('varieties.unsaid')}</p> : <Said entry={entry} standings={here?.standings ?? []} />}
      {here ? here.looks.length === 0 ? <p>{t('varieties.none')}</p> : <Standings standings={here.standings} /> : <Waiting />}
      {here && here.looks.length > 0 ? <Looks here={here} entry={entry} /> : null}
      {recording && here ? (
        <RecordVariety entry={entry} here={here} blockId={blockId} onDone={() => setRecording(false)} />
      ) : (
        <Line>
          <Button $plain onPress={() => setRecording(true)}>
            {t('varieties.record')}
          </Button>
          <BringLooks />
        </Line>
      )}
    </Stack>
  )
}

/** Takes in a file of looks: all of them, or none with what is wrong line by line. */
function BringLooks() {
  const t = useText()
  const site = useSite()
  const { save, isBarred } = useWrite(endpoints.varieties.importLooks)
  const take = async (file: File): Promise<string> => {
    const { added, known } = await save({ params: { siteId: site.id }, input: { csv: await file.text() } })
    return t('varieties.brought', { added, known })
  }
  return <TakeFile words={t('varieties.bring')} types={['text/csv', '.csv']} isBarred={isBarred} take={take} />
}

/** What the library says, and below it what the site's own looks at such varieties say. */
function Said({ entry, standings }: { entry: LibraryEntry; standings: readonly VarietyStanding[] }) {
  const t = useText()
  return (
    <Bullets>
      {entry.about.varieties.map(({ what, effect, confidence, source }) => {
        const own = standings.filter(({ libraryVariety }) => libraryVariety === what)
        return (
          <li key={what}>
            {t('varieties.said', { what, effect })}{' '}
            <Quiet>
              {t('varieties.from', {
                confidence: t(`confidence.${confidence}`),
                source: source.kind === 'paper' ? `${source.authors} ${source.year}` : t(`source.${source.kind}`),
              })}
            </Quiet>{' '}
            {own.length > 0
              ? t('varieties.saidHere', {
                  list: own
                    .map(({ variety, besideOthers }) =>
                      t('varieties.saidOne', { variety, verdict: t(`varieties.verdict.${besideOthers?.verdict ?? 'alone'}`) }),
                    )
                    .join('; '),
                })
              : null}
          </li>
        )
      })}
    </Bullets>
  )
}

function Standings({ standings }: { standings: readonly VarietyStanding[] }) {
  const t = useText()
  const f = useFormat()
  const scale = scaleLinear([0, Math.max(...standings.map(({ interval }) => interval.high))], [0, 100]).nice(3)
  const times = (ratio: number): string => f.number(ratio, ratio < 1 ? 2 : 1)
  const at = (share: number): string => `${scale(share)}%`
  return (
    <Stack $gap={4}>
      <PlainTable data-testid="variety-standings">
        <thead>
          <tr>
            <th scope="col">{t('varieties.column.variety')}</th>
            <th scope="col">{t('varieties.column.looked')}</th>
            <th scope="col" style={{ width: '24%' }}>
              {t('varieties.column.share', { most: f.percent(scale.domain()[1] as number) })}
            </th>
            <th scope="col">{t('varieties.column.beside')}</th>
          </tr>
        </thead>
        <tbody>
          {standings.map(({ variety, part, looked, hit, share, interval, besideOthers }) => (
            <tr key={`${part} ${variety}`}>
              <th scope="row">
                {variety} <Quiet>{t(`part.${part}`)}</Quiet>
              </th>
              <td style={{ whiteSpace: 'nowrap' }}>
                <Figure>{t('varieties.hitOf', { hit: f.number(hit), looked: f.number(looked) })}</Figure>
              </td>
              <td>
                <Track aria-hidden>
                  <span style={{ left: at(interval.low), right: `${100 - scale(interval.high)}%` }} />
                  <i style={{ left: at(share) }} />
                </Track>
                <Quiet>
                  {t('varieties.share', { share: f.percent(share), low: f.percent(interval.low), high: f.percent(interval.high) })}
                </Quiet>
              </td>
              <td>
                {besideOthers
                  ? t('varieties.beside', {
                      verdict: t(`varieties.verdict.${besideOthers.verdict}`),
                      ratio: times(besideOthers.ratio),
                      low: times(besideOthers.interval.low),
                      high: times(besideOthers.interval.high),
                      places: besideOthers.places,
                    })
                  : t('varieties.alone')}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Small>{t('varieties.how')}</Small>
    </Stack>
  )
}

/** What was seen, look by look, newest first. */
function Looks({ here, entry }: { here: ResponseOf<typeof endpoints.varieties.get>; entry: LibraryEntry }) {
  const { looks } = here
  const [correcting, setCorrecting] = useState<string | null>(null)
  const t = useText()
  const site = useSite()
  const f = useFormat()
  const [open, setOpen] = useState(false)
  return (
    <Stack>
      <Line>
        <TextButton onPress={() => setOpen(!open)} aria-expanded={open}>
          {t(open ? 'varieties.hideLooks' : 'varieties.looks', { count: looks.length })}
        </TextButton>
        <a href={`/api/v1/sites/${site.id}/variety-looks.csv`} download>
          {t('varieties.csv')}
        </a>
      </Line>
      {open ? (
        <Rows data-testid="variety-looks">
          {looks.map((look) => (
            <li key={look.id}>
              {correcting === look.id ? (
                <RecordVariety entry={entry} here={here} blockId={look.blockId} look={look} onDone={() => setCorrecting(null)} />
              ) : (
                <Line style={{ alignItems: 'center' }}>
                  <Words>
                    {t('varieties.sentence', {
                      variety: look.variety,
                      block: look.blockName,
                      date: f.withYear(look.lookedOn),
                      hit: f.number(look.hit),
                      looked: f.number(look.looked),
                      part: t(`part.${look.part}`),
                      degree: look.degree === null ? UNJUDGED : t('organism.degree', { percent: f.number(look.degree, 1) }),
                    })}{' '}
                    {look.note} <Quiet>{look.personName}</Quiet>
                  </Words>
                  {look.degree === null ? null : (
                    <div style={{ width: 60 }}>
                      <DamageDegree
                        drawing={entry.about.damage.drawing}
                        percent={look.degree}
                        label={t('organism.degree', { percent: f.number(look.degree, 1) })}
                      />
                    </div>
                  )}
                  <TextButton
                    aria-label={t('varieties.correctOne', { variety: look.variety, date: f.withYear(look.lookedOn) })}
                    onPress={() => setCorrecting(look.id)}
                  >
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.varieties.remove}
                    restore={endpoints.varieties.restore}
                    params={{ siteId: site.id, lookId: look.id }}
                    rowVersion={look.rowVersion}
                    label={t('varieties.removeOne', { variety: look.variety, date: f.withYear(look.lookedOn) })}
                    said={t('varieties.removed', { variety: look.variety })}
                  />
                </Line>
              )}
            </li>
          ))}
        </Rows>
      ) : null}
    </Stack>
  )
}
