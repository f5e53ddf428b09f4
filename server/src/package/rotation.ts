import { readdir, rm } from 'node:fs/promises'
import { join } from 'node:path'

/** A moment as the name of a backup has it: 20260612T143000Z, which sorts as time does. */
export const stamp = (moment: Date): string => `${moment.toISOString().slice(0, 19).replaceAll(/[-:]/g, '')}Z`

/**
 * Removes the oldest backups of a site from a folder, so that only some stay; what has no moment in its name is nobody’s to remove.
 *
 * @param site the first eight digits of its id, as they stand in the names
 * @param keep how many stay, 1 at least
 * @returns names of what was removed
 */
export async function rotate(folder: string, site: string, keep: number): Promise<string[]> {
  const own = (await readdir(folder)).filter((name) => new RegExp(`-${site}-\\d{8}T\\d{6}Z\\.zip$`).test(name))
  const moment = (name: string): string => name.slice(-20)
  const gone = own.sort((a, b) => moment(a).localeCompare(moment(b))).slice(0, Math.max(0, own.length - keep))
  for (const name of gone) await rm(join(folder, name))
  return gone
}
