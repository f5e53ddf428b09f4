import { endpoints, type Replacement, type WantedPlant } from '@bocado/contract'
import { useState } from 'react'
import { useBand, useBlocks, useOrganisms, useRead } from '../api/hooks.js'
import { useMay } from '../api/may.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { WithActions } from '../design/sections.js'
import { Caution, Columns, Empty, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat, type Format } from '../design/useFormat.js'
import { namesFirst } from '../flags/named.js'
import { useText, type Say } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { Waiting } from '../shell/Waiting.js'
import { PlantAdd, PlantEdit } from './PlantForm.js'
import { PlanAdd, PlanEdit, type PlanKnown } from './PlanForm.js'
import '../messages/en/field.js'
import '../messages/en/plots.js'

const G_PER_KG = 1000
const M2_PER_HA = 10_000

/** What is planted or sown in place of weeds, with its amounts; and the plants that the site wants. */
export function Instead() {
  const t = useText()
  const site = useSite()
  const may = useMay('tend')
  const { data } = useRead(endpoints.replacement.list, { params: { siteId: site.id }, input: {} })
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: band } = useBand(site.id, site.season.start)
  const [doing, setDoing] = useState<'plan' | 'plant' | null>(null)
  if (!data || !blocks || !organisms || !band) return <Waiting />
  const weeds = namesFirst(organisms, band.watches, []).filter(({ kind }) => kind === 'weed')
  const known: PlanKnown = { blocks, weeds, wanted: data.wanted }
  return (
    <Columns $left="7fr" $right="5fr">
      <Stack>
        {data.plans.length === 0 ? (
          <Empty>
            <p>{t('instead.none')}</p>
          </Empty>
        ) : null}
        {doing === 'plan' ? (
          <PlanAdd {...known} onDone={() => setDoing(null)} />
        ) : may && data.wanted.length > 0 ? (
          <div>
            <Button onPress={() => setDoing('plan')}>{t('instead.add')}</Button>
          </div>
        ) : null}
        {data.plans.length > 0 ? (
          <>
            <Rows>
              {data.plans.map((plan) => (
                <li key={plan.id}>
                  <PlanLine {...known} plan={plan} />
                </li>
              ))}
            </Rows>
            <Small>
              {t('instead.onSchedule')} {t('instead.took')}
            </Small>
          </>
        ) : null}
      </Stack>
      <Stack>
        <Heading>{t('instead.plants')}</Heading>
        {data.wanted.length === 0 ? <Small>{t('instead.plants.none')}</Small> : null}
        {data.wanted.length > 0 ? (
          <Rows>
            {data.wanted.map((plant) => (
              <li key={plant.id}>
                <PlantLine plant={plant} />
              </li>
            ))}
          </Rows>
        ) : null}
        {doing === 'plant' ? (
          <PlantAdd onDone={() => setDoing(null)} />
        ) : may ? (
          <div>
            <Button $plain onPress={() => setDoing('plant')}>
              {t('instead.addPlant')}
            </Button>
          </div>
        ) : null}
        <Small>{t('instead.before')}</Small>
      </Stack>
    </Columns>
  )
}

function amountSays({ name, plants, grams }: Replacement['lines'][number], wanted: readonly WantedPlant[], t: Say, f: Format): string {
  if (plants !== null) return t('instead.amount.plants', { name, plants })
  if (grams === null) return t('instead.amount.unknown', { name, begins: wanted.find((one) => one.name === name)?.begins ?? 'planted' })
  const small = t('instead.grams.small', { grams: f.number(grams, grams < 10 ? 1 : 0) })
  return t('instead.amount.seed', { name, grams: grams < G_PER_KG ? small : f.weight(grams / G_PER_KG) })
}

function PlanLine(p: PlanKnown & { plan: Replacement }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const may = useMay('tend')
  const [isEdited, setEdited] = useState(false)
  const { plan } = p
  if (isEdited) return <PlanEdit {...p} onDone={() => setEdited(false)} />
  const area = f.area(plan.areaM2 / M2_PER_HA)
  return (
    <WithActions>
      <Stack $gap={2}>
        <p>
          <b>{plan.placeName}</b>{' '}
          <Quiet>
            {plan.organismName === null ? t('instead.ground', { area }) : t('instead.inPlaceOf', { area, name: plan.organismName })},{' '}
            {plan.doneOn === null
              ? t('instead.planned', { date: f.withYear(plan.plannedOn) })
              : t('instead.done', { date: f.withYear(plan.doneOn) })}
          </Quiet>
        </p>
        <p>{plan.lines.map((line) => amountSays(line, p.wanted, t, f)).join('; ')}</p>
        {plan.outOfSeason.length > 0 && plan.doneOn === null ? (
          <Caution>{t('instead.outOfSeason', { names: plan.outOfSeason.join(', ') })}</Caution>
        ) : null}
        {plan.note === '' ? null : <Small>{plan.note}</Small>}
      </Stack>
      {may ? (
        <Line>
          <TextButton aria-label={t('instead.edit', { place: plan.placeName })} onPress={() => setEdited(true)}>
            {t('edit')}
          </TextButton>
          <RemoveButton
            remove={endpoints.replacement.remove}
            restore={endpoints.replacement.restore}
            params={{ siteId: site.id, replacementId: plan.id }}
            rowVersion={plan.rowVersion}
            label={t('instead.remove', { place: plan.placeName })}
            said={t('instead.removed', { place: plan.placeName })}
          />
        </Line>
      ) : null}
    </WithActions>
  )
}

function PlantLine({ plant }: { plant: WantedPlant }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const may = useMay('tend')
  const [isEdited, setEdited] = useState(false)
  if (isEdited) return <PlantEdit plant={plant} onDone={() => setEdited(false)} />
  const amount = plant.begins === 'planted' ? plant.spacingCm : plant.gramsPerM2
  return (
    <WithActions>
      <div>
        <b>{plant.name}</b>{' '}
        <Quiet>
          {t('instead.plantSays', {
            begins: plant.begins,
            amount: amount === null ? 'none' : f.number(amount, 1),
            months: plant.months.length === 0 ? 'none' : plant.months.map((month) => f.month(monthDay(month))).join(', '),
          })}
        </Quiet>
        {plant.note === '' ? null : <Small>{plant.note}</Small>}
      </div>
      {may ? (
        <Line>
          <TextButton aria-label={t('instead.editPlant', { name: plant.name })} onPress={() => setEdited(true)}>
            {t('edit')}
          </TextButton>
          <RemoveButton
            remove={endpoints.replacement.removeWanted}
            restore={endpoints.replacement.restoreWanted}
            params={{ siteId: site.id, wantedPlantId: plant.id }}
            rowVersion={plant.rowVersion}
            label={t('instead.removePlant', { name: plant.name })}
            said={t('instead.plantRemoved', { name: plant.name })}
          />
        </Line>
      ) : null}
    </WithActions>
  )
}

/** A day of a month, to name the month by. */
const monthDay = (month: number): string => `2026-${String(month).padStart(2, '0')}-01`
