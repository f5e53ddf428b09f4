import { Link, useSearchParams } from 'react-router'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Choice } from '../design/controls.js'
import { Empty, Line, Page, Title } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { SowingPanel } from './SowingPanel.js'
import { WinterPanel } from './WinterPanel.js'
import '../messages/en/prevent.js'
import '../messages/en/weeks.js'

const PANELS = ['sowing', 'winter'] as const

/** What keeps a pest from a crop before there is any: the date of sowing, covers, ground, and work between the seasons. */
export function PreventionScreen() {
  const t = useText()
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const [search, setSearch] = useSearchParams()
  const panel = PANELS.find((one) => one === search.get('panel')) ?? 'sowing'
  usePageTitle(t('prevent.title'), t(`prevent.panel.${panel}`))
  return (
    <Page>
      <Line style={{ justifyContent: 'space-between' }}>
        <Title>{t(panel === 'sowing' ? 'prevent.panel.sowing' : 'prevent.panel.winter')}</Title>
        <Line>
          <Choice
            label={t('prevent.panels')}
            options={PANELS.map((id) => ({ id, label: t(`prevent.panel.${id}`) }))}
            value={panel}
            onChange={(next) => setSearch(next === 'sowing' ? {} : { panel: next }, { replace: true })}
          />
          <Link to={`/sites/${site.id}/schedule`}>{t('prevent.back')}</Link>
        </Line>
      </Line>
      {isPast ? (
        <Empty>
          <p>{t('weeks.past')}</p>
        </Empty>
      ) : panel === 'sowing' ? (
        <SowingPanel />
      ) : (
        <WinterPanel />
      )}
    </Page>
  )
}
