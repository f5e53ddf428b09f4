// Small files of state: written whole or not at all, and a cut one is none.
import { closeSync, fsyncSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs'
import { runs } from './processes.mjs'

/** Writes a file so that whoever reads it sees the old contents or the new, and never half of either. */
export function writeState(file, state) {
  const made = `${file}.${process.pid}`
  // What is in it may open a database: it is for whoever runs this, and nobody else.
  const open = openSync(made, 'w', 0o600)
  writeSync(open, JSON.stringify(state))
  fsyncSync(open)
  closeSync(open)
  renameSync(made, file)
}

/** What a file of state says; undefined where there is none, or a machine that stopped has cut it. */
export function readState(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

/**
 * Takes a folder for this process, unless another that still runs has it: then its number is returned, and nothing is taken. Of two
 * that come at the same moment one gets it.
 *
 * @param {string} file
 * @param {string} words by which the command line of an owner is known
 * @returns {{ owner: number | undefined, release: () => void }}
 */
export function takeFolder(file, words) {
  for (let tries = 0; tries < 5; tries++) {
    try {
      const open = openSync(file, 'wx')
      writeSync(open, String(process.pid))
      closeSync(open)
      return { owner: undefined, release: () => rmSync(file, { force: true }) }
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
    }
    const owner = Number(readState(file))
    if (owner && owner !== process.pid && runs(owner, words)) return { owner, release: () => undefined }
    // Left behind by one that was ended.
    rmSync(file, { force: true })
  }
  throw new Error(`${file} cannot be taken; remove it and start again`)
}
