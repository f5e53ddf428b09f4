import { z } from 'zod'
import { id, instantSchema, text } from './common.js'
import { endpoint } from './endpoint.js'
import { roles } from './rights.js'

const LEAST_PASSWORD = 10
const MOST_PASSWORD = 200
/** Of base64url, as 32 bytes give it. */
const token = z.string().regex(/^[\w-]{43}$/, { error: 'is no link of this server' })

export const signInName = z
  .string({ error: 'enter a name to sign in with' })
  .trim()
  .toLowerCase()
  .regex(/^[^\s"'<>\\]{3,190}$/, { error: 'use 3 to 190 characters without spaces, such as an e-mail address' })
export const newPassword = z
  .string({ error: 'enter a password' })
  .min(LEAST_PASSWORD, { error: `use at least ${LEAST_PASSWORD} characters; several words are good` })
  .max(MOST_PASSWORD, { error: `use at most ${MOST_PASSWORD} characters` })
  .refine((p) => new Set(p).size >= 5, { error: 'use more than four different characters' })
/** Digits that are tried first open nothing. */
const handCode = z
  .string({ error: 'enter four digits' })
  .regex(/^\d{4}$/, { error: 'enter four digits' })
  .refine((c) => new Set(c).size > 1 && !'01234567890 09876543210'.includes(c), { error: 'choose digits that nobody tries first' })
const anyPassword = z.string({ error: 'enter the password' }).min(1, { error: 'enter the password' }).max(MOST_PASSWORD)
const credentials = { signInName, password: newPassword }

const personHere = z.object({ id, name: z.string(), role: z.enum(roles), site: z.string() })

/** How somebody reads it, wherever they are signed in; null: as each site has its units, as the browser has its dates. */
export const settingsSchema = z.object({
  units: z.enum(['metric', 'us']).nullable(),
  dates: z.enum(['dmy', 'mdy']).nullable(),
})
export type Settings = z.infer<typeof settingsSchema>

/** Who is signed in here, and what can be done where nobody is. */
export const sessionSchema = z.object({
  person: z
    .object({
      id,
      name: z.string(),
      signInName: z.string().nullable(),
      /** In by a code on a shared phone: enough for the work of the field, and not for more. */
      byCode: z.boolean(),
      settings: settingsSchema,
    })
    .nullable(),
  /** The shared phone that this is, with who of its site comes in by a code; null on any other. */
  phone: z.object({ name: z.string(), site: z.string(), people: z.array(personHere) }).nullable(),
  /** The people of the demonstration, who sign in by one press; null where it is none. */
  demo: z.array(personHere).nullable(),
  /** Where nobody has an account yet: who leads a site that is there, so that they can make it theirs; null otherwise. */
  first: z.array(personHere).nullable(),
})
export type Session = z.infer<typeof sessionSchema>

export const signInWays = ['password', 'passkey', 'link', 'demo', 'code'] as const

export const openSignInSchema = z.object({
  id,
  how: z.enum(signInWays),
  /** The program that it was opened with, in its own words. */
  agent: z.string(),
  since: instantSchema,
  seenAt: instantSchema,
  isThis: z.boolean(),
})
export type OpenSignIn = z.infer<typeof openSignInSchema>

export const passkeySchema = z.object({ id, name: z.string(), since: instantSchema, usedAt: instantSchema.nullable() })
export type Passkey = z.infer<typeof passkeySchema>
/** What a browser and an authenticator say to each other; both ends are read by the same library. */
const browsers = z.looseObject({})

const empty = z.object({})
export const linkKinds = ['invitation', 'reset'] as const

/** Signing in and out. A sign-in is a cookie that only the server reads; nothing of it is in an answer. */
export const account = {
  session: endpoint({
    method: 'get',
    path: '/session',
    summary: 'Who is signed in here',
    params: empty,
    input: empty,
    response: sessionSchema,
  }),
  signIn: endpoint({
    method: 'post',
    path: '/session',
    summary: 'Sign in with a password',
    params: empty,
    input: z.object({ signInName, password: anyPassword }),
    response: sessionSchema,
  }),
  askPasskey: endpoint({
    method: 'post',
    path: '/session/passkey/options',
    summary: 'What a browser needs to sign somebody in by a passkey',
    params: empty,
    input: empty,
    response: browsers,
  }),
  signInByPasskey: endpoint({
    method: 'post',
    path: '/session/passkey',
    summary: 'Sign in by a passkey',
    params: empty,
    input: z.object({ response: browsers }),
    response: sessionSchema,
  }),
  passkeys: endpoint({
    method: 'get',
    path: '/account/passkeys',
    summary: 'One’s passkeys',
    params: empty,
    input: empty,
    response: z.array(passkeySchema),
  }),
  newPasskey: endpoint({
    method: 'post',
    path: '/account/passkeys/options',
    summary: 'What a browser needs to make a passkey',
    params: empty,
    input: empty,
    response: browsers,
  }),
  addPasskey: endpoint({
    method: 'post',
    path: '/account/passkeys',
    summary: 'Keep a passkey that the browser made',
    params: empty,
    input: z.object({ name: text('a name for it', 120), response: browsers }),
    response: z.array(passkeySchema),
  }),
  removePasskey: endpoint({
    method: 'delete',
    path: '/account/passkeys/:passkeyId',
    summary: 'Remove a passkey: it opens nothing any more',
    params: z.object({ passkeyId: id }),
    input: empty,
    response: z.array(passkeySchema),
  }),
  demoSignIn: endpoint({
    method: 'post',
    path: '/demo/session',
    summary: 'Sign in as somebody of the demonstration; on this machine only',
    params: empty,
    input: z.object({ personId: z.uuid({ error: 'choose who you are' }) }),
    response: sessionSchema,
  }),
  signOut: endpoint({
    method: 'delete',
    path: '/session',
    summary: 'Sign out here, or everywhere',
    params: empty,
    input: z.object({ everywhere: z.boolean().default(false) }),
    response: sessionSchema,
  }),
  begin: endpoint({
    method: 'post',
    path: '/account',
    summary: 'Make the first account of a server',
    params: empty,
    input: z.object({ ...credentials, name: text('your name', 120), personId: z.uuid().nullable().default(null) }),
    response: sessionSchema,
  }),
  lookAtLink: endpoint({
    method: 'post',
    path: '/links/look',
    summary: 'What a link gives: a place at a site, or a new password',
    params: empty,
    input: z.object({ token }),
    response: z.object({
      kind: z.enum(linkKinds),
      /** Of an invitation. */
      site: z.string().nullable(),
      role: z.enum(roles).nullable(),
      invitedBy: z.string(),
      name: z.string(),
      signInName: z.string().nullable(),
      expiresAt: instantSchema,
    }),
  }),
  useLink: endpoint({
    method: 'post',
    path: '/links/use',
    summary: 'Come in by a link: with a new account, with the one that is signed in, or with a new password',
    params: empty,
    input: z.object({
      token,
      /** Not asked of somebody who is signed in, or whose account the link is for. */
      name: text('your name', 120).nullable().default(null),
      signInName: signInName.nullable().default(null),
      password: newPassword.nullable().default(null),
    }),
    response: sessionSchema,
  }),
  wayIn: endpoint({
    method: 'get',
    path: '/account/way-in',
    summary: 'How a phone reaches this server',
    params: empty,
    input: empty,
    response: z.object({
      /** Under which it is opened from other machines; none: it is reached from its own only. */
      addresses: z.array(z.string()),
      /** Whether mail goes out from here. */
      mails: z.boolean(),
      /** Page on which a phone learns to trust it, where it vouches for itself, and how the certificate there has to begin. */
      trust: z.string().nullable(),
      fingerprint: z.string().nullable(),
      /** The first step's address as a picture to scan, as SVG. */
      code: z.string().nullable(),
    }),
  }),
  setSettings: endpoint({
    method: 'put',
    path: '/account/settings',
    summary: 'How one reads it: units and the order of dates',
    params: empty,
    input: settingsSchema,
    response: settingsSchema,
  }),
  signInByCode: endpoint({
    method: 'post',
    path: '/session/code',
    summary: 'Come in by a code, on a shared phone',
    params: empty,
    input: z.object({ personId: id, code: z.string().regex(/^\d{4}$/, { error: 'enter four digits' }) }),
    response: sessionSchema,
  }),
  code: endpoint({
    method: 'get',
    path: '/account/code',
    summary: 'Whether one has a code for shared phones',
    params: empty,
    input: empty,
    response: z.object({ since: instantSchema.nullable() }),
  }),
  setCode: endpoint({
    method: 'put',
    path: '/account/code',
    summary: 'Set one’s code for shared phones',
    params: empty,
    input: z.object({ code: handCode }),
    response: z.object({ since: instantSchema.nullable() }),
  }),
  removeCode: endpoint({
    method: 'delete',
    path: '/account/code',
    summary: 'Do without a code: shared phones are not opened by it any more',
    params: empty,
    input: empty,
    response: z.object({ since: instantSchema.nullable() }),
  }),
  changePassword: endpoint({
    method: 'put',
    path: '/account/password',
    summary: 'Change one’s password; other sign-ins end',
    params: empty,
    input: z.object({ current: anyPassword, password: newPassword }),
    response: sessionSchema,
  }),
  signIns: endpoint({
    method: 'get',
    path: '/account/sign-ins',
    summary: 'Where one is signed in',
    params: empty,
    input: empty,
    response: z.array(openSignInSchema),
  }),
  endSignIn: endpoint({
    method: 'delete',
    path: '/account/sign-ins/:signInId',
    summary: 'Sign out somewhere else',
    params: z.object({ signInId: id }),
    input: empty,
    response: z.array(openSignInSchema),
  }),
}
