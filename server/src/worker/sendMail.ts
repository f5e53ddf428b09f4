import { canMail, giveToServer, mailServer } from '../alerts/mail.js'
import { claimDue, letterOf, noteFailed, noteSent, putInInbox } from '../alerts/outbox.js'
import { forget, givePush, pushOf } from '../alerts/push.js'
import type { Row } from '../database/index.js'
import { reading, writing, type Serving } from '../http/serving.js'

/**
 * Sends what is due in the outbox, by mail and to devices. Several may do it at once: each letter is taken by one.
 *
 * @returns how many were sent
 */
export async function sendDue(serving: Serving): Promise<number> {
  let sent = 0
  for (;;) {
    const now = await reading(serving, ({ db, clock }) => clock.now(db))
    const row = await writing(serving, ({ db }) => claimDue(db, now, canMail()))
    if (!row) return sent
    try {
      await (row['channel'] === 'push' ? sendPush(serving, row, now) : sendLetter(serving, row, now))
      sent++
    } catch (error) {
      await writing(serving, ({ db }) => noteFailed(db, row, error instanceof Error ? error.message : String(error)))
    }
  }
}

async function sendLetter(serving: Serving, row: Row, now: Date): Promise<void> {
  const letter = await reading(serving, ({ db }) => letterOf(db, row))
  const url = mailServer()
  if (letter && url !== undefined) await giveToServer(url, letter)
  await writing(serving, async ({ db }) => {
    if (letter && url === undefined) await putInInbox(db, letter, now)
    await noteSent(db, row, now)
  })
}

async function sendPush(serving: Serving, row: Row, now: Date): Promise<void> {
  const letter = await reading(serving, ({ db }) => pushOf(db, row))
  const gone = letter ? await givePush(letter) : []
  await writing(serving, async ({ db }) => {
    await forget(db, gone)
    await noteSent(db, row, now)
  })
}
