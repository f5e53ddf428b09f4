import { endpoints } from '@bocado/contract'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Line } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useText } from '../messages/useText.js'
import { TakeFile } from '../shell/TakeFile.js'
import '../messages/en/equipment.js'

/** Takes the shelf along as a file, and takes one in. */
export function ShelfFile({ isEmpty }: { isEmpty: boolean }) {
  const t = useText()
  const site = useSite()
  const { save, isBarred } = useWrite(endpoints.treatments.importShelf)
  const take = async (file: File): Promise<string> => {
    const format = file.name.toLowerCase().endsWith('.json') ? ('json' as const) : ('csv' as const)
    const added = await save({ params: { siteId: site.id }, input: { format, text: await file.text() } })
    return t('shelf.brought', { count: added.length })
  }
  const address = `/api/v1/sites/${site.id}/products`
  return (
    <Unfold title={t('shelf.file')}>
      <Line $gap={14}>
        {isEmpty ? null : (
          <>
            <a href={`${address}.csv`} download>
              {t('shelf.csv')}
            </a>
            <a href={`${address}.json`} download>
              {t('shelf.json')}
            </a>
          </>
        )}
        <TakeFile words={t('shelf.bring')} types={['.csv', '.json']} isBarred={isBarred} take={take} />
      </Line>
    </Unfold>
  )
}
