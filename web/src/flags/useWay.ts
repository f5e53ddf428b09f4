import { useEffect, useRef, useState } from 'react'
import { follow, keepLit, type Whereabouts } from './whereabouts.js'

type Way = [longitude: number, latitude: number][]

/** Points that may lie farther off say nothing of where one looked. */
export const ROUGH_M = 30
/** Standing still is no way. */
const LEAST_STEP_M = 2
const METRES_PER_DEGREE = 111_195

/** m along a way, on flat ground. */
export function lengthOf(way: Way): number {
  return way.slice(1).reduce((sum, [lon, lat], i) => {
    const [fromLon, fromLat] = way[i]!
    const east = (lon - fromLon) * METRES_PER_DEGREE * Math.cos((lat * Math.PI) / 180)
    return sum + Math.hypot(east, (lat - fromLat) * METRES_PER_DEGREE)
  }, 0)
}

/**
 * The way that this device walks, point by point.
 *
 * @param onPoint takes each point that says something
 */
export function useWay(onPoint: (point: Way[number]) => void) {
  const [isWalking, setWalking] = useState(false)
  const [here, setHere] = useState<Whereabouts | null>(null)
  const [isLost, setLost] = useState(false)
  const [isLit, setLit] = useState(true)
  const take = useRef(onPoint)
  useEffect(() => {
    take.current = onPoint
  })
  useEffect(() => {
    if (!isWalking) return
    let letGo: (() => void) | null = null
    let isOver = false
    let last: Way[number] | null = null
    void keepLit().then((lit) => {
      if (isOver) return lit?.()
      letGo = lit
      setLit(lit !== null)
    })
    const stop = follow(
      (now) => {
        setLost(false)
        setHere(now)
        if (now.accuracyM > ROUGH_M) return
        const point: Way[number] = [now.longitude, now.latitude]
        if (last && lengthOf([last, point]) < LEAST_STEP_M) return
        last = point
        take.current(point)
      },
      () => setLost(true),
    )
    return () => {
      isOver = true
      stop()
      letGo?.()
    }
  }, [isWalking])
  return { isWalking, setWalking, here, isLost, isLit }
}
