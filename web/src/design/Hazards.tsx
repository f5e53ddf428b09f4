import type { Organism } from '@bocado/contract'
import { Caution } from './text.js'
import { useText, type Say } from '../messages/useText.js'

/** What may harm whom, each as a caution; only what harms by touch where the next step is to look closer. */
export function Hazards({ hazards, byTouch = false }: { hazards: Organism['hazards']; byTouch?: boolean }) {
  const t = useText()
  return hazards
    .filter(({ touch }) => !byTouch || touch)
    .map(({ group, text }) => (
      <Caution key={`${group}${text}`}>{t('hazard', { group: t(`hazard.${group}` as Parameters<Say>[0]), text })}</Caution>
    ))
}
