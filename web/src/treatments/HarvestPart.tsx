import { endpoints, type Block, type ResponseOf } from '@bocado/contract'
import { useState } from 'react'
import { nameOf } from '../api/unsent.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Heading, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { UnsentHere } from '../shell/UnsentHere.js'
import { partLater } from '../shell/partLater.js'
import { useAsked } from '../shell/useAsked.js'
import { useWhat } from './harvestWords.js'
import type { Named } from './readHarvest.js'
import '../messages/en/harvest.js'

const HarvestForm = partLater(async () => (await import('./HarvestForm.js')).HarvestForm)

/** As many as are of these weeks; the rest is one press away. */
const SHOWN = 5

interface HarvestPartProps {
  data: ResponseOf<typeof endpoints.harvests.list>
  blocks: readonly Block[]
  organisms: readonly Named[]
}

/** What was picked this season, what a label keeps waiting, and a line to add to it. */
export function HarvestPart({ data, blocks, organisms }: HarvestPartProps) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const what = useWhat()
  const [open, setOpen] = useState<string | null>(null)
  const [showsAll, setShowsAll] = useState(false)
  useAsked('harvest', () => setOpen('new'))
  const { harvests, waits } = data
  const weight = harvests.reduce((sum, { kg }) => sum + (kg ?? 0), 0)
  const shared = { blocks, organisms, waits, onDone: () => setOpen(null) }
  return (
    <Stack>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{weight > 0 ? t('harvest.sum', { weight: f.weight(weight) }) : t('harvest.title')}</Heading>
        {open === 'new' ? null : <TextButton onPress={() => setOpen('new')}>{t('harvest.add')}</TextButton>}
      </Line>
      {waits.map(({ treatmentId, name, from, placeName }) => (
        <Caution key={treatmentId}>{t('harvest.wait', { place: placeName, date: f.date(from), name })}</Caution>
      ))}
      <UnsentHere of={(item) => item.what === nameOf(endpoints.harvests.add)} />
      {open === 'new' ? <HarvestForm {...shared} /> : null}
      <Rows>
        {(showsAll ? harvests : harvests.slice(0, SHOWN)).map((harvest) => (
          <li key={harvest.id}>
            {open === harvest.id ? (
              <HarvestForm harvest={harvest} {...shared} />
            ) : (
              <Line style={{ justifyContent: 'space-between' }}>
                <span>
                  {what(harvest, harvest.placeName)}{' '}
                  <Quiet>{t('harvest.by', { date: f.date(harvest.pickedOn), person: harvest.personName })}</Quiet>
                  {harvest.note === '' ? null : <Small>{harvest.note}</Small>}
                </span>
                <Line>
                  <TextButton aria-label={t('harvest.correct', { date: f.date(harvest.pickedOn) })} onPress={() => setOpen(harvest.id)}>
                    {t('edit')}
                  </TextButton>
                  <RemoveButton
                    remove={endpoints.harvests.remove}
                    restore={endpoints.harvests.restore}
                    params={{ siteId: site.id, harvestId: harvest.id }}
                    rowVersion={harvest.rowVersion}
                    label={t('harvest.removeOne', { date: f.date(harvest.pickedOn), what: what(harvest, harvest.placeName) })}
                    said={t('harvest.removed', { date: f.date(harvest.pickedOn) })}
                  />
                </Line>
              </Line>
            )}
            {harvest.tooEarly.map(({ treatmentId, name, from }) => (
              <Caution key={treatmentId}>{t('harvest.tooEarly', { name, date: f.date(from) })}</Caution>
            ))}
          </li>
        ))}
      </Rows>
      {harvests.length > SHOWN && !showsAll ? (
        <TextButton onPress={() => setShowsAll(true)}>{t('harvest.more', { count: harvests.length - SHOWN })}</TextButton>
      ) : null}
    </Stack>
  )
}
