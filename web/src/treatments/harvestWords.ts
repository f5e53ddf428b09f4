import type { Harvest } from '@bocado/contract'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/harvest.js'

type What = Pick<Harvest, 'kg' | 'pieces' | 'spoilt'> & { spoiltByName: string | null }

/** What was picked and where, in words. */
export function useWhat(): (what: What, place: string | undefined) => string {
  const t = useText()
  const f = useFormat()
  return ({ kg, pieces, spoilt, spoiltByName }, place) => {
    const amount = [kg === null ? null : f.weight(kg), pieces === null ? null : t('harvest.pieces', { count: pieces })]
      .filter((one) => one !== null)
      .join(', ')
    const spoiltWords = spoilt === null ? null : t('harvest.spoilt', { count: spoilt })
    return [
      place === undefined ? amount : t('harvest.in', { what: amount, place }),
      spoiltWords !== null && spoiltByName !== null ? t('harvest.spoiltBy', { spoilt: spoiltWords, organism: spoiltByName }) : spoiltWords,
    ]
      .filter((one) => one !== null)
      .join(', ')
  }
}
