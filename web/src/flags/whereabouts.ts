/** Where a device is, as it says itself. */
export interface Whereabouts {
  latitude: number
  longitude: number
  /** m */
  accuracyM: number
}

const LONGEST_WAIT_MS = 20_000
const of = ({ coords }: GeolocationPosition): Whereabouts => ({
  latitude: Math.round(coords.latitude * 1e7) / 1e7,
  longitude: Math.round(coords.longitude * 1e7) / 1e7,
  accuracyM: Math.round(coords.accuracy),
})

/** Where this device is now; null where it does not say. */
export const whereNow = (): Promise<Whereabouts | null> =>
  new Promise((resolve) => {
    if (!('geolocation' in navigator)) return resolve(null)
    navigator.geolocation.getCurrentPosition(
      (position) => resolve(of(position)),
      () => resolve(null),
      { enableHighAccuracy: true, timeout: LONGEST_WAIT_MS },
    )
  })

/** Follows this device; the way to stop is returned. `onLost` is called where it does not say where it is. */
export function follow(onHere: (here: Whereabouts) => void, onLost: () => void): () => void {
  if (!('geolocation' in navigator)) {
    onLost()
    return () => undefined
  }
  const watch = navigator.geolocation.watchPosition((position) => onHere(of(position)), onLost, {
    enableHighAccuracy: true,
    maximumAge: 2000,
  })
  return () => navigator.geolocation.clearWatch(watch)
}

/** Keeps the screen lit, since a dark phone tells no way. The way to let go is returned; null where the browser cannot. */
export async function keepLit(): Promise<(() => void) | null> {
  const { wakeLock } = navigator as { wakeLock?: WakeLock }
  const lock = await wakeLock?.request('screen').catch(() => undefined)
  return lock ? () => void lock.release() : null
}
