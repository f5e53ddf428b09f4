import { startAuthentication, startRegistration } from '@simplewebauthn/browser'
import { endpoints, type Passkey, type Session } from '@bocado/contract'
import { call } from '../api/client.js'
import { watched } from '../api/hooks.js'

const { account } = endpoints
const once = (): { idempotencyKey: string } => ({ idempotencyKey: crypto.randomUUID() })

/** Whether this browser, at this address, has passkeys: they belong to a name, and to a secure address. */
export const hasPasskeys = (): boolean =>
  'PublicKeyCredential' in window && window.isSecureContext && !/^[\d.]+$|^\[/.test(location.hostname)

/** Asks the browser for a passkey and signs in by it. Throws where the person lets it be. */
export async function signInByPasskey(): Promise<Session> {
  const optionsJSON = await watched(call(account.askPasskey, { params: {}, input: {} }, once()))
  const response = await startAuthentication({
    optionsJSON: optionsJSON as unknown as Parameters<typeof startAuthentication>[0]['optionsJSON'],
  })
  return watched(call(account.signInByPasskey, { params: {}, input: { response: { ...response } } }, once()))
}

/** Has the browser make a passkey, and keeps it under a name. */
export async function makePasskey(name: string): Promise<Passkey[]> {
  const optionsJSON = await watched(call(account.newPasskey, { params: {}, input: {} }, once()))
  const response = await startRegistration({
    optionsJSON: optionsJSON as unknown as Parameters<typeof startRegistration>[0]['optionsJSON'],
  })
  return watched(call(account.addPasskey, { params: {}, input: { name, response: { ...response } } }, once()))
}

/** Whether somebody only let the browser's question be. */
export const wasLetBe = (error: unknown): boolean => error instanceof Error && ['NotAllowedError', 'AbortError'].includes(error.name)
