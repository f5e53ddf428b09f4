import { endpoints } from '@bocado/contract'
import { useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { choresTogether } from '../band/planting.js'
import { Bullets, Empty, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { PutOnSchedule } from './PutOnSchedule.js'
import '../messages/en/prevent.js'

/** What can be done between two seasons against what winters here, by when each is about again. */
export function WinterPanel() {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: chores } = useRead(endpoints.prevention.chores, { params: { siteId: site.id }, input: {} })
  if (!chores) return <Waiting />
  if (chores.length === 0)
    return (
      <Empty>
        <p>{t('prevent.winter.none')}</p>
      </Empty>
    )
  return (
    <Stack>
      <Small>{t('prevent.winter.lead')}</Small>
      <Rows data-testid="winter-chores">
        {choresTogether(chores).map(({ chore, blocks }) => {
          const from = chore.from !== null && chore.from > site.today ? chore.from : site.today
          const until = chore.by === 'months' ? f.month(chore.until) : f.date(chore.until)
          return (
            <li key={`${chore.organismId} ${chore.until} ${blocks[0]?.id}`}>
              <Stack $gap={4}>
                <span>
                  <b>{chore.name}</b> <Quiet>{blocks.map(({ name }) => name).join(', ')}</Quiet>
                </span>
                <Small>
                  {t('prevent.winter.where', { as: chore.as, where: chore.where })};{' '}
                  {chore.by === 'months'
                    ? t('prevent.winter.by.months', { month: until })
                    : t('prevent.winter.by.model', { date: f.date(chore.until) })}
                </Small>
                <Bullets>
                  {chore.todo.map((todo) => (
                    <li key={todo}>
                      <Line $gap={12}>
                        <span>
                          {todo}, {t('prevent.winter.until', { from: from === site.today ? 'now' : f.date(from), until })}
                        </span>
                        {blocks.map((block) => (
                          <Line key={block.id} $gap={6}>
                            {blocks.length > 1 ? <Small as="span">{block.name}</Small> : null}
                            <PutOnSchedule placeId={block.id} name={`${chore.name}: ${todo}`.slice(0, 120)} kind="crop-work" day={from} />
                          </Line>
                        ))}
                      </Line>
                    </li>
                  ))}
                </Bullets>
              </Stack>
            </li>
          )
        })}
      </Rows>
    </Stack>
  )
}
