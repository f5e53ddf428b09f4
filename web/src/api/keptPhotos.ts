/** Where photos lie that are needed in the field; they go when somebody else signs in. */
const SHELF = 'bocado.photos'

const shelf = async (): Promise<Cache | undefined> => {
  const { caches: all } = globalThis as { caches?: CacheStorage }
  // Without a secure address there is none, and a private window may refuse it.
  return all?.open(SHELF).catch(() => undefined)
}

/** A photo as the browser can show it: from this device where it lies there, else from the server, and then kept. Null where neither has it. */
export async function photoAt(url: string): Promise<Blob | null> {
  const cache = await shelf()
  const kept = await cache?.match(url).catch(() => undefined)
  if (kept) return kept.blob()
  try {
    const answer = await fetch(url)
    if (!answer.ok) return null
    await cache?.put(url, answer.clone()).catch(() => undefined)
    return await answer.blob()
  } catch {
    return null
  }
}

/** Lets go of all photos. */
export const forgetPhotos = async (): Promise<void> => {
  await (globalThis as { caches?: CacheStorage }).caches?.delete(SHELF).catch(() => undefined)
}
