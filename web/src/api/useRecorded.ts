import type { Endpoint, InputOf, ResponseOf } from '@bocado/contract'
import { useContext, useState } from 'react'
import type { Unsent } from './browserStore.js'
import type { Call } from './client.js'
import { isReachable } from './connection.js'
import { useWrite } from './hooks.js'
import { lastParameter, noteAct, removalOf } from './lastAct.js'
import { useLacking } from './may.js'
import { keepAndSend, letGo, nameOf, NoStore } from './unsent.js'
import { SiteContext, useWorkplace } from './workplace.js'

/** A record that was kept on this device and perhaps stored already. */
export interface Recorded<E extends Endpoint> {
  id: string
  /** null: it waits on this device. */
  answer: ResponseOf<E> | null
  /** Lets go of it, or removes it where it was stored. */
  takeBack: (() => Promise<unknown>) | undefined
}

/** An answer is waited for so long before a record counts as waiting; a server that did not answer last is not waited for. */
const PATIENCE_MS = 4000

/** A record of what was seen or done standing up: kept in the browser first, then sent, each once, however late. */
export function useRecorded<E extends Endpoint>(e: E) {
  const { personId, name } = useWorkplace()
  const site = useContext(SiteContext)
  const lacking = useLacking(e)
  const direct = useWrite(e)
  const removal = removalOf(e)
  const remove = useWrite(removal ?? e)
  const [isPending, setPending] = useState(false)

  /** @param form where it was typed; undefined for what is recorded by one tap, which no form holds when it is refused */
  const save = async ({ params, input }: Call<E>, says: string, form?: Unsent['form']): Promise<Recorded<E>> => {
    const id = crypto.randomUUID()
    const removed = removal && {
      params: { ...(params as object), [lastParameter(removal.path)]: id },
      input: { rowVersion: 1 },
    }
    const takeBack = removed && (async () => (await letGo(id)) ?? remove.save(removed as Call<E>))
    const record = {
      id,
      what: nameOf(e),
      params: params as Record<string, string>,
      input: input as Record<string, unknown>,
      personId: personId ?? '',
      personName: name,
      at: new Date().toISOString(),
      siteName: site?.name ?? '',
      says,
      form: form ?? null,
    }
    setPending(true)
    // It is done once it is kept, however long its answer takes.
    noteAct(takeBack ?? 'fixed')
    try {
      const answer = (await keepAndSend(record, isReachable() ? PATIENCE_MS : 0, form !== undefined)) as ResponseOf<E> | null
      return { id, answer, takeBack }
    } catch (error) {
      noteAct('nothing')
      if (!(error instanceof NoStore)) throw error
      // A private window keeps nothing: then it is as with every other form.
      const answer = await direct.save({ params, input: { ...(input as object), id } as InputOf<E> })
      return { id, answer, takeBack: removed && (() => remove.save(removed as Call<E>)) }
    } finally {
      setPending(false)
    }
  }
  return { save, isPending, isBarred: isPending || lacking !== null, lacking }
}
