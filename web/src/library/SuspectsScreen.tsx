import { endpoints, hours, plantParts, type SignObservation, type Suspects } from '@bocado/contract'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import styled from 'styled-components'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { onStageFill, stageFill, StageShape } from '../design/StageShape.js'
import { Caution, Figure, Heading, Line, Quiet, Rows, Sheet, Small, Stack, Title } from '../design/text.js'
import { colour } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { signWords } from './signWords.js'
import { KeepUnknown, UnknownFinds } from './UnknownFinds.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/library.js'
import '../messages/en/varieties.js'

const Bar = styled.div`
  height: 8px;
  background: ${colour.ruleSoft};
  border-radius: 2px;
  > div {
    height: 100%;
    background: ${colour.petrol};
    border-radius: 2px;
  }
`
const Seen = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
    align-items: baseline;
  }
`

const pairOf = ({ part, sign }: Pick<SignObservation, 'part' | 'sign'>): string => `${part}:${sign}`
const observed = (text: string | null, seen: boolean): SignObservation[] =>
  (text ?? '')
    .split(',')
    .filter(Boolean)
    .map((pair) => {
      const [part, sign] = pair.split(':')
      return { part, sign, seen } as SignObservation
    })

/** From what is seen to what it may be: signs in, ranked suspects out, and the observation that parts them best. */
export function SuspectsScreen() {
  const t = useText()
  usePageTitle(t('suspects.title'))
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const [part, setPart] = useState<string | null>(null)
  const [sign, setSign] = useState<string | null>(null)
  const place = search.get('place') ?? ''
  const [typedPlace, setTypedPlace] = useState(place)
  const month = search.get('month') ?? String(Number(f.today.slice(5, 7)))
  const hour = search.get('hour')
  const observations = [...observed(search.get('seen'), true), ...observed(search.get('notSeen'), false)]
  const put = (changes: Record<string, string | null>): void =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before)
        for (const [key, value] of Object.entries(changes))
          if (value) next.set(key, value)
          else next.delete(key)
        return next
      },
      { replace: true },
    )
  const keep = (all: readonly SignObservation[]): void =>
    put({
      seen: all
        .filter((o) => o.seen)
        .map(pairOf)
        .join(','),
      notSeen: all
        .filter((o) => !o.seen)
        .map(pairOf)
        .join(','),
    })
  const note = (added: SignObservation): void => keep([...observations.filter((o) => pairOf(o) !== pairOf(added)), added])
  const seen = search.get('seen') ?? ''
  const notSeen = search.get('notSeen') ?? ''
  const { data } = useRead(
    endpoints.library.suspects,
    {
      params: { siteId: site.id },
      input: { place, month: Number(month), seen, notSeen, ...(hour ? { hour: hour as (typeof hours)[number] } : {}) },
    },
    observations.length > 0,
  )
  const { data: signs = [] } = useRead(endpoints.library.signs, { params: { siteId: site.id }, input: {} })
  const onPart = signs
    .filter((s) => s.part === part)
    .map(({ sign: id }) => ({ id, label: t(`sign.${id}`) }))
    .sort((x, y) => x.label.localeCompare(y.label))
  return (
    <Stack $gap={18}>
      <Title as="h2">{t('suspects.title')}</Title>
      <Sheet>
        <Stack>
          <Line>
            <div onBlur={() => put({ place: typedPlace })}>
              <TextField label={t('suspects.place')} width="24ch" value={typedPlace} onChange={setTypedPlace} />
            </div>
            <Select
              label={t('suspects.month')}
              placeholder={t('choose')}
              width="16ch"
              options={Array.from({ length: 12 }, (_, i) => ({
                id: String(i + 1),
                label: f.month(`2026-${String(i + 1).padStart(2, '0')}-01`),
              }))}
              value={month}
              onChange={(m) => put({ month: m })}
            />
            <Select
              label={t('suspects.hour')}
              placeholder={t('suspects.anyHour')}
              width="14ch"
              options={[{ id: 'any', label: t('suspects.anyHour') }, ...hours.map((id) => ({ id, label: t(`hour.${id}`) }))]}
              value={hour ?? 'any'}
              onChange={(h) => put({ hour: h === 'any' ? null : h })}
            />
          </Line>
          <Line>
            <Select
              label={t('suspects.part')}
              placeholder={t('choose')}
              width="18ch"
              options={plantParts.map((id) => ({ id, label: t(`part.${id}`) }))}
              value={part}
              onChange={(chosen) => {
                setPart(chosen)
                setSign(null)
              }}
            />
            <Select
              label={t('suspects.sign')}
              placeholder={t(part ? 'choose' : 'suspects.partFirst')}
              width="26ch"
              options={onPart}
              value={sign}
              onChange={setSign}
            />
            <Button
              isDisabled={!part || !sign}
              onPress={() => {
                note({ part, sign, seen: true } as SignObservation)
                setSign(null)
              }}
            >
              {t('suspects.add')}
            </Button>
          </Line>
          {observations.length > 0 ? (
            <Seen data-testid="observations">
              {observations.map((o) => (
                <li key={pairOf(o)}>
                  {t('suspects.observed', { sign: signWords(o, t), seen: o.seen ? 'yes' : 'no' })}
                  <TextButton
                    aria-label={t('suspects.dropOne', { sign: signWords(o, t) })}
                    onPress={() => keep(observations.filter((other) => other !== o))}
                  >
                    {t('suspects.drop')}
                  </TextButton>
                </li>
              ))}
            </Seen>
          ) : (
            <p>{t('suspects.empty')}</p>
          )}
        </Stack>
      </Sheet>
      {data && observations.length > 0 ? <Ranked data={data} onAnswer={note} /> : null}
      {observations.length > 0 ? <Unnamed place={place} seen={seen} notSeen={notSeen} urged={data?.nothingFits ?? false} /> : null}
      <UnknownFinds />
      <Caution>{t('caution.identity')}</Caution>
    </Stack>
  )
}

/** What nobody can name is kept, whatever the library thinks of it. */
function Unnamed({ urged, ...described }: { place: string; seen: string; notSeen: string; urged: boolean }) {
  const t = useText()
  const [open, setOpen] = useState(false)
  const [kept, setKept] = useState<string | null>(null)
  if (kept === described.seen) return <p role="status">{t('unknown.kept')}</p>
  if (open)
    return (
      <KeepUnknown
        {...described}
        onDone={() => {
          setOpen(false)
          setKept(described.seen)
        }}
      />
    )
  return (
    <Line>
      {urged ? (
        <Button onPress={() => setOpen(true)}>{t('unknown.keepAsUnknown')}</Button>
      ) : (
        <TextButton onPress={() => setOpen(true)}>{t('unknown.keepAsUnknown')}</TextButton>
      )}
    </Line>
  )
}

function Ranked({ data, onAnswer }: { data: Suspects; onAnswer: (o: SignObservation) => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [question] = data.next
  return (
    <>
      {question && question.gain >= 0.02 ? (
        <Stack data-testid="next-observation">
          <Heading>{t('suspects.next', { sign: signWords(question, t) })}</Heading>
          {question.shownBy.map(({ name, tell }) => (
            <Small key={name}>
              {name}: {tell}
            </Small>
          ))}
          <Line>
            <Button onPress={() => onAnswer({ ...question, seen: true })}>{t('suspects.yes')}</Button>
            <Button $plain onPress={() => onAnswer({ ...question, seen: false })}>
              {t('suspects.no')}
            </Button>
          </Line>
        </Stack>
      ) : null}
      {data.burning.length > 0 ? <Caution data-testid="burning">{t('suspects.burning', { list: data.burning.join(', ') })}</Caution> : null}
      {data.nothingFits ? <p data-testid="nothing-fits">{t('suspects.nothingFits')}</p> : null}
      <Heading>{t('suspects.ranked')}</Heading>
      <Rows data-testid="suspects">
        {data.suspects.map((suspect) => (
          <li key={suspect.id}>
            <Line style={{ alignItems: 'center' }}>
              {suspect.silhouette ? (
                <svg width="32" height="22" viewBox="-16 -11 32 22" aria-hidden>
                  <rect x="-16" y="-11" width="32" height="22" rx="3" fill={stageFill(suspect.silhouette)} />
                  <StageShape shape={suspect.silhouette} fill={onStageFill(suspect.silhouette)} />
                </svg>
              ) : null}
              <div style={{ flex: '1 1 26ch' }}>
                <b>{suspect.kind === 'unknown' ? t('suspects.none') : suspect.name}</b>{' '}
                <Quiet>{suspect.organism || suspect.kind === 'unknown' ? '' : t('suspects.noPest')}</Quiet>
                {suspect.tells.map((tell) => (
                  <p key={tell}>{tell}</p>
                ))}
                {suspect.whatHelps ? <p>{suspect.whatHelps}</p> : null}
                {suspect.touch.map((text) => (
                  <Caution key={text}>{t('suspects.touch', { text })}</Caution>
                ))}
                {suspect.organism ? (
                  <Line $gap={16}>
                    <Link to={`/sites/${site.id}/library/organisms/${suspect.id}`}>{t('suspects.page')}</Link>
                    <Link to={`/sites/${site.id}/library/organisms/${suspect.id}/check`}>{t('suspects.check')}</Link>
                  </Line>
                ) : null}
              </div>
              <div style={{ width: 120 }}>
                <Figure>{f.percent(suspect.probability)}</Figure>
                <Bar aria-hidden>
                  <div style={{ width: `${100 * suspect.probability}%` }} />
                </Bar>
              </div>
            </Line>
          </li>
        ))}
      </Rows>
      <Small>{t('suspects.how')}</Small>
    </>
  )
}
