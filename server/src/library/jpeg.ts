/** A picture of which only the picture is left, or why it is refused. */
export type CleanJpeg = { jpeg: Buffer; width: number; height: number } | { refused: string }

/** Larger than any camera whose photo a page has made small; a claim of more would only fill memories. */
const LONGEST_SIDE = 8000
const MOST_PIXELS = 40_000_000

const isFrame = (marker: number): boolean => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)
/** Tables, frames, scans and the two notes that say how colours are meant; all else is something written into the file. */
const isKept = (marker: number): boolean =>
  isFrame(marker) || [0xc4, 0xda, 0xdb, 0xdd].includes(marker) || marker === 0xe0 || marker === 0xee
/** What is kept of a note: the head of its kind, and no picture in the picture. */
const LONGEST_NOTE = 64

/**
 * A JPEG with everything taken out that is no picture: what cameras and programs write into it, comments, further formats. It is refused
 * where it is none, is cut off, claims to be larger than a photo is, or has something behind its end.
 */
export function cleanJpeg(bytes: Buffer): CleanJpeg {
  const broken = { refused: 'is no whole JPEG picture; choose it again' }
  if (bytes.length < 100 || bytes[0] !== 0xff || bytes[1] !== 0xd8) return broken
  const parts: Buffer[] = [bytes.subarray(0, 2)]
  let size: { width: number; height: number } | undefined
  for (let at = 2; ;) {
    if (bytes[at] !== 0xff) return broken
    while (bytes[at + 1] === 0xff) at++
    const marker = bytes[at + 1]
    if (marker === undefined) return broken
    if (marker === 0xd9) {
      if (!size) return broken
      if (at + 2 !== bytes.length) return { refused: 'has something else behind its end; save it anew as a JPEG and choose that' }
      parts.push(bytes.subarray(at, at + 2))
      return { jpeg: Buffer.concat(parts), ...size }
    }
    if (at + 4 > bytes.length) return broken
    const length = bytes.readUInt16BE(at + 2)
    const end = at + 2 + length
    if (length < 2 || end > bytes.length) return broken
    if (isFrame(marker)) {
      if (length < 9 || size) return broken
      size = { height: bytes.readUInt16BE(at + 5), width: bytes.readUInt16BE(at + 7) }
      const { width, height } = size
      if (width === 0 || height === 0) return broken
      if (Math.max(width, height) > LONGEST_SIDE || width * height > MOST_PIXELS)
        return { refused: `claims ${width} × ${height} pixels; make it at most ${LONGEST_SIDE} on its longer side` }
    }
    const isNote = marker === 0xe0 || marker === 0xee
    if (isKept(marker) && (!isNote || length <= LONGEST_NOTE)) parts.push(bytes.subarray(at, end))
    at = end
    if (marker !== 0xda) continue
    // What follows a scan's head is the scan, up to the next marker that is no part of it.
    const from = at
    while (at < bytes.length - 1 && !(bytes[at] === 0xff && bytes[at + 1] !== 0 && !isRestart(bytes[at + 1] as number))) at++
    if (at >= bytes.length - 1) return broken
    parts.push(bytes.subarray(from, at))
  }
}

const isRestart = (marker: number): boolean => (marker >= 0xd0 && marker <= 0xd7) || marker === 0xff
