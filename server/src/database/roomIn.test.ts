import { createServer, connect, type Socket } from 'node:net'
import { once } from 'node:events'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { roomIn } from './roomIn.js'

const accepted: Socket[] = []
const server = createServer({ pauseOnConnect: true }, (socket) => {
  socket.on('error', () => undefined)
  accepted.push(socket)
})
beforeAll(async () => {
  server.listen(0, '127.0.0.1')
  await once(server, 'listening')
})
afterAll(() => {
  for (const socket of accepted) socket.destroy()
  server.close()
})

/** A connection to somebody who does not read, filled until it takes no more. */
async function full(): Promise<{ socket: Socket; reader: Socket }> {
  const before = accepted.length
  const socket = connect((server.address() as { port: number }).port, '127.0.0.1')
  socket.on('error', () => undefined)
  await once(socket, 'connect')
  await expect.poll(() => accepted.length).toBe(before + 1)
  while (socket.write(Buffer.alloc(1_000_000)));
  return { socket, reader: accepted[before]! }
}

test('there is room at once where nothing waits', async () => {
  const socket = connect((server.address() as { port: number }).port, '127.0.0.1')
  socket.on('error', () => undefined)
  await once(socket, 'connect')
  expect(await roomIn(socket)).toBe(true)
  socket.destroy()
})

test('a full stream has room again once the other side reads', async () => {
  const { socket, reader } = await full()
  const waited = roomIn(socket)
  reader.resume()
  expect(await waited).toBe(true)
  expect(socket.listenerCount('drain')).toBe(0)
  socket.destroy()
})

test.each([
  ['reset by the other side', ({ reader }: { reader: Socket }) => reader.resetAndDestroy()],
  ['closed here', ({ socket }: { socket: Socket }) => socket.destroy()],
  ['broken here', ({ socket }: { socket: Socket }) => socket.destroy(new Error('gone'))],
])('one that is %s has none, and nothing is thrown', async (_, end) => {
  const ends = await full()
  const waited = roomIn(ends.socket)
  end(ends)
  expect(await waited).toBe(false)
  expect(await roomIn(ends.socket)).toBe(false)
})
