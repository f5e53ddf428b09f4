import { memo, useDeferredValue, useState } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { byHeightOf, endsBy, per100Of, strataBy } from '../band/countingPlan.js'
import { isCrossed } from '../band/threshold.js'
import { Button, TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { TakenFields } from '../design/TakenFields.js'
import { Fields, Heading, Line, Small, Stack } from '../design/text.js'
import { colour, font, PHONE } from '../design/theme.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { ByHeight } from './HeightPart.js'
import { perWords } from './perWords.js'
import { heightsOf } from './places.js'
import { Strata } from './Strata.js'
import { readUnits, writeUnits } from './unitLines.js'
import type { Counting } from './useCounting.js'
import { Verdict } from './Verdict.js'
import '../messages/en/count.js'
import '../messages/en/work.js'

const Chips = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  button {
    min-width: 40px;
    min-height: 40px;
    border: 1px solid ${colour.rule};
    border-radius: 4px;
    background: ${colour.sheet};
    cursor: pointer;
    font-family: ${font.figures};
    &[aria-pressed='true'] {
      border: 3px solid ${colour.ink};
      background: ${colour.white};
    }
    &.found {
      font-weight: 700;
      border-bottom: 4px solid ${colour.beet};
    }
    &.place:not(:first-child) {
      margin-left: 10px;
    }
    @media ${PHONE} {
      min-width: 48px;
      min-height: 48px;
    }
  }
`

/** What the count says so far, its sample units one by one, and its end. What follows from a tap may come a moment after the tap. */
export function CountSays({ c }: { c: Counting }) {
  const later = useDeferredValue(c)
  return (
    <Stack>
      <SoFar c={later} />
      <Paper c={c} />
      <CountEnd c={c} />
    </Stack>
  )
}

const SoFar = memo(function SoFar({ c }: { c: Counting }) {
  const t = useText()
  const f = useFormat()
  const { sampling, threshold, plan, effective, units, places } = c
  const per100 = per100Of(effective, { ...sampling, ...endsBy(sampling.rule?.plan ?? null) })
  const items = perWords(sampling, t)
  const looked = c.isOpened ? effective.slice(0, -1) : effective
  return (
    <>
      <Heading aria-live="polite">
        {t('count.sofar', {
          count: units.length,
          unit: units.length === 1 ? sampling.unit : sampling.units,
          per100: f.number(per100, 1),
          items,
        })}
      </Heading>
      {plan && threshold ? (
        <Verdict plan={plan} found={looked} places={places?.length ?? null} threshold={threshold} sampling={sampling} />
      ) : (
        <p>
          {threshold === null ? (
            t('scouting.noThreshold')
          ) : threshold.from === 'every-one' ? (
            t('scouting.everyOne')
          ) : (
            <b style={{ color: isCrossed(per100, threshold) ? colour.beet : colour.petrol }}>
              {t(isCrossed(per100, threshold) ? 'count.over' : 'count.under', { threshold: f.number(threshold.per100, 1) })}
            </b>
          )}{' '}
          {units.length < sampling.suggestedUnits ? t('count.suggested', { count: sampling.suggestedUnits, units: sampling.units }) : ''}
        </p>
      )}
      {threshold && c.values.checkAreaId === null ? (
        <Strata parts={strataBy(looked, places, threshold, sampling)} threshold={threshold} items={items} units={sampling.units} />
      ) : null}
      {c.heights ? (
        <ByHeight parts={byHeightOf(looked, c.heights, { ...sampling, ...endsBy(sampling.rule?.plan ?? null) })} items={items} />
      ) : null}
      <Chips>
        {units.map((_, i) => (
          <button
            key={i}
            type="button"
            aria-pressed={i === c.at}
            aria-label={t('count.chip', { unit: sampling.unit, number: i + 1, found: effective[i] ?? 0 })}
            className={`${(effective[i] ?? 0) > 0 ? 'found' : ''} ${places?.some(({ from }) => from === i) ? 'place' : ''}`}
            onClick={() => c.goTo(i)}
          >
            {f.number(effective[i] ?? 0, sampling.scale === 'degrees' ? 2 : 1)}
          </button>
        ))}
      </Chips>
    </>
  )
})

/** A page that was tallied on paper, typed in by rows. */
function Paper({ c }: { c: Counting }) {
  const t = useText()
  const { sampling, units, places } = c
  const [paper, setPaper] = useState<string | null>(null)
  if (paper === null)
    return <TextButton onPress={() => setPaper(writeUnits(units, sampling.classes, places))}>{t('count.paper')}</TextButton>
  const read = readUnits(paper, sampling.classes)
  return (
    <>
      <TextField
        label={t('count.paperLabel', { unit: sampling.unit })}
        rows={7}
        value={paper}
        onChange={setPaper}
        hint={t('count.paperHint', { classes: sampling.classes.map(({ name }) => name).join(' · ') })}
        error={read.wrong === undefined ? undefined : t('count.paperWrong', { line: read.wrong })}
      />
      <Line>
        <Button
          isDisabled={read.wrong !== undefined || read.units.length === 0}
          onPress={() => {
            c.set({ units: read.units, places: read.places, heights: heightsOf(c.heights, read.units.length) })
            c.goTo(read.units.length - 1)
            setPaper(null)
          }}
        >
          {t('count.paperTake', { count: read.units.length, units: sampling.units })}
        </Button>
        <Button $plain onPress={() => setPaper(null)}>
          {t('cancel')}
        </Button>
      </Line>
    </>
  )
}

/** What the walk took, and the count is stored. */
function CountEnd({ c }: { c: Counting }) {
  const t = useText()
  const site = useSite()
  const { entry, values, set, sampling, units, last } = c
  const { errors } = entry
  return (
    <>
      <Effort
        minutes={c.minutes}
        taken={values.taken ?? null}
        takenUnit={values.takenUnit ?? 'pieces'}
        note={values.note}
        errors={errors}
        onChange={set}
      />
      {Object.entries(errors)
        .filter(([path]) => /^(units|places|enemies|watchId|scale)/.test(path))
        .map(([path, message]) => (
          <FormError key={path} text={`${path}: ${message}`} />
        ))}
      <FormError text={entry.general} />
      <Line>
        <Button onPress={() => (c.isOpened ? c.askLast() : void c.save())} isDisabled={entry.isBarred || c.asks}>
          {t('count.save')}
        </Button>
        <Link to={`/sites/${site.id}/scouting`}>{t('count.later')}</Link>
      </Line>
      {c.asks ? (
        <Stack role="alert" $gap={8}>
          <b>{t('count.lastEmpty', { unit: sampling.unit, number: last + 1 })}</b>
          <Line>
            <Button $plain onPress={() => void c.save(units.slice(0, -1))}>
              {t('count.leaveOut')}
            </Button>
            <Button $plain onPress={() => void c.save()}>
              {t('count.countsAsNone')}
            </Button>
          </Line>
        </Stack>
      ) : null}
      <Small>{t('count.held')}</Small>
    </>
  )
}

/** What the walk took and brought. Drawn by itself: a tap changes little of it. */
const Effort = memo(function Effort(p: {
  minutes: number | null
  taken: number | null
  takenUnit: string
  note: string
  errors: Readonly<Record<string, string>>
  onChange: Counting['set']
}) {
  const t = useText()
  const { errors, onChange } = p
  return (
    <>
      <Fields>
        <NumberField
          label={t('count.took')}
          width="13ch"
          digits={0}
          unit="min"
          hint={t('optional')}
          value={p.minutes}
          onChange={(minutes) => onChange({ minutes })}
          error={errors['minutes']}
        />
        <TakenFields
          amount={{ value: p.taken, onChange: (taken) => onChange({ taken }), error: errors['taken.amount'] }}
          unit={{ value: p.takenUnit, onChange: (takenUnit) => onChange({ takenUnit }) }}
        />
      </Fields>
      <TextField label={t('note')} value={p.note} onChange={(note) => onChange({ note })} error={errors['note']} />
    </>
  )
})
