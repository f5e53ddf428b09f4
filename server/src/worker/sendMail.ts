import { canMail, giveToServer, mailServer } from '../alerts/mail.js'
import { claimDue, letterOf, noteFailed, noteSent, putInInbox } from '../alerts/outbox.js'
import { reading, writing, type Serving } from '../http/serving.js'

/**
 * Sends what is due in the outbox. Several may do it at once: each letter is taken by one.
 *
 * @returns how many were sent
 */
export async function sendDue(serving: Serving): Promise<number> {
  if (!canMail()) return 0
  let sent = 0
  for (;;) {
    const now = await reading(serving, ({ db, clock }) => clock.now(db))
    const row = await writing(serving, ({ db }) => claimDue(db, now))
    if (!row) return sent
    try {
      const letter = await reading(serving, ({ db }) => letterOf(db, row))
      const url = mailServer()
      if (letter && url !== undefined) await giveToServer(url, letter)
      await writing(serving, async ({ db }) => {
        if (letter && url === undefined) await putInInbox(db, letter, now)
        await noteSent(db, row, now)
      })
      sent++
    } catch (error) {
      await writing(serving, ({ db }) => noteFailed(db, row, error instanceof Error ? error.message : String(error)))
    }
  }
}
