import type { Endpoint, InputOf, ParamsOf, ResponseOf } from '@bocado/contract'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { RequestProblem } from './client.js'
import { useWrite } from './hooks.js'

/**
 * What is typed into a form until it is stored. Checked by the contract's schema here and again by the server; each message
 * is found by the path of its field. Nothing typed is lost by a refusal.
 */
export function useEntry<E extends Endpoint, V extends Record<string, unknown>>(e: E, initial: V) {
  const [values, setValues] = useState<V>(initial)
  const [errors, setErrors] = useState<Readonly<Record<string, string>>>({})
  const [general, setGeneral] = useState<string | null>(null)
  const { save, isSaving } = useWrite(e)
  const client = useQueryClient()

  const set = (changes: Partial<V>): void => {
    setValues((before) => ({ ...before, ...changes }))
    setGeneral(null)
    setErrors((before) =>
      Object.fromEntries(Object.entries(before).filter(([path]) => !Object.keys(changes).includes(path.split('.')[0] ?? ''))),
    )
  }

  const refuse = (fields: readonly { path: string; message: string }[], detail: string): void => {
    setErrors(Object.fromEntries(fields.map(({ path, message }) => [path, message])))
    setGeneral(fields.length > 0 ? null : detail)
  }

  /** Stores the entry; undefined where it was refused. `input` turns what was typed into what the endpoint takes. */
  const submit = async (params: ParamsOf<E>, input: (values: V) => unknown = (v) => v): Promise<ResponseOf<E> | undefined> => {
    setGeneral(null)
    setErrors({})
    const body = input(values)
    const checked = e.input.safeParse(body)
    if (!checked.success) {
      refuse(
        checked.error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message })),
        '',
      )
      return undefined
    }
    try {
      return await save({ params, input: body as InputOf<E> })
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      refuse(error.problem.fields ?? [], error.problem.detail)
      // Somebody else was faster: fetch what stands there now, so that saving again is a choice made in sight of it.
      if (error.problem.status === 409) await client.invalidateQueries()
      return undefined
    }
  }

  return { values, set, setValues, errors, general, submit, isSaving }
}
