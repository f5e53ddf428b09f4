import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from 'vitest'
import { rotate, stamp } from './rotation.js'

const folder = mkdtempSync(join(tmpdir(), 'bocado-backups-'))
afterAll(() => rmSync(folder, { recursive: true }))

test('the newest of a site stay; other sites, and what nobody dated, are left alone', async () => {
  const at = (day: number) => stamp(new Date(Date.UTC(2026, 5, day, 2)))
  expect(at(12)).toBe('20260612T020000Z')
  // A site that was renamed meanwhile is the same site.
  const own = [
    `bocado-Bench-1a2b3c4d-${at(9)}.zip`,
    `bocado-Hollin-Bench-1a2b3c4d-${at(10)}.zip`,
    `bocado-Hollin-Bench-1a2b3c4d-${at(11)}.zip`,
  ]
  const others = [`bocado-Lower-Terrace-99999999-${at(1)}.zip`, 'bocado-Hollin-Bench-1a2b3c4d.zip', 'notes.txt']
  for (const name of [...own, ...others]) writeFileSync(join(folder, name), '')
  expect(await rotate(folder, '1a2b3c4d', 2)).toEqual([own[0]])
  expect(readdirSync(folder).sort()).toEqual([...own.slice(1), ...others].sort())
  expect(await rotate(folder, '1a2b3c4d', 2)).toEqual([])
})
