import { endpoints, type Trial } from '@bocado/contract'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useOrganisms, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Choice } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Caution, Columns, Empty, Heading, Line, Page, PlainTable, Quiet, Sheet, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { Waiting } from '../shell/Waiting.js'
import { trialSays } from './trialWords.js'
import '../messages/en/trials.js'

/** One fair trial: the lot with its labels, the count before, the treatment, the count by which it is judged, and what it says. */
export function TrialScreen() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { trialId = '' } = useParams()
  const { data } = useRead(endpoints.trials.list, { params: { siteId: site.id }, input: {} })
  const { data: organisms = [] } = useOrganisms()
  usePageTitle(t('trials.one'))
  if (!data) return <Waiting />
  const trial = data.find(({ id }) => id === trialId)
  if (!trial)
    return (
      <Page>
        <Empty>
          <p>{t('trials.gone')}</p>
          <Link to={`/sites/${site.id}/outcomes`}>{t('trials.back')}</Link>
        </Empty>
      </Page>
    )
  const organism = organisms.find(({ id }) => id === trial.organismId)
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <div>
          <Title>{trial.name}</Title>
          <p>
            {t('trials.of', { what: trial.what, count: trial.pairs.length, units: trial.units, place: trial.placeName })}{' '}
            <Quiet>
              {organism ? t('trials.held', { organism: organism.name }) : ''} {t('trials.drawn', { date: f.date(trial.drawnOn) })}
            </Quiet>
          </p>
        </div>
        <Line className="off-paper">
          <Button $plain onPress={() => window.print()}>
            {t('trials.print')}
          </Button>
          <RemoveButton
            remove={endpoints.trials.remove}
            restore={endpoints.trials.restore}
            params={{ siteId: site.id, trialId: trial.id }}
            rowVersion={trial.rowVersion}
            said={t('trials.removed', { name: trial.name })}
          />
          <Link to={`/sites/${site.id}/outcomes`}>{t('trials.back')}</Link>
        </Line>
      </Line>
      <p data-testid="trial-says">
        <b>{trialSays(trial, site.today, t, f)}</b>
      </p>
      {trial.moves ? <Caution>{t('trials.movesSays')}</Caution> : null}
      <Columns $left="4fr" $right="7fr">
        <Lot trial={trial} />
        <Stack $gap={22}>
          {trial.measure === 'count' ? <CountStep trial={trial} phase="before" /> : null}
          {trial.measure === 'alive' || trial.before ? <TreatedStep trial={trial} /> : null}
          {trial.judgeFrom !== null && trial.judgeFrom <= site.today ? <CountStep trial={trial} phase="after" /> : null}
        </Stack>
      </Columns>
    </Page>
  )
}

/** Which of each two neighbours the lot named: what is tied to them. */
function Lot({ trial }: { trial: Trial }) {
  const t = useText()
  const one = t(`trials.unit.${trial.units}`)
  return (
    <Stack>
      <Heading>{t('trials.lot')}</Heading>
      <Small>{t('trials.lotHow', { units: t(`trials.units.${trial.units}`) })}</Small>
      <PlainTable>
        <thead>
          <tr>
            <th scope="col">{t('trials.treatThis')}</th>
            <th scope="col">{t('trials.leaveThis')}</th>
          </tr>
        </thead>
        <tbody>
          {trial.pairs.map(({ treated, check }) => (
            <tr key={treated}>
              <td>
                <b>
                  {one} {treated}
                </b>
              </td>
              <td>
                {one} {check}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Stack>
  )
}

function TreatedStep({ trial }: { trial: Trial }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [isOpen, setOpen] = useState(trial.treatedOn === null)
  const entry = useEntry(endpoints.trials.treated, { treatedOn: trial.treatedOn ?? (site.today as string | null) }, trial, trial.id)
  const save = async (): Promise<void> => {
    if (await entry.submit({ siteId: site.id, trialId: trial.id }, (values, rowVersion) => ({ ...values, rowVersion }))) setOpen(false)
  }
  return (
    <Stack $gap={8}>
      <Heading>{t('trials.treated')}</Heading>
      {isOpen ? (
        <>
          <DateField label={t('trials.treatedOn')} {...entry.bind.day('treatedOn')} />
          <EntryEnd entry={entry} onSave={save} onCancel={() => setOpen(trial.treatedOn === null)} words={t('trials.treatedSave')} />
        </>
      ) : (
        <p>
          {trial.treatedOn === null ? '' : f.date(trial.treatedOn)}{' '}
          {trial.after ? null : (
            <TextButton aria-label={t('trials.treatedEdit')} onPress={() => setOpen(true)}>
              {t('edit')}
            </TextButton>
          )}
        </p>
      )}
    </Stack>
  )
}

type Counts = Record<string, number | null>

/** A count of every unit, in the order in which they stand; what is treated is not named here, so that nobody counts by it. */
function CountStep({ trial, phase }: { trial: Trial; phase: 'before' | 'after' }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const known = trial[phase]
  const [isOpen, setOpen] = useState(known === null)
  const units = trial.pairs.flatMap(({ treated, check }) => [treated, check]).sort((a, b) => Number(a) - Number(b))
  const initial = {
    countedOn: known?.countedOn ?? (site.today as string | null),
    counts: Object.fromEntries(units.map((unit) => [unit, known?.counts[unit] ?? null])) as Counts,
  }
  const entry = useEntry(endpoints.trials.count, initial, trial, `${phase} ${trial.id}`)
  const { values, errors } = entry
  const set = (unit: string, count: number | null): void => entry.set({ counts: { ...values.counts, [unit]: count } })
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id, trialId: trial.id }, ({ countedOn, counts }, rowVersion) => ({
      phase,
      countedOn: countedOn ?? '',
      counts: Object.fromEntries(Object.entries(counts).filter(([, count]) => count !== null)),
      rowVersion,
    }))
    if (saved) setOpen(false)
  }
  const missing = units.filter((unit) => errors[`counts.${unit}`] !== undefined)
  const one = t(`trials.unit.${trial.units}`)
  return (
    <Stack $gap={8}>
      <Heading>{t(`trials.count.${trial.measure}.${phase}`)}</Heading>
      {isOpen ? (
        <Sheet>
          <Stack>
            <DateField label={t('trials.countedOn')} {...entry.bind.day('countedOn')} />
            <div style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 10 }}>
              {units.map((unit) =>
                trial.measure === 'alive' ? (
                  <Choice
                    key={unit}
                    label={`${one} ${unit}`}
                    options={[
                      { id: '1', label: t('trials.lives') },
                      { id: '0', label: t('trials.dead') },
                    ]}
                    value={String(values.counts[unit] ?? '')}
                    onChange={(lives) => set(unit, Number(lives))}
                  />
                ) : (
                  <NumberField
                    key={unit}
                    label={`${one} ${unit}`}
                    width="12ch"
                    digits={0}
                    value={values.counts[unit] ?? null}
                    onChange={(count) => set(unit, count)}
                    error={errors[`counts.${unit}`]}
                  />
                ),
              )}
            </div>
            <FormError
              text={missing.length === 0 ? null : t('trials.missing', { units: missing.map((unit) => `${one} ${unit}`).join(', ') })}
            />
            <EntryEnd entry={entry} onSave={save} onCancel={() => setOpen(known === null)} words={t('trials.countSave')} />
          </Stack>
        </Sheet>
      ) : known ? (
        <>
          <p>
            {f.date(known.countedOn)}{' '}
            <TextButton aria-label={t('trials.countEdit', { phase })} onPress={() => setOpen(true)}>
              {t('edit')}
            </TextButton>
          </p>
          <PlainTable>
            <thead>
              <tr>
                <th scope="col">{t('trials.treatThis')}</th>
                <th scope="col">{t('trials.leaveThis')}</th>
              </tr>
            </thead>
            <tbody>
              {trial.pairs.map(({ treated, check }) => (
                <tr key={treated}>
                  {[treated, check].map((unit) => (
                    <td key={unit}>
                      {one} {unit}:{' '}
                      {trial.measure === 'alive'
                        ? known.counts[unit]
                          ? t('trials.lives')
                          : t('trials.dead')
                        : f.number(known.counts[unit] ?? 0, 1)}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </PlainTable>
        </>
      ) : null}
    </Stack>
  )
}
