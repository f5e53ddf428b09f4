import type { Endpoint, InputOf, ParamsOf, Problem, ResponseOf } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useRef, useState } from 'react'
import { useRefusal } from '../messages/refusal.js'
import { bindingsOf, withValue } from './bindings.js'
import { RequestProblem } from './client.js'
import { underDraft } from './drafts.js'
import { useWrite } from './hooks.js'
import { lastParameter, noteAct, removalOf } from './lastAct.js'
import { useDraft } from './useDraft.js'
import { useRecorded, type Recorded } from './useRecorded.js'
import { inputSchema } from './wholeContract.js'
import { useWorkplace } from './workplace.js'

/**
 * What is typed into a form until it is stored. Checked by the contract's schema here and again by the server; each message
 * is found by the path of its field. Nothing typed is lost by a refusal.
 *
 * @param row the row that is changed, with its version; nothing for a new one. What others store while somebody types comes into the page by
 * itself, but the form stays at the version from which it was begun: their change is told when it is saved, and never overwritten unseen. A
 * form in which nothing was typed follows them.
 * @param draft what it is a form of, such as the id of a site or a row: what is typed is then kept in the browser until it is stored, and
 * there again when the page was closed meanwhile
 */
export function useEntry<E extends Endpoint, V extends Record<string, unknown>>(
  e: E,
  initial: V,
  row?: { rowVersion: number } | null,
  draft?: string,
) {
  const [values, setValues] = useState<V>(initial)
  const [begun, setBegun] = useState({ from: JSON.stringify(initial), version: row?.rowVersion ?? null, seen: row?.rowVersion ?? null })
  const [isOverTheirs, setOverTheirs] = useState(false)
  if (row && row.rowVersion !== begun.seen) {
    const wasTyped = JSON.stringify(values) !== begun.from
    setBegun(
      wasTyped ? { ...begun, seen: row.rowVersion } : { from: JSON.stringify(initial), version: row.rowVersion, seen: row.rowVersion },
    )
    if (!wasTyped) setValues(initial)
  }
  // On a phone that goes from hand to hand nobody finds what another one typed.
  const { personId } = useWorkplace()
  const isTyped = JSON.stringify(values) !== begun.from
  const draftKey = draft === undefined ? undefined : `${personId ?? ''} ${e.method} ${e.path} ${draft}`
  const kept = useDraft(draftKey, isTyped ? { values, rowVersion: begun.version } : undefined, (found) => {
    setValues(underDraft(initial, found.values as V))
    setBegun((before) => ({ ...before, version: found.rowVersion }))
  })
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({})
  const [general, setGeneral] = useState<string | null>(null)
  /** A second press while the schemas come does not send it twice. */
  const isAsking = useRef(false)
  const { save, isBarred, lacking } = useWrite(e)
  const recorded = useRecorded(e)
  const removal = removalOf(e)
  const remove = useWrite(removal ?? e)
  const client = useQueryClient()

  /** How what was just stored is taken back: a change by what stood there before, a new row by its removal. */
  const takenBack = (stored: unknown, params: ParamsOf<E>, before: () => unknown): (() => Promise<unknown>) | undefined => {
    const { id, rowVersion } = (stored ?? {}) as { id?: string; rowVersion?: number }
    if (row && rowVersion !== undefined && (e.method === 'patch' || e.method === 'put'))
      return () => save({ params, input: before() as InputOf<E> })
    if (removal && id !== undefined && rowVersion !== undefined)
      return () =>
        remove.save({
          params: { ...(params as object), [lastParameter(removal.path)]: id } as ParamsOf<E>,
          input: { rowVersion } as InputOf<E>,
        })
    return undefined
  }

  const set = useCallback((changes: Partial<V>): void => {
    setValues((before) => ({ ...before, ...changes }))
    setGeneral(null)
    setErrors((before) => {
      const left = Object.entries(before).filter(([path]) => !Object.keys(changes).includes(path.split('.')[0] ?? ''))
      return left.length === Object.keys(before).length ? before : Object.fromEntries(left)
    })
  }, [])

  const change = (path: string, value: unknown): void => {
    setValues((before) => withValue(before, path, value))
    setGeneral(null)
    setErrors((before) => Object.fromEntries(Object.entries(before).filter(([at]) => at !== path && !at.startsWith(`${path}.`))))
  }

  /** Puts in what is known without anybody typing it. */
  const fill = useCallback((changes: Partial<V>): void => {
    setValues((before) => {
      const next = { ...before, ...changes }
      setBegun((b) => (JSON.stringify(before) === b.from ? { ...b, from: JSON.stringify(next) } : b))
      return next
    })
  }, [])

  const said = useRefusal()
  const refuse = (fields: NonNullable<Problem['fields']>, detail: string): void => {
    setErrors(Object.fromEntries(fields.map((field) => [field.path, said(field)])))
    setGeneral(fields.length > 0 ? null : detail)
  }

  /** What an endpoint takes of the entry; undefined where the contract refuses it, or while it is being asked. */
  const checked = async (input: (values: V, rowVersion: number | null) => unknown): Promise<{ input: InputOf<E> } | undefined> => {
    if (isAsking.current) return undefined
    isAsking.current = true
    setGeneral(null)
    setErrors({})
    const body = input(values, begun.version)
    const schema = await inputSchema(e)
    isAsking.current = false
    const issues = schema?.safeParse(body).error?.issues
    if (!issues) return { input: body as InputOf<E> }
    refuse(
      issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message })),
      '',
    )
    return undefined
  }

  /** Shows what the server said against it. */
  const takeRefusal = async (error: unknown): Promise<void> => {
    if (!(error instanceof RequestProblem)) throw error
    refuse(error.problem.fields ?? [], error.problem.detail)
    // Somebody else was faster: fetch what stands there now, so that saving again is a choice made in sight of it.
    const theirs = (error.problem.current as { row_version?: number } | undefined)?.row_version
    if (theirs !== undefined) {
      setBegun((before) => ({ ...before, version: theirs }))
      setOverTheirs(true)
    }
    if (error.problem.status === 409) await client.invalidateQueries()
  }

  /**
   * Stores the entry; undefined where it was refused. `input` turns what was typed, and the version of the row that it was typed over, into
   * what the endpoint takes.
   */
  const submit = async (
    params: ParamsOf<E>,
    input: (values: V, rowVersion: number | null) => unknown = (v) => v,
  ): Promise<ResponseOf<E> | undefined> => {
    const before = JSON.parse(begun.from) as V
    const body = await checked(input)
    if (!body) return undefined
    try {
      const versionOf = (answer: unknown): number | undefined => (answer as { rowVersion?: number } | null)?.rowVersion
      // What was put over somebody else's change is not taken back: what stood before it was theirs.
      const stored = await save({ params, input: body.input }, (answer) => {
        kept.drop()
        noteAct((isOverTheirs ? undefined : takenBack(answer, params, () => input(before, versionOf(answer) ?? null))) ?? 'fixed')
      })
      const version = versionOf(stored)
      setOverTheirs(false)
      if (row && version !== undefined) setBegun({ from: JSON.stringify(values), version, seen: version })
      return stored
    } catch (error) {
      await takeRefusal(error)
      return undefined
    }
  }

  /**
   * Records the entry, also without signal: it is kept in the browser and sent when an answer may come. undefined where it was refused.
   *
   * @param says what it is, in words, for the list of what waits
   * @param address of the form, where what waits can be mended
   */
  const put = async (
    params: ParamsOf<E>,
    says: string,
    address: string,
    input: (values: V, rowVersion: number | null) => unknown = (v) => v,
  ): Promise<Recorded<E> | undefined> => {
    const body = await checked(input)
    if (!body) return undefined
    try {
      const form = draftKey === undefined ? null : { draft: draftKey, values, address }
      const done = await recorded.save({ params, input: body.input }, says, form)
      kept.drop()
      noteAct(done.takeBack ?? 'fixed')
      return done
    } catch (error) {
      await takeRefusal(error)
      return undefined
    }
  }

  /** Begins the next one with what it has in common with the last. */
  const beginWith = (common: Partial<V>): void => {
    const next = { ...initial, ...common }
    setValues(next)
    setBegun({ from: JSON.stringify(next), version: row?.rowVersion ?? null, seen: row?.rowVersion ?? null })
    setErrors({})
    setGeneral(null)
    kept.drop()
  }
  /** Begins anew, without what was typed. */
  const discard = (): void => beginWith({})

  return {
    values,
    bind: bindingsOf(values, errors, change),
    set,
    setValues,
    fill,
    beginWith,
    errors,
    general,
    submit,
    put,
    isBarred: isBarred || recorded.isPending,
    lacking,
    discard,
    draftSince: kept.since,
  }
}
