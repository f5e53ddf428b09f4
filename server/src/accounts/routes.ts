import { endpoints, needOf, type Endpoint, type ParsedInputOf, type Session } from '@bocado/contract'
import type { Request, Response, Router } from 'express'
import { rateLimit } from 'express-rate-limit'
import { jsonBody } from '../http/body.js'
import { hostnameOf, LOOPBACK } from '../http/doors.js'
import { callerAt, phoneOf, requireNeed, setPhone, setSignIn, signInOf } from '../http/identity.js'
import { limitWrites } from '../http/limits.js'
import { fieldProblem, HttpProblem } from '../http/problems.js'
import type { Queryable, Transaction } from '../database/index.js'
import { knownFor, parse, read, requireCaller, write, type Serving } from '../http/route.js'
import { reading, writing } from '../http/serving.js'
import { invite, listInvitations, lookAtLink, resetLink, useLink, withdraw } from './links.js'
import { addPasskey, askForPasskey, askToSignIn, listPasskeys, openByPasskey, partyOf, removePasskey, type Party } from './passkeys.js'
import { isPassword, hashPassword } from './passwords.js'
import { codeOfSelf, listPhones, meantCode, openByCode, pairPhone, removeCode, sendAway, setCode } from './phones.js'
import {
  begin,
  changePassword,
  meantAccount,
  openByPassword,
  ownAccount,
  sessionOf,
  setSettings,
  signInsOf,
  signInToDemo,
} from './service.js'
import type { SignedIn, Visitor } from './visitor.js'
import { endSignIn, endSignIns } from './store.js'

const FROM_HERE = /^(::ffff:)?127\.|^::1$/
/** What costs a password's hash is asked for by people, not by programs. */
const PER_MINUTE = 300

const visitorOf = (req: Request): Visitor => ({
  address: req.ip ?? '',
  agent: req.header('User-Agent') ?? '',
  // What a proxy hands on comes from this machine as well, and is not of it.
  isLocal:
    FROM_HERE.test(req.socket.remoteAddress ?? '') &&
    LOOPBACK.has(hostnameOf(req.header('Host') ?? '') ?? '') &&
    !['X-Forwarded-For', 'X-Forwarded-Host', 'Forwarded'].some((name) => req.header(name) !== undefined),
  phone: phoneOf(req),
})

/** Signing in and out, links, and one's account. */
export function accountRoutes(router: Router, serving: Serving): void {
  const { account, crew, phones } = endpoints
  const slowly = rateLimit({
    windowMs: 60_000,
    limit: PER_MINUTE,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new HttpProblem(429, 'Too many tries in a minute from one place. Wait a minute and go on.', { retryAfter: 60 })
    },
  })

  /** Registers what opens a sign-in: the browser gets its cookie once everything is stored. */
  const opens = <E extends Endpoint>(
    e: E,
    act: (visitor: Visitor, input: ParsedInputOf<E>, personId: string | undefined, req: Request) => Promise<SignedIn>,
    isSlow = true,
  ): void => {
    router[e.method](e.path, knownFor(needOf(e)), ...(isSlow ? [slowly] : limitWrites), jsonBody, async (req: Request, res: Response) => {
      const visitor = visitorOf(req)
      const before = signInOf(req)
      const caller = await reading(serving, ({ db }) => callerAt(db, before, undefined))
      requireNeed(needOf(e), caller, undefined)
      const input = parse(e.input, req.body) as ParsedInputOf<E>
      const { token } = await act(visitor, input, caller?.personId, req)
      // A sign-in that was there before ends: what somebody put into the browser before is worth nothing after.
      if (before !== undefined && caller) await writing(serving, ({ db }) => endSignIn(db, caller.personId, { token: before }))
      setSignIn(req, res, token)
      answer(res, await reading(serving, async ({ db }) => sessionOf(db, await callerAt(db, token, undefined), visitor)))
    })
  }
  const answer = (res: Response, session: Session): void => {
    res.set('Cache-Control', 'no-store').json(session)
  }

  router.get(account.session.path, async (req: Request, res: Response) => {
    const token = signInOf(req)
    const session = await reading(serving, async ({ db }) => sessionOf(db, await callerAt(db, token, undefined), visitorOf(req)))
    if (token !== undefined && session.person === null) setSignIn(req, res, null)
    answer(res, session)
  })
  // A password is hashed and checked between transactions: it takes a while, and holds no connection.
  opens(account.signIn, async (visitor, { signInName, password }) => {
    const known = await writing(serving, ({ db }) => meantAccount(db, visitor, signInName))
    const isRight = await isPassword(password, known?.passwordHash)
    return writing(serving, ({ db }) => openByPassword(db, visitor, known, isRight))
  })
  opens(account.signInByCode, async (visitor, { personId, code }) => {
    const known = await writing(serving, ({ db }) => meantCode(db, visitor, visitor.phone, personId))
    const isRight = await isPassword(code, known?.codeHash)
    return writing(serving, ({ db }) => openByCode(db, visitor, known, isRight))
  })
  // A passkey belongs to the name under which it was made: that of the page from which it comes.
  const partyOfRequest = (req: Request): Party =>
    partyOf(hostnameOf(req.header('Host') ?? '') ?? '', req.header('Origin') ?? `${req.protocol}://${req.header('Host') ?? ''}`)
  opens(account.signInByPasskey, (visitor, { response }, _, req) =>
    writing(serving, ({ db }) => openByPasskey(db, visitor, partyOfRequest(req), response)),
  )
  router.post(account.askPasskey.path, slowly, jsonBody, async (req: Request, res: Response) => {
    res.set('Cache-Control', 'no-store').json(await writing(serving, ({ db }) => askToSignIn(db, partyOfRequest(req))))
  })
  const asSelf = (e: Endpoint, act: (tx: Transaction, personId: string, req: Request) => Promise<unknown>): void => {
    router[e.method](e.path, knownFor(needOf(e)), ...limitWrites, jsonBody, async (req: Request, res: Response) => {
      const body = await writing(serving, async ({ db }) => act(db, await requireCaller(db, needOf(e), signInOf(req), undefined), req))
      res.set('Cache-Control', 'no-store').json(body)
    })
  }
  asSelf(account.newPasskey, (tx, personId, req) => askForPasskey(tx, personId, partyOfRequest(req)))
  asSelf(account.addPasskey, (tx, personId, req) => {
    const { name, response } = parse(account.addPasskey.input, req.body)
    return addPasskey(tx, personId, partyOfRequest(req), name, response)
  })
  read(router, serving, account.passkeys, ({ deps, personId }) => listPasskeys(deps.db, personId))
  write(router, serving, account.removePasskey, ({ tx, personId, params }) => removePasskey(tx, personId, params.passkeyId))
  opens(account.demoSignIn, (visitor, { personId }) => writing(serving, ({ db }) => signInToDemo(db, visitor, personId)), false)
  opens(account.begin, async (visitor, { password, ...input }) => {
    const hash = await hashPassword(password)
    return writing(serving, ({ db }) => begin(db, visitor, input, hash))
  })
  opens(account.useLink, async (visitor, { password, ...input }, personId) => {
    await reading(serving, ({ db }) => lookAtLink(db, input.token))
    const hash = password === null ? undefined : await hashPassword(password)
    return writing(serving, (deps) => useLink(deps, visitor, personId, input, hash))
  })
  opens(account.changePassword, async (visitor, { current, password }, personId) => {
    const known = await writing(serving, ({ db }) => ownAccount(db, visitor, personId ?? ''))
    if (!(await isPassword(current, known.passwordHash))) throw fieldProblem('current', 'is not right')
    const hash = await hashPassword(password)
    return writing(serving, ({ db }) => changePassword(db, visitor, known, hash))
  })
  router.delete(account.signOut.path, ...limitWrites, jsonBody, async (req: Request, res: Response) => {
    const { everywhere } = parse(account.signOut.input, req.body)
    const token = signInOf(req)
    await writing(serving, async ({ db }) => {
      const caller = await callerAt(db, token, undefined)
      if (!caller || token === undefined) return
      if (everywhere) await endSignIns(db, caller.personId)
      else await endSignIn(db, caller.personId, { token })
    })
    setSignIn(req, res, null)
    answer(res, await reading(serving, ({ db }) => sessionOf(db, undefined, visitorOf(req))))
  })
  router.post(account.lookAtLink.path, slowly, jsonBody, async (req: Request, res: Response) => {
    const { token } = parse(account.lookAtLink.input, req.body)
    res.set('Cache-Control', 'no-store').json(await reading(serving, ({ db }) => lookAtLink(db, token)))
  })

  read(router, serving, account.signIns, ({ deps, personId, token }) => signInsOf(deps.db, personId, token))
  write(router, serving, account.endSignIn, async ({ tx, personId, token, params }) => {
    if (!(await endSignIn(tx, personId, { id: params.signInId }))) throw new HttpProblem(404, 'There is no such sign-in, or it has ended.')
    return signInsOf(tx, personId, token)
  })

  write(router, serving, account.setSettings, ({ tx, personId, input }) => setSettings(tx, personId, input))
  read(router, serving, account.code, ({ deps, personId }) => codeOfSelf(deps.db, personId))
  write(router, serving, account.removeCode, ({ tx, personId }) => removeCode(tx, personId))
  router.put(account.setCode.path, knownFor(needOf(account.setCode)), slowly, jsonBody, async (req: Request, res: Response) => {
    const asked = (db: Queryable): Promise<string> => requireCaller(db, needOf(account.setCode), signInOf(req), undefined)
    await reading(serving, ({ db }) => asked(db))
    const { code } = parse(account.setCode.input, req.body)
    const hash = await hashPassword(code)
    res.set('Cache-Control', 'no-store').json(await writing(serving, async ({ db }) => setCode(db, await asked(db), hash)))
  })
  router.post(phones.pair.path, slowly, jsonBody, async (req: Request, res: Response) => {
    const { token } = parse(phones.pair.input, req.body)
    const secret = await writing(serving, ({ db }) => pairPhone(db, token))
    setPhone(req, res, secret)
    const visitor = { ...visitorOf(req), phone: secret }
    answer(res, await reading(serving, async ({ db }) => sessionOf(db, await callerAt(db, signInOf(req), undefined), visitor)))
  })
  read(router, serving, phones.list, ({ deps, params }) => listPhones(deps.db, params.siteId))
  write(router, serving, phones.sendAway, (ctx) => sendAway(ctx, ctx.params.phoneId, ctx.input.rowVersion))

  read(router, serving, crew.invitations, ({ deps, params }) => listInvitations(deps.db, params.siteId))
  write(router, serving, crew.invite, (ctx) => invite(ctx, ctx.input), { secret: true })
  write(router, serving, crew.withdraw, (ctx) => withdraw(ctx, ctx.params.invitationId, ctx.input.rowVersion))
  write(router, serving, crew.resetLink, (ctx) => resetLink(ctx, ctx.params.personId), { secret: true })
}
