import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { coverMarks, FIELD, hitOfHundred, leafMarks, leafPoints, OF_HUNDRED, type Mark } from './damageMarks.js'

const covered = (marks: readonly Mark[], [px, py]: readonly [number, number]): boolean =>
  marks.some(({ x, y, r }) => Math.hypot(x - px, y - py) < r)

const library = new URL('../../../library/', import.meta.url)
const drawn = new Map<string, Set<number>>()
for (const folder of ['organisms', 'pathogens', 'weeds'])
  for (const file of readdirSync(new URL(`${folder}/`, library))) {
    const { damage } = (
      JSON.parse(readFileSync(new URL(`${folder}/${file}`, library), 'utf8')) as {
        about: { damage: { drawing: string; degrees: number[] } }
      }
    ).about
    drawn.set(damage.drawing, new Set([...(drawn.get(damage.drawing) ?? []), ...damage.degrees]))
  }
const degrees = [...drawn].flatMap(([drawing, all]) => [...all].map((percent) => [drawing, percent] as const))

describe('a drawn degree covers what it says', () => {
  test.each(degrees.filter(([drawing]) => drawing.startsWith('leaf')))('%s, %d %%', (drawing, percent) => {
    const marks = leafMarks(drawing, percent)
    const share = (100 * leafPoints.filter((point) => covered(marks, point)).length) / leafPoints.length
    expect(Math.abs(share - percent)).toBeLessThan(0.5 + percent / 50)
  })

  test.each([1, 5, 10, 25, 50, 80])('the ground, %d %%', (percent) => {
    const marks = coverMarks(percent)
    let hit = 0
    // A finer grid than the one by which the tufts are sized.
    for (let x = 0.25; x < FIELD.width; x += 0.5) for (let y = 0.25; y < FIELD.height; y += 0.5) if (covered(marks, [x, y])) hit++
    expect(Math.abs((100 * hit) / (4 * FIELD.width * FIELD.height) - percent)).toBeLessThan(0.5 + percent / 50)
  })

  test.each([0, 1, 5, 10, 25, 50, 100])('of a hundred, %d', (percent) => {
    const hit = hitOfHundred(percent)
    expect(hit.size).toBe(percent)
    for (const one of hitOfHundred(percent / 2)) expect(hit.has(one)).toBe(true)
  })
})

test('every drawing of the library is one of the three ways', () => {
  for (const drawing of drawn.keys())
    expect(drawing === 'cover' || drawing.startsWith('leaf') || OF_HUNDRED.has(drawing), drawing).toBe(true)
})
