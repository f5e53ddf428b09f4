/** What a camera writes into a photo beside the picture. */
export interface CameraNotes {
  latitude: number
  longitude: number
  /** As `2026:06:11 07:40:00`. */
  takenAt: string
}

type Field = [tag: number, kind: number, count: number, value: number | Buffer]
const [ASCII, LONG, RATIONAL] = [2, 4, 5]

/** A directory of TIFF 6.0 at an offset, big endian; values that take more than four bytes stand behind it. */
function directory(offset: number, fields: readonly Field[]): Buffer {
  const table = Buffer.alloc(2 + 12 * fields.length + 4)
  table.writeUInt16BE(fields.length, 0)
  const behind: Buffer[] = []
  let end = offset + table.length
  fields.forEach(([tag, kind, count, value], i) => {
    const at = 2 + 12 * i
    table.writeUInt16BE(tag, at)
    table.writeUInt16BE(kind, at + 2)
    table.writeUInt32BE(count, at + 4)
    if (typeof value === 'number') table.writeUInt32BE(value, at + 8)
    else if (value.length <= 4) value.copy(table, at + 8)
    else {
      table.writeUInt32BE(end, at + 8)
      behind.push(value)
      end += value.length
    }
  })
  return Buffer.concat([table, ...behind])
}

function degrees(value: number): Buffer {
  const seconds = Math.round(Math.abs(value) * 3_600_000)
  const parts = [Math.floor(seconds / 3_600_000), 1, Math.floor(seconds / 60_000) % 60, 1, seconds % 60_000, 1000]
  const out = Buffer.alloc(24)
  parts.forEach((part, i) => out.writeUInt32BE(part, 4 * i))
  return out
}

/** A JPEG with what a camera would have written into it (Exif, segment APP1). */
export function withCameraNotes(jpeg: Buffer, { latitude, longitude, takenAt }: CameraNotes): Buffer {
  const first = 8
  const exifAt = first + 2 + 12 * 2 + 4
  const exif = directory(exifAt, [[0x9003, ASCII, 20, Buffer.from(`${takenAt}\0`, 'ascii')]])
  const gpsAt = exifAt + exif.length
  const gps = directory(gpsAt, [
    [1, ASCII, 2, Buffer.from(latitude < 0 ? 'S\0' : 'N\0', 'ascii')],
    [2, RATIONAL, 3, degrees(latitude)],
    [3, ASCII, 2, Buffer.from(longitude < 0 ? 'W\0' : 'E\0', 'ascii')],
    [4, RATIONAL, 3, degrees(longitude)],
  ])
  const start = directory(first, [
    [0x8769, LONG, 1, exifAt],
    [0x8825, LONG, 1, gpsAt],
  ])
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'binary'), Buffer.from([0x4d, 0x4d, 0, 42, 0, 0, 0, first]), start, exif, gps])
  const head = Buffer.from([0xff, 0xe1, 0, 0])
  head.writeUInt16BE(body.length + 2, 2)
  return Buffer.concat([jpeg.subarray(0, 2), head, body, jpeg.subarray(2)])
}
