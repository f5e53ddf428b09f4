import {
  CHANGED_HEADER,
  READ_AT_HEADER,
  type AspectVersions,
  type Endpoint,
  type InputOf,
  type ParamsOf,
  type Problem,
  type ResponseOf,
} from '@bocado/contract'

/** The server understood and said no: what is wrong, field by field. */
export class RequestProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** No answer, or none from the database: the same request can be sent again. */
export class Unreachable extends Error {}

export interface Call<E extends Endpoint> {
  params: ParamsOf<E>
  input: InputOf<E>
}

export interface Writing {
  /** The same for each try of one write, so that it is stored once. */
  idempotencyKey: string
  /** Without an answer by then it counts as unreachable; without it, it is waited for as long as the line holds. */
  patienceMs?: number
  /** Hears what the write changed, by site; nothing where it had been stored before. */
  onChanged?: (changed: Readonly<Record<string, AspectVersions>>) => void
}

/** Hears of which versions of its site an answer tells; nothing where it is not of one. */
export type OnReadAt = (versions: AspectVersions) => void

/** The address of a call: path parameters filled in, and for reads and uploads the input as query. */
export function addressOf<E extends Endpoint>(e: E, { params, input }: Call<E>): string {
  const path = e.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String((params as Record<string, unknown>)[name])))
  if (e.method !== 'get' && !e.upload) return `/api/v1${path}`
  const query = new URLSearchParams()
  for (const [name, value] of Object.entries((input ?? {}) as Record<string, string | number | undefined>))
    if (value !== undefined) query.set(name, String(value))
  const text = query.toString()
  return `/api/v1${path}${text ? `?${text}` : ''}`
}

const signedOutListeners = new Set<() => void>()

/** Hears that the server knows nobody here any more; the way to hear no more is returned. */
export function onSignedOut(listener: () => void): () => void {
  signedOutListeners.add(listener)
  return () => signedOutListeners.delete(listener)
}

/** How often it changed here who is signed in. */
let changesOfPerson = 0

/** From now on somebody else is signed in, or nobody: a refusal of what was asked before says nothing of them. */
export function forgetRefusals(): void {
  changesOfPerson++
}

export async function fetchAnswer(address: string, init: RequestInit): Promise<Response> {
  const asked = changesOfPerson
  let response: Response
  try {
    response = await fetch(address, init)
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Unreachable('no answer', { cause: error })
  }
  const inAMoment = response.status === 409 && response.headers.has('Retry-After')
  if (inAMoment || response.status === 502 || response.status === 503 || response.status === 504) throw new Unreachable('not ready')
  if (response.status === 401 && asked === changesOfPerson) signedOutListeners.forEach((listener) => listener())
  if (!response.ok) throw new RequestProblem(await bodyOf<Problem>(response))
  return response
}

/** What an answer holds. One that broke off on its way is none. */
export async function bodyOf<T>(response: Response): Promise<T> {
  try {
    return (await response.json()) as T
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new Unreachable('the answer broke off', { cause: error })
  }
}

/** Calls an endpoint of the contract. Throws `RequestProblem` for a refusal and `Unreachable` where it may be tried again. */
export async function call<E extends Endpoint>(e: E, c: Call<E>, writing?: Writing, onReadAt?: OnReadAt): Promise<ResponseOf<E>> {
  const headers: Record<string, string> = {}
  const init: RequestInit = { method: e.method.toUpperCase(), headers }
  if (e.method !== 'get') {
    headers['Content-Type'] = 'application/json'
    init.body = JSON.stringify(c.input)
  }
  if (writing) {
    headers['Idempotency-Key'] = writing.idempotencyKey
    if (writing.patienceMs !== undefined) init.signal = AbortSignal.timeout(writing.patienceMs)
  }
  const response = await fetchAnswer(addressOf(e, c), init)
  writing?.onChanged?.(JSON.parse(response.headers.get(CHANGED_HEADER) ?? '{}') as Record<string, AspectVersions>)
  const readAt = response.headers.get(READ_AT_HEADER)
  if (readAt !== null) onReadAt?.(JSON.parse(readAt) as AspectVersions)
  return bodyOf<ResponseOf<E>>(response)
}
