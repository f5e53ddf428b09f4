import { endpoints, type Site } from '@bocado/contract'
import { useMemo } from 'react'
import { useBand, useBlocks, useProducts, useRead } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { findable, type Findable } from '../design/finding.js'
import { useText, type MessageId } from '../messages/useText.js'
import { SCREENS } from './screens.js'

/** Where one may jump to. */
export interface Target {
  address: string
  name: string
  /** What kind of thing it is. */
  beside: string
  /** Other words that people have for it. */
  words: string
  /** Name of the thing that is landed on, by its `data-at`; null: the screen itself. */
  at: string | null
}

/** What can be done, by the screen that does it; the words that people use for it stand in the messages. */
const ACTIONS = [
  { path: 'windows?do=watch', word: 'jump.do.watch' },
  { path: 'scouting', word: 'jump.do.count' },
  { path: 'treatments?did=', word: 'jump.do.record' },
  { path: 'scouting?panel=walk', word: 'jump.do.walk' },
  { path: 'scouting?panel=traps', word: 'jump.do.trap' },
  { path: 'scouting?panel=flags&do=flag', word: 'jump.do.flag' },
  { path: 'scouting?panel=flags&do=search', word: 'jump.do.search' },
  { path: 'treatments?do=harvest', word: 'jump.do.harvest' },
  { path: 'treatments?do=product', word: 'jump.do.product' },
  { path: 'treatments/season', word: 'jump.do.report' },
  { path: 'schedule/season', word: 'jump.do.season' },
  { path: 'schedule/prevention', word: 'jump.do.sow' },
  { path: 'schedule/prevention?panel=winter', word: 'jump.do.winter' },
  { path: 'site?do=block', word: 'jump.do.block' },
  { path: 'site?do=person', word: 'jump.do.person' },
  { path: 'bloom', word: 'jump.do.bloom' },
  { path: 'weather', word: 'jump.do.weather' },
  { path: 'weather?panel=heat', word: 'jump.do.heat' },
  { path: 'library/suspects', word: 'jump.do.suspects' },
  { path: 'library/new', word: 'jump.do.organism' },
  { path: 'library/words', word: 'jump.do.words' },
] as const satisfies readonly { path: string; word: MessageId }[]

const ENTRY = { animal: 'organisms', disease: 'organisms', weed: 'organisms', bloom: 'bloom-plants', method: 'methods' } as const

/** Everything that one may jump to from a site: screens and what is done there, watches, blocks, products, the library, other sites. */
export function useJumpTargets(sites: readonly Site[]): { first: Target[]; all: Findable<Target>[] } {
  const t = useText()
  const site = useSite()
  const { data: blocks } = useBlocks(site.id)
  const { data: band } = useBand(site.id, site.season.start)
  const { data: products } = useProducts(site.id)
  const { data: library } = useRead(endpoints.library.list, { params: { siteId: site.id }, input: {} })
  return useMemo(() => {
    const here = `/sites/${site.id}`
    const screens = SCREENS.map(({ path, word }): Target => ({
      address: `${here}/${path}`,
      name: t(word),
      beside: t('jump.kind.screen'),
      words: '',
      at: null,
    }))
    const watches = (band?.watches ?? []).map(({ watch, organismName, scientificName }): Target => ({
      address: `${here}/windows?watch=${watch.id}`,
      name: t('jump.watch', { organism: organismName, block: blocks?.find(({ id }) => id === watch.blockId)?.name ?? '' }),
      beside: t('jump.kind.watch'),
      words: scientificName,
      at: `watch ${watch.id}`,
    }))
    const others = sites
      .filter(({ id }) => id !== site.id)
      .map(({ id, name, place }): Target => ({
        address: `/sites/${id}/windows`,
        name,
        beside: t('jump.kind.site'),
        words: place,
        at: null,
      }))
    const start: Target = { address: '/start', name: t('start.title'), beside: t('jump.kind.action'), words: '', at: null }
    const actions = ACTIONS.map(({ path, word }): Target => {
      const [name = '', words = ''] = t(word).split(' | ')
      return { address: `${here}/${path}`, name, beside: t('jump.kind.action'), words, at: null }
    })
    const ground = (blocks ?? []).map(({ id, name, grows }): Target => ({
      address: `${here}/site?block=${id}`,
      name,
      beside: t('jump.kind.block'),
      words: grows,
      at: `block ${id}`,
    }))
    const shelf = (products ?? []).map(({ id, name, active }): Target => ({
      address: `${here}/treatments?product=${id}`,
      name,
      beside: t('jump.kind.product'),
      words: active,
      at: `product ${id}`,
    }))
    const entries = (library ?? []).map(({ id, what, name, beside, words }): Target => ({
      address: `${here}/library/${ENTRY[what]}/${id}`,
      name,
      beside: t('jump.kind.library', { beside }),
      words,
      at: 'entry',
    }))
    const first = [...screens, ...watches, ...others, start]
    return { first, all: findable([...screens, ...actions, ...watches, ...ground, ...shelf, ...others, start, ...entries]) }
  }, [site.id, blocks, band, products, library, sites, t])
}

/** How long a thing is waited for that is jumped to. */
const LONGEST_MS = 5000

/** Puts the focus on what was jumped to, as soon as it stands on the page; on the screen where it never does. */
export function landOn(at: string | null): void {
  const until = Date.now() + LONGEST_MS
  const look = (): void => {
    const thing = at === null ? null : document.querySelector<HTMLElement>(`[data-at="${CSS.escape(at)}"]`)
    if (!thing && at !== null && Date.now() < until) {
      setTimeout(look, 60)
      return
    }
    const target = thing ?? document.getElementById('screen')
    target?.focus()
    thing?.scrollIntoView({ block: 'center' })
  }
  // The dialog gives the focus back to where it was when it closes; the landing comes after that.
  setTimeout(look, 120)
}
