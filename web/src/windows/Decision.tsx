import type { Organism, WatchForecast } from '@bocado/contract'
import { Heading, Page, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { Waiting } from '../shell/Waiting.js'
import { ActingLater } from './panelsLater.js'
import { Said } from './Said.js'
import type { Planning } from './usePlanning.js'

export interface OfChosen {
  forecast: WatchForecast
  /** Undefined until the organisms are here, which is a long list. */
  organism: Organism | undefined
  planning: Planning
}

/** What is decided about the chosen watch: how it stands, what still reaches it, the plan, and below that all that is known of it. */
export function Decision({ forecast, organism, blockName, planning }: OfChosen & { blockName: string }) {
  const t = useText()
  return (
    <Page as="div">
      <Stack>
        <Heading as="h2" data-at={`watch ${forecast.watch.id}`} tabIndex={-1}>
          {t('detail.watch', { organism: forecast.organismName, block: blockName })}
        </Heading>
        <Said forecast={forecast} organism={organism} />
        {organism ? <ActingLater forecast={forecast} organism={organism} planning={planning} /> : <Waiting />}
      </Stack>
    </Page>
  )
}
