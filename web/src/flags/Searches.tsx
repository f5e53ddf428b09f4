import { endpoints, type Search } from '@bocado/contract'
import { useState } from 'react'
import { nameOf } from '../api/unsent.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Heading, Line, Rows, Small, Stack } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import { UnsentHere } from '../shell/UnsentHere.js'

const FIRST = 6

/** Searches with what they tell: how long, how much of the ground, and that nothing was found. */
export function Searches(p: {
  searches: readonly Search[]
  shown: Search | null
  onShow: (search: Search | null) => void
  isPast: boolean
}) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [most, setMost] = useState(FIRST)
  return (
    <Stack>
      <Heading>{t('flags.searches')}</Heading>
      <UnsentHere of={({ what }) => what === nameOf(endpoints.flags.addSearch)} />
      {p.searches.length === 0 ? <Small>{t('flags.searchesNone')}</Small> : null}
      <Rows>
        {p.searches.slice(0, most).map((search) => {
          const date = f.date(search.searchedOn)
          const facts = [
            search.minutes === null ? '' : t('flags.searchMinutes', { minutes: search.minutes }),
            search.covered === null ? '' : t('flags.searchShare', { share: f.percent(search.covered.share), from: search.covered.from }),
            search.note,
          ].filter(Boolean)
          const isShown = p.shown?.id === search.id
          return (
            <li key={search.id}>
              <Line style={{ justifyContent: 'space-between' }}>
                <span>
                  {t('flags.searchLine', {
                    date: search.searchedOn.slice(0, 4) === f.today.slice(0, 4) ? date : f.withYear(search.searchedOn),
                    place: search.placeName,
                    found: search.found ? 'yes' : 'no',
                    names: search.organismNames.join(', '),
                  })}{' '}
                  <Small as="span">{[...facts, search.personName].join(', ')}</Small>
                </span>
                <Line>
                  {search.track ? (
                    <TextButton
                      onPress={() => p.onShow(isShown ? null : search)}
                      aria-label={isShown ? t('flags.searchHide') : t('flags.searchShow', { date, place: search.placeName })}
                    >
                      {t(isShown ? 'flags.searchHide' : 'flags.searchShowWord')}
                    </TextButton>
                  ) : null}
                  {p.isPast ? null : (
                    <RemoveButton
                      remove={endpoints.flags.removeSearch}
                      restore={endpoints.flags.restoreSearch}
                      params={{ siteId: site.id, searchId: search.id }}
                      rowVersion={search.rowVersion}
                      label={t('flags.searchRemove', { date, place: search.placeName })}
                      said={t('flags.searchRemoved', { date })}
                    />
                  )}
                </Line>
              </Line>
            </li>
          )
        })}
      </Rows>
      {p.searches.length > most ? (
        <TextButton onPress={() => setMost(most + 50)}>{t('flags.moreFlags', { count: p.searches.length - most })}</TextButton>
      ) : null}
    </Stack>
  )
}
