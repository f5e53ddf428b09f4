import { enemyKinds, type Enemies } from '@bocado/contract'
import type { Say } from '../messages/useText.js'
import '../messages/en/count.js'

/** Natural enemies in words, the most first; nothing where none was seen. */
export const enemyWords = (enemies: Enemies, t: Say): string =>
  enemyKinds
    .flatMap((kind) => (enemies[kind] ? [{ kind, count: enemies[kind] }] : []))
    .sort((a, b) => b.count - a.count)
    .map(({ kind, count }) => `${count} ${t(`enemy.${kind}`)}`)
    .join(', ')
