import { endpoints, roles } from '@bocado/contract'
import { Link, useNavigate } from 'react-router'
import styled from 'styled-components'
import { useSites } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useWorkplace } from '../api/workplace.js'
import { Button, Select, TextField } from '../design/controls.js'
import { FormError } from '../design/FormError.js'
import { Line, Page, Sheet, Small, Stack, Title } from '../design/text.js'
import { font } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { Connection } from '../shell/Connection.js'
import { SiteFields, type SiteValues } from './SiteForm.js'
import '../messages/en/field.js'
import '../messages/en/site.js'

const Word = styled.p`
  font: 650 36px ${font.heading};
`

/** Starts a site: its name, place, time zone and units, and who starts it. */
export function StartScreen() {
  const t = useText()
  const navigate = useNavigate()
  const { data: sites = [] } = useSites()
  const { workAs } = useWorkplace()
  const entry = useEntry(endpoints.sites.create, {
    name: '',
    place: '',
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    units: 'metric' as SiteValues['units'],
    latitude: null as number | null,
    longitude: null as number | null,
    elevationM: null as number | null,
    person: '',
    role: 'lead' as (typeof roles)[number],
  })
  const { values, set, errors } = entry
  const start = async (): Promise<void> => {
    const site = await entry.submit({}, ({ person, role, ...site }) => ({ ...site, person: { name: person, role, licensed: false } }))
    if (!site) return
    if (site.people[0]) workAs(site.people[0])
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
            <SiteFields values={values} set={set} errors={errors} />
            <Line>
              <TextField
                label={t('start.person')}
                width="28ch"
                value={values.person}
                onChange={(person) => set({ person })}
                error={errors['person.name']}
              />
              <Select
                label={t('person.role')}
                placeholder={t('choose')}
                width="20ch"
                options={roles.filter((role) => role !== 'viewer').map((role) => ({ id: role, label: t(`role.${role}`) }))}
                value={values.role}
                onChange={(role) => set({ role: role as (typeof roles)[number] })}
                error={errors['person.role']}
              />
            </Line>
            <FormError text={entry.general} />
            <Line>
              <Button onPress={() => void start()} isDisabled={entry.isSaving}>
                {t('start.button')}
              </Button>
              {sites[0] ? <Link to={`/sites/${sites[0].id}/windows`}>{t('start.back', { name: sites[0].name })}</Link> : null}
            </Line>
          </Stack>
        </Sheet>
      </Page>
    </>
  )
}
