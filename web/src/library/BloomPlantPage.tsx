import { endpoints } from '@bocado/contract'
import { useParams } from 'react-router'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Hazards } from '../design/Hazards.js'
import { Figure, Line, PlainTable, Small, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import '../messages/en/field.js'
import '../messages/en/figures.js'
import '../messages/en/library.js'

/** A plant whose bloom tells the season, and whether it stands on this site's route. */
export function BloomPlantPage() {
  const { plantId = '' } = useParams()
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: plants } = useRead(endpoints.library.indicators, { params: { siteId: site.id }, input: {} })
  const add = useWrite(endpoints.library.addToRoute)
  const remove = useWrite(endpoints.library.removeFromRoute)
  const plant = plants?.find(({ id }) => id === plantId)
  usePageTitle(plant?.name)
  if (!plants) return <Waiting />
  if (!plant) return <p>{t('way.gone')}</p>
  const { route } = plant
  return (
    <Stack $gap={16}>
      <div>
        <Title data-at="entry" tabIndex={-1} as="h2">
          {plant.name}
        </Title>
        <p>
          <i>{plant.scientificName}</i>
        </p>
      </div>
      <p>{plant.tell}</p>
      <PlainTable>
        <tbody>
          {plant.events.map((event) => (
            <tr key={event.id}>
              <th scope="row">{event.name}</th>
              <td>
                <Figure>{f.heat(event.heat.value)}</Figure>
              </td>
              <td>
                {t('figures.from', {
                  confidence: t(`confidence.${event.heat.confidence}`),
                  region: event.heat.region,
                  source: event.heat.source.kind === 'common-knowledge' ? 'common' : event.heat.source.kind,
                  authors: event.heat.source.kind === 'paper' ? event.heat.source.authors : '',
                  year: event.heat.source.kind === 'paper' ? String(event.heat.source.year) : '',
                })}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      {plant.own ? null : (
        <Line>
          {route ? (
            <Button
              $plain
              isDisabled={remove.isBarred}
              onPress={() => void remove.save({ params: { siteId: site.id, rowId: route.id }, input: { rowVersion: route.rowVersion } })}
            >
              {t('route.take')}
            </Button>
          ) : (
            <Button isDisabled={add.isBarred} onPress={() => void add.save({ params: { siteId: site.id }, input: { plantId } })}>
              {t('route.put')}
            </Button>
          )}
        </Line>
      )}
      {plant.own ? null : <Small>{t(route ? 'route.isOn' : 'route.isOff')}</Small>}
      <Hazards hazards={plant.hazards} />
    </Stack>
  )
}
