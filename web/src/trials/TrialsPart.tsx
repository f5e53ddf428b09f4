import { endpoints, trialMeasures, trialUnits, type Trial } from '@bocado/contract'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { useBlocks, useOrganisms, usePlaces, useProducts, useRead } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { powerOf } from '../band/trial.js'
import { TextButton } from '../design/buttons.js'
import { Checkbox, Select, TextField } from '../design/controls.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Heading, Line, Quiet, Rows, Sheet, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { trialSays } from './trialWords.js'
import '../messages/en/trials.js'

/** Fair trials: what was tried on neighbours drawn by lot, and what each says. */
export function TrialsPart() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data } = useRead(endpoints.trials.list, { params: { siteId: site.id }, input: {} })
  const [isPlanning, setPlanning] = useState(false)
  if (!data) return null
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('trials.title')}</Heading>
        {isPlanning ? null : <TextButton onPress={() => setPlanning(true)}>{t('trials.plan')}</TextButton>}
      </Line>
      {isPlanning ? <TrialForm onDone={() => setPlanning(false)} /> : null}
      {data.length === 0 && !isPlanning ? <Small>{t('trials.none')}</Small> : null}
      <Rows>
        {data.map((trial) => (
          <li key={trial.id}>
            <Link to={`/sites/${site.id}/outcomes/trials/${trial.id}`}>{trial.name}</Link>{' '}
            <Quiet>{t('trials.of', { what: trial.what, count: trial.pairs.length, units: trial.units, place: trial.placeName })}</Quiet>
            <Small>{trialSays(trial, site.today, t, f)}</Small>
          </li>
        ))}
      </Rows>
    </Stack>
  )
}

/** So much is what most want to find. */
const WANTED = 0.5
const NOBODY = 'plants-themselves'
/** What is tried is none of the ways that are known here: a date, a variety, a height. */
const OWN_WORDS = 'own-words'

function TrialForm({ onDone }: { onDone: () => void }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const { data: places = [] } = usePlaces(site.id)
  const { data: organisms = [] } = useOrganisms()
  const { data: products = [] } = useProducts(site.id)
  const { data: methods = [] } = useRead(endpoints.library.methods, { params: { siteId: site.id }, input: {} })
  // What comes with a label is tried as the product that stands on the shelf.
  const byHand = methods.filter(({ product }) => !product)
  const entry = useEntry(
    endpoints.trials.draw,
    {
      name: '',
      what: '',
      way: OWN_WORDS,
      placeId: null as string | null,
      organismId: NOBODY,
      units: 'plants' as Trial['units'],
      measure: 'count' as Trial['measure'],
      moves: false,
      pairs: 6 as number | null,
      judgeAfterDays: 7 as number | null,
      note: '',
    },
    null,
    site.id,
  )
  const { values, bind } = entry
  const [mean, setMean] = useState<number | null>(5)
  const played = useMemo(() => powerOf(values.pairs, mean, WANTED), [values.pairs, mean])
  const power = values.measure === 'count' ? played : null
  /** A way that is known brings its name, and the day from which it can be judged. */
  const takeWay = (way: string): void => {
    const method = byHand.find(({ id }) => id === way)
    const product = products.find(({ id }) => id === way)
    const after = Math.max(0, ...methods.filter(({ id }) => product?.methods.includes(id)).map(({ judgeAfterDays }) => judgeAfterDays))
    const days = method?.judgeAfterDays ?? after
    const name = method?.name ?? product?.name
    entry.set({ way, ...(name && values.what === '' ? { what: name } : {}), ...(days > 0 ? { judgeAfterDays: days } : {}) })
  }
  const save = async (): Promise<void> => {
    const saved = await entry.submit({ siteId: site.id }, ({ way, ...v }) => ({
      ...v,
      productId: products.some(({ id }) => id === way) ? way : null,
      methodId: byHand.some(({ id }) => id === way) ? way : null,
      placeId: v.placeId ?? '',
      organismId: v.organismId === NOBODY ? null : v.organismId,
      pairs: v.pairs ?? undefined,
      judgeAfterDays: v.judgeAfterDays ?? undefined,
    }))
    if (saved) onDone()
  }
  return (
    <Sheet>
      <Stack>
        <Small>{t('trials.how')}</Small>
        <Fields>
          <TextField label={t('trials.name')} width="24ch" {...bind.text('name')} autoFocus />
          <Select
            label={t('trials.way')}
            placeholder={t('choose')}
            width="26ch"
            options={[
              { id: OWN_WORDS, label: t('trials.ownWords') },
              ...[...products, ...byHand].map(({ id, name }) => ({ id, label: name })),
            ]}
            value={values.way}
            onChange={takeWay}
            error={entry.errors['productId'] ?? entry.errors['methodId']}
          />
          <TextField label={t('trials.what')} hint={t('trials.whatHint')} width="34ch" {...bind.text('what')} />
        </Fields>
        <Fields>
          <Select
            label={t('trials.where')}
            placeholder={t('choose')}
            width="22ch"
            options={[...blocks, ...places].map(({ id, name }) => ({ id, label: name }))}
            {...bind.choice('placeId')}
          />
          <Select
            label={t('trials.against')}
            placeholder={t('choose')}
            width="26ch"
            options={[{ id: NOBODY, label: t('trials.themselves') }, ...organisms.map(({ id, name }) => ({ id, label: name }))]}
            {...bind.choice('organismId')}
          />
        </Fields>
        <Fields>
          <Select
            label={t('trials.units')}
            placeholder={t('choose')}
            width="14ch"
            options={trialUnits.map((id) => ({ id, label: t(`trials.units.${id}`) }))}
            {...bind.choice('units')}
          />
          <NumberField label={t('trials.pairs')} width="10ch" digits={0} {...bind.number('pairs')} />
          <Select
            label={t('trials.measure')}
            placeholder={t('choose')}
            width="24ch"
            options={trialMeasures.map((id) => ({ id, label: t(`trials.measure.${id}`) }))}
            {...bind.choice('measure')}
          />
          <NumberField label={t('trials.judgeAfter')} width="14ch" unit={t('days')} digits={0} {...bind.number('judgeAfterDays')} />
        </Fields>
        <Checkbox label={t('trials.moves')} {...bind.check('moves')} />
        {values.measure === 'count' ? (
          <Fields>
            <NumberField label={t('trials.mean')} width="16ch" digits={1} value={mean} onChange={setMean} />
            {power === null ? null : (
              <p data-testid="power" style={{ alignSelf: 'center' }}>
                {t('trials.power', { share: f.percent(power), wanted: f.percent(WANTED), enough: power >= 0.8 ? 'yes' : 'no' })}
              </p>
            )}
          </Fields>
        ) : null}
        <EntryEnd entry={entry} onSave={save} onCancel={onDone} words={t('trials.draw')} />
      </Stack>
    </Sheet>
  )
}
