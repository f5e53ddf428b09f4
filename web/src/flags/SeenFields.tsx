import { coverClasses, heightClasses, type FlagVisit, type Organism } from '@bocado/contract'
import { useState, type ReactNode } from 'react'
import type { Bindings } from '../api/bindings.js'
import { AreaField } from '../design/AreaField.js'
import { TextButton } from '../design/buttons.js'
import { Select, TextField } from '../design/controls.js'
import { DateField } from '../design/DateField.js'
import { NumberField } from '../design/NumberField.js'
import { Fields } from '../design/text.js'
import { TakenFields } from '../design/TakenFields.js'
import { hectaresFromSquareMetres, squareMetresFromHectares } from '../design/units.js'
import type { SmallPhoto } from '../library/photo.js'
import { PhotoField } from '../library/PhotoField.js'
import { useText } from '../messages/useText.js'
import { useMethods } from '../windows/useShelfFor.js'
import { NONE, type SeenValues } from './seen.js'

/** What is seen at a flag and done there: how much of it first, the rest when it is asked for. */
export function SeenFields(p: {
  sight: FlagVisit['sight']
  organism: Organism | undefined
  bind: Bindings<SeenValues>
  errors: Readonly<Record<string, string>>
  photo: SmallPhoto | null
  onPhoto: (photo: SmallPhoto) => void
  /** A find: what was done there, and when to look again, is asked among the rest. */
  isFind?: boolean
  /** What else can be said of it. */
  more?: ReactNode
}) {
  const t = useText()
  const { bind, errors, organism } = p
  const [isWhole, setWhole] = useState(false)
  const isUp = p.sight === 'standing' || p.sight === 'regrowing'
  const area = bind.number('areaM2')
  const orNone = (options: readonly { id: string; label: string }[]) => [{ id: NONE, label: t('flags.notSaid') }, ...options]
  return (
    <>
      {isUp ? (
        <Fields>
          <NumberField label={t('flags.plants')} width="12ch" digits={0} hint={t('optional')} {...bind.number('plants')} />
          <AreaField
            label={t('flags.size')}
            isSmall
            hint={t('optional')}
            value={area.value === null ? null : hectaresFromSquareMetres(area.value)}
            onChange={(ha) => area.onChange(ha === null ? null : squareMetresFromHectares(ha))}
            error={area.error}
          />
        </Fields>
      ) : null}
      {p.isFind ? null : <Done bind={bind} errors={errors} organism={organism} />}
      <PhotoField photo={p.photo} onChange={p.onPhoto} />
      <TextButton aria-expanded={isWhole} onPress={() => setWhole(!isWhole)}>
        {t(isWhole ? 'flags.less' : 'flags.more')}
      </TextButton>
      {isWhole ? (
        <>
          {p.more}
          {p.isFind ? <Done bind={bind} errors={errors} organism={organism} /> : null}
          <Fields>
            {isUp ? (
              <>
                {organism ? (
                  <Select
                    label={t('flags.stage')}
                    placeholder=""
                    width="20ch"
                    options={orNone(organism.stages.map(({ id, name }) => ({ id, label: name })))}
                    {...bind.choice('stage')}
                  />
                ) : null}
                <Select
                  label={t('flags.height')}
                  placeholder=""
                  width="16ch"
                  options={orNone(heightClasses.map((id) => ({ id, label: t(`flags.height.${id}`) })))}
                  {...bind.choice('height')}
                />
                <Select
                  label={t('flags.cover')}
                  placeholder=""
                  width="16ch"
                  options={orNone(coverClasses.map((id) => ({ id, label: t(`flags.cover.${id}`) })))}
                  {...bind.choice('cover')}
                />
              </>
            ) : null}
            <DateField label={t('flags.seenOn')} {...bind.day('seenOn')} />
            <NumberField label={t('record.minutes')} width="13ch" digits={0} unit="min" hint={t('optional')} {...bind.number('minutes')} />
            <TextField label={t('note')} width="36ch" {...bind.text('note')} />
          </Fields>
        </>
      ) : null}
    </>
  )
}

/** What was done against it on this visit, and what was taken: what reaches it first. */
function Done({
  bind,
  errors,
  organism,
}: {
  bind: Bindings<SeenValues>
  errors: Readonly<Record<string, string>>
  organism: Organism | undefined
}) {
  const t = useText()
  const { data: methods = [] } = useMethods()
  const reaches = new Set(organism?.reach.map(({ method }) => method))
  const ways = [...methods.filter(({ product: labelled }) => !labelled)].sort(
    (a, b) => Number(reaches.has(b.id)) - Number(reaches.has(a.id)),
  )
  const did = bind.choice('methodId')
  return (
    <Fields>
      <Select
        label={t('flags.did')}
        placeholder=""
        width="26ch"
        options={[{ id: NONE, label: t('flags.didNothing') }, ...ways.map(({ id, name }) => ({ id, label: name }))]}
        {...did}
      />
      {did.value !== NONE ? (
        <TakenFields amount={{ ...bind.number('taken'), error: errors['taken.amount'] }} unit={bind.choice('takenUnit')} />
      ) : null}
      <DateField label={t('flags.due')} {...bind.day('dueOn')} />
    </Fields>
  )
}
