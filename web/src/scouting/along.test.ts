import { expect, test } from 'vitest'
import { enough, goOn, mayGoOn, type Along } from './heldCount.js'

const along = (...units: Along['units']): Along => ({ from: 0, units, isOver: false })

test('enough of it leaves out the sample unit at which nothing was tallied, but never the only one', () => {
  expect(enough(along({ sting: 1 }, {}))).toEqual({ from: 0, units: [{ sting: 1 }], isOver: true })
  expect(enough(along({ sting: 1 }, { sting: 0 })).units).toHaveLength(2)
  expect(enough(along({})).units).toEqual([{}])
})

test('it is gone on with only as long as no sample unit was passed, and then at the one in hand', () => {
  const ended = enough(along({ sting: 1 }, {}))
  expect(mayGoOn(ended, 1)).toBe(true)
  expect(goOn(ended, 1)).toEqual(along({ sting: 1 }, {}))
  expect(mayGoOn(ended, 2)).toBe(false)
  const whole = enough(along({ sting: 1 }, { sting: 2 }))
  expect(goOn(whole, 1)).toEqual(along({ sting: 1 }, { sting: 2 }))
  expect(mayGoOn({ ...whole, from: 3 }, 5)).toBe(true)
})
