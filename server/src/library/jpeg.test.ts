import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { cleanJpeg } from './jpeg.js'

const point = readFileSync(new URL('../testing/point.jpg', import.meta.url))
const cleaned = (bytes: Buffer) => {
  const clean = cleanJpeg(bytes)
  if ('refused' in clean) throw new Error(clean.refused)
  return clean
}
const segment = (marker: number, body: Buffer): Buffer => {
  const head = Buffer.from([0xff, marker, 0, 0])
  head.writeUInt16BE(body.length + 2, 2)
  return Buffer.concat([head, body])
}
/** The picture with a segment written in after its beginning. */
const withSegment = (marker: number, body: Buffer): Buffer =>
  Buffer.concat([point.subarray(0, 2), segment(marker, body), point.subarray(2)])
const sized = (width: number, height: number): Buffer => {
  const bytes = Buffer.from(point)
  const frame = bytes.findIndex((byte, i) => byte === 0xff && [0xc0, 0xc2].includes(bytes[i + 1] as number))
  bytes.writeUInt16BE(height, frame + 5)
  bytes.writeUInt16BE(width, frame + 7)
  return bytes
}

describe('a photo that is taken in', () => {
  test('keeps its picture, byte for byte, and is the same when it is taken in again', () => {
    const once = cleaned(point)
    expect(once.width).toBeGreaterThan(0)
    expect(cleaned(once.jpeg).jpeg).toEqual(once.jpeg)
    const tables = (bytes: Buffer) => bytes.toString('latin1').split('\xff\xdb').slice(1).join()
    expect(tables(once.jpeg)).toBe(tables(point).replace(/\xff\xfe[\s\S]*?(?=\xff)/g, ''))
  })

  test('loses what was written into it: position, name of the camera, comments, a megabyte of notes', () => {
    const secret = Buffer.from('46.2 N 119.3 W by Marit')
    for (const marker of [0xe1, 0xe2, 0xed, 0xef, 0xfe]) {
      const bytes = withSegment(marker, secret)
      expect(bytes.includes(secret)).toBe(true)
      expect(cleaned(bytes).jpeg.includes(secret)).toBe(false)
    }
    let large = point
    for (let i = 0; i < 20; i++) large = Buffer.concat([large.subarray(0, 2), segment(0xe1, Buffer.alloc(60_000, 65)), large.subarray(2)])
    expect(cleaned(large).jpeg).toEqual(cleaned(point).jpeg)
    // A picture in the note about the picture.
    expect(cleaned(withSegment(0xe0, Buffer.alloc(5000, 7))).jpeg).toEqual(cleaned(point).jpeg)
  })

  test.each([
    ['claims twenty thousand pixels a side', () => sized(20_000, 20_000), /claims 20000 × 20000 pixels/],
    ['claims none', () => sized(0, 4), /no whole JPEG/],
    [
      'has a second format behind its end',
      () => Buffer.concat([point, Buffer.from('PK\x03\x04 and a zip')]),
      /something else behind its end/,
    ],
    ['is cut off', () => point.subarray(0, point.length - 40), /no whole JPEG/],
    ['ends in a mark of its end and is none', () => Buffer.concat([Buffer.alloc(300, 3), Buffer.from([0xff, 0xd9])]), /no whole JPEG/],
    [
      'has a segment that reaches beyond it',
      () => Buffer.concat([point.subarray(0, 2), Buffer.from([0xff, 0xe1, 0xff, 0xff]), point.subarray(2, 200)]),
      /no whole JPEG/,
    ],
  ])('is refused where it %s', (_, bytes, words) => {
    const clean = cleanJpeg(bytes())
    expect('refused' in clean && clean.refused).toMatch(words)
  })
})
