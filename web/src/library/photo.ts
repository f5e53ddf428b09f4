/** Longest side in px that a stored photo has: enough to see hairs and veins. */
const LONGEST = 1600
const QUALITY = 0.82
const LARGEST_BYTES = 1_200_000

export interface SmallPhoto {
  /** JPEG, base64, without anything that the camera wrote into it. */
  jpeg: string
  takenOn: string | null
  position: { latitude: number; longitude: number } | null
}

/**
 * A photo made small in the page. Drawing it anew leaves behind everything that the camera wrote into it; day and position are read
 * before, so that the user can choose to keep them.
 */
export async function smallPhoto(file: Blob): Promise<SmallPhoto> {
  // Needed by none but those who add a photo.
  const { gps, parse } = await import('exifr')
  const [position, written, picture] = await Promise.all([
    gps(file).catch(() => undefined),
    parse(file, ['DateTimeOriginal']).catch(() => undefined) as Promise<{ DateTimeOriginal?: Date } | undefined>,
    createImageBitmap(file, { imageOrientation: 'from-image' }),
  ])
  const taken = written?.DateTimeOriginal
  return {
    jpeg: await smallJpeg(picture, picture),
    takenOn: taken instanceof Date && !Number.isNaN(taken.getTime()) ? civil(taken) : null,
    position: position && Number.isFinite(position.latitude) ? { latitude: position.latitude, longitude: position.longitude } : null,
  }
}

/** What a camera shows now, as a photo of today. */
export const photoNow = async (video: HTMLVideoElement): Promise<SmallPhoto> => ({
  jpeg: await smallJpeg(video, { width: video.videoWidth, height: video.videoHeight }),
  takenOn: null,
  position: null,
})

async function smallJpeg(picture: CanvasImageSource, { width, height }: { width: number; height: number }): Promise<string> {
  const scale = Math.min(1, LONGEST / Math.max(width, height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(width * scale))
  canvas.height = Math.max(1, Math.round(height * scale))
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
  let blob: Blob | null = null
  for (let quality = QUALITY; quality > 0.3; quality -= 0.15) {
    blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', quality))
    if (blob && blob.size <= LARGEST_BYTES) break
  }
  if (!blob) throw new Error('the picture cannot be written as JPEG')
  const bytes = new Uint8Array(await blob.arrayBuffer())
  let text = ''
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return btoa(text)
}

/** The day as the camera's clock had it. */
const civil = (d: Date): string => `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`
