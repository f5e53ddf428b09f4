import { useEffect, useState } from 'react'
import { photoAt } from '../api/keptPhotos.js'

/** A photo of a site as it can be shown, also without signal where it was read before; null until it is there. */
export function usePhoto(siteId: string, photoId: string | null): string | null {
  const [shown, setShown] = useState<{ of: string; data: string } | null>(null)
  useEffect(() => {
    if (photoId === null) return
    let isOver = false
    const read = async (): Promise<void> => {
      const blob = await photoAt(`/api/v1/sites/${siteId}/photos/${photoId}/jpeg`)
      const data = blob && (await dataOf(blob))
      if (data && !isOver) setShown({ of: photoId, data })
    }
    void read()
    return () => {
      isOver = true
    }
  }, [siteId, photoId])
  return shown?.of === photoId ? shown.data : null
}

/** The page shows pictures of its own server and what stands in an address itself, and no others. */
const dataOf = (blob: Blob): Promise<string | null> =>
  new Promise((resolve) => {
    const reader = new FileReader()
    reader.onload = () => resolve(typeof reader.result === 'string' ? reader.result : null)
    reader.onerror = () => resolve(null)
    reader.readAsDataURL(blob)
  })
