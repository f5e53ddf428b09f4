import { endpoints, type SiteKind } from '@bocado/contract'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { useSites } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { Button } from '../design/buttons.js'
import { Select } from '../design/controls.js'
import { DraftNote, FormError } from '../design/FormError.js'
import { Line, Page, Sheet, Small, Stack, Title } from '../design/text.js'
import { font } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { Connection } from '../shell/Connection.js'
import { usePageTitle } from '../shell/usePageTitle.js'
import { SiteFields, unitsOfLocale } from './SiteForm.js'
import '../messages/en/field.js'
import '../messages/en/site.js'

/** Stands for a holding that is begun with the site. */
const NEW_HOLDING = 'new'

const Word = styled.p`
  font: 650 36px ${font.heading};
`

/** Starts a site: its name, place, time zone and units. */
export function StartScreen() {
  const t = useText()
  usePageTitle(t('start.title'))
  const navigate = useNavigate()
  const { data: sites = [] } = useSites()
  const entry = useEntry(
    endpoints.sites.create,
    {
      name: '',
      kind: 'farm' as SiteKind,
      place: '',
      timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      units: unitsOfLocale(navigator.language),
      latitude: null as number | null,
      longitude: null as number | null,
      elevationM: null as number | null,
      auditYears: null as number | null,
      // Whoever has a holding begins the next site in it, unless they say otherwise.
      holdingId: sites[0]?.holding.id ?? NEW_HOLDING,
    },
    null,
    'new',
  )
  const { bind } = entry
  const holdings = new Map(sites.map(({ holding }) => [holding.id, holding.name]))
  const start = async (): Promise<void> => {
    const site = await entry.submit({}, (v) => ({ ...v, holdingId: v.holdingId === NEW_HOLDING ? null : v.holdingId }))
    if (!site) return
    await navigate(`/sites/${site.id}/site`)
  }
  return (
    <>
      <Connection />
      <Page>
        <Word>Bocado</Word>
        <Title>{t('start.title')}</Title>
        <Small>{t('start.text')}</Small>
        <Sheet>
          <Stack $gap={16}>
            <SiteFields bind={bind} isNew />
            <Line>
              {holdings.size > 0 ? (
                <Select
                  label={t('start.holding')}
                  placeholder={t('choose')}
                  width="28ch"
                  options={[...[...holdings].map(([id, label]) => ({ id, label })), { id: NEW_HOLDING, label: t('start.holdingNew') }]}
                  {...bind.choice('holdingId')}
                />
              ) : null}
            </Line>
            <DraftNote entry={entry} />
            <FormError text={entry.general} />
            <Line>
              <Button onPress={() => void start()} isDisabled={entry.isBarred}>
                {t('start.button')}
              </Button>
              {sites[0] ? <Link to={`/sites/${sites[0].id}/today`}>{t('start.back', { name: sites[0].name })}</Link> : null}
            </Line>
          </Stack>
        </Sheet>
      </Page>
    </>
  )
}
