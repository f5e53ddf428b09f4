import type { Database, Transaction } from '../database/pool.js'

/** Runs work in one transaction: all of it is stored, or nothing. */
export async function inTransaction<T>(database: Database, work: (tx: Transaction) => Promise<T>): Promise<T> {
  const tx = await database.getConnection()
  try {
    await tx.beginTransaction()
    const result = await work(tx)
    await tx.commit()
    tx.release()
    return result
  } catch (error) {
    // A connection whose rollback fails is not to be used again.
    await tx.rollback().then(
      () => tx.release(),
      () => tx.destroy(),
    )
    throw error
  }
}
