import { endpoints } from '@bocado/contract'
import { useNavigate } from 'react-router'
import { useSites, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Line, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { useUndo } from '../shell/Undo.js'

/** The package of a site, and what is done with a site that is no longer worked: it is archived, and only then can it go. */
export function SiteEnd() {
  const t = useText()
  const site = useSite()
  const { data: sites = [] } = useSites()
  const navigate = useNavigate()
  const undo = useUndo()
  const archive = useWrite(endpoints.sites.archive)
  const remove = useWrite(endpoints.sites.remove)
  const restore = useWrite(endpoints.sites.restore)
  const params = { siteId: site.id }
  const isArchived = site.archivedAt !== null
  const set = (archived: boolean, rowVersion: number) => archive.save({ params, input: { archived, rowVersion } })
  const putAway = async (): Promise<void> => {
    const now = await set(true, site.rowVersion)
    undo.offer(t('site.isArchived', { name: site.name }), () => set(false, now.rowVersion))
  }
  const drop = async (): Promise<void> => {
    const { rowVersion } = await remove.save({ params, input: { rowVersion: site.rowVersion } })
    undo.offer(t('site.removed', { name: site.name }), () => restore.save({ params, input: { rowVersion } }))
    const next = sites.find(({ id }) => id !== site.id)
    await navigate(next ? `/sites/${next.id}/today` : '/start')
  }
  return (
    <Stack $gap={6}>
      <Line>
        <a href={`/api/v1/sites/${site.id}/package`} download>
          {t('site.package')}
        </a>
        <TextButton isDisabled={archive.isBarred} onPress={() => void (isArchived ? set(false, site.rowVersion) : putAway())}>
          {t(isArchived ? 'site.takeUp' : 'site.archive')}
        </TextButton>
        {isArchived ? (
          <TextButton isDisabled={remove.isBarred} onPress={() => void drop()}>
            {t('site.remove')}
          </TextButton>
        ) : null}
      </Line>
      <Small>{t(isArchived ? 'site.removeNote' : 'site.archiveNote')}</Small>
    </Stack>
  )
}
