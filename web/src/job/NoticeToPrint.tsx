import type { Product, Treatment, WatchForecast } from '@bocado/contract'
import { Link } from 'react-router'
import { useBlocks } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { Line, Page, PlainTable, Sheet, Stack, Title } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/job.js'

/** What neighbours are given before something is done near them: what, where, when, and what they may do. */
export function NoticeToPrint({ row, treatment, product }: { row: WatchForecast; treatment: Treatment; product: Product | null }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { data: blocks = [] } = useBlocks(site.id)
  const block = blocks.find(({ id }) => id === row.watch.blockId)
  const lines = [
    [t('notice.when'), f.date(treatment.plannedOn)],
    [t('posting.where'), block?.name ?? ''],
    [t('posting.what'), treatment.name],
    [t('posting.registration'), product?.registration ?? ''],
    [t('posting.active'), product?.active ?? ''],
    [t('notice.against'), row.organismName],
    [t('notice.keepOut'), product && product.reEntryHours > 0 ? t('notice.hours', { hours: f.number(product.reEntryHours, 1) }) : ''],
  ].filter(([, value]) => value !== '')
  return (
    <Page>
      <div className="off-paper">
        <Line>
          <Button onPress={() => window.print()}>{t('job.print')}</Button>
          <Link to="?">{t('notice.back')}</Link>
        </Line>
      </div>
      <Sheet>
        <Stack>
          <Title>{t('notice.title', { site: site.name })}</Title>
          <PlainTable>
            <tbody>
              {lines.map(([name, value]) => (
                <tr key={name}>
                  <th scope="row">{name}</th>
                  <td>{value}</td>
                </tr>
              ))}
            </tbody>
          </PlainTable>
          <p>{t('notice.may')}</p>
          <p>{t('posting.ask', { site: site.name })}</p>
        </Stack>
      </Sheet>
    </Page>
  )
}
