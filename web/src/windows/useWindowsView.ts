import type { Band, Block, Organism, WatchForecast } from '@bocado/contract'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useSite } from '../api/workplace.js'
import { byUrgency, filtered, grouped, GROUPINGS, type Group, type Grouping } from '../band/urgency.js'
import { rowSentence, windowSentence } from '../band/words.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { groupOf, isShown, overThreshold, SHOWN } from './shown.js'

/** The groups that start folded: what is past asks for nothing. */
const FOLDED: readonly string[] = ['past']

/** What of the watches is shown, as the address says it, and in which groups. */
export interface WindowsView {
  all: readonly WatchForecast[]
  rows: readonly WatchForecast[]
  groups: readonly Group[]
  /** Of `groups`, those of which only the name stands. */
  folded: ReadonlySet<string>
  fold: (groupId: string) => void
  /** The chosen watch; undefined where none is watched. */
  selected: WatchForecast | undefined
  /** What each watch says: in full, and as a row has room for it. */
  sentences: ReadonlyMap<string, string>
  short: ReadonlyMap<string, string>
  blockNames: ReadonlyMap<string, string>
  by: Grouping
  words: string
  show: (typeof SHOWN)[number]
  asTable: boolean
  /** Changes the address; it stays the same function. */
  go: (changes: Readonly<Record<string, string | null>>) => void
}

export function useWindowsView(band: Band | undefined, blocks: Block[] | undefined, organisms: Organism[] | undefined): WindowsView {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const [search, setSearch] = useSearchParams()
  const [toggled, setToggled] = useState<ReadonlySet<string>>(new Set())
  const by = GROUPINGS.find((id) => id === search.get('group')) ?? 'urgency'
  const words = search.get('find') ?? ''
  const asTable = search.get('as') === 'table'
  const blockNames = useMemo(() => new Map((blocks ?? []).map(({ id, name }) => [id, name])), [blocks])
  const all = useMemo(() => (band ? [...band.watches].sort(byUrgency) : []), [band])
  const sentences = useMemo(() => new Map(all.map((row) => [row.watch.id, windowSentence(row, t, f)])), [all, t, f])
  const short = useMemo(() => new Map(all.map((row) => [row.watch.id, rowSentence(row, t, f)])), [all, t, f])
  const show = SHOWN.find((id) => id === search.get('show')) ?? 'all'
  const kept = useMemo(() => all.filter((row) => isShown(row, show, organisms, site.today)), [all, show, organisms, site.today])
  const rows = useMemo(
    () =>
      filtered(kept, words, (row) =>
        [
          row.organismName,
          row.scientificName,
          blockNames.get(row.watch.blockId),
          t(`watch.kind.${row.kind}` as Parameters<typeof t>[0]),
          sentences.get(row.watch.id),
          t(`band.group.${groupOf(row)}` as Parameters<typeof t>[0]),
          ...row.generations.map(({ name }) => name),
          overThreshold(row, organisms) ? t('band.show.over') : '',
          row.moved ? t('band.show.moved') : '',
        ].join(' '),
      ),
    [kept, words, blockNames, sentences, organisms, t],
  )
  const groups = useMemo(() => grouped(rows, by, blockNames), [rows, by, blockNames])
  const selected = all.find(({ watch }) => watch.id === search.get('watch')) ?? rows[0] ?? all[0]
  const folded = useMemo(() => {
    const ids = new Set<string>(
      by === 'urgency' && words === '' ? FOLDED.filter((id) => groups.length > 1 && groups.some((g) => g.id === id)) : [],
    )
    // A group stays open while it holds the chosen watch.
    for (const group of groups) if (group.rows.some((row) => row === selected)) ids.delete(group.id)
    for (const id of toggled) if (!ids.delete(id)) ids.add(id)
    return ids
  }, [by, words, groups, toggled, selected])

  const latest = useRef({ search, setSearch })
  useEffect(() => {
    latest.current = { search, setSearch }
  })
  // Both stay the same between renders, so that rows and tools need not be drawn again.
  const go = useCallback((changes: Readonly<Record<string, string | null>>): void => {
    const next = new URLSearchParams(latest.current.search)
    for (const [name, value] of Object.entries(changes)) {
      if (value === null) next.delete(name)
      else next.set(name, value)
    }
    latest.current.setSearch(next, { replace: true })
  }, [])
  const fold = useCallback(
    (id: string) =>
      setToggled((before) => {
        const next = new Set(before)
        if (!next.delete(id)) next.add(id)
        return next
      }),
    [],
  )
  return useMemo(
    () => ({ all, rows, groups, folded, fold, selected, sentences, short, blockNames, by, words, show, asTable, go }),
    [all, rows, groups, folded, fold, selected, sentences, short, blockNames, by, words, show, asTable, go],
  )
}
