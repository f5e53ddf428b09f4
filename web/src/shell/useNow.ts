import { endpoints } from '@bocado/contract'
import { MS_PER_MINUTE } from '@bocado/core/time'
import { useEffect, useState } from 'react'
import { useRead } from '../api/hooks.js'

/** The moment, minute by minute, in ms; in the demonstration that of its clock. */
export function useNow(): number {
  const { data } = useRead(endpoints.demo.clock, { params: {}, input: {} })
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const clock = setInterval(() => setNow(Date.now()), MS_PER_MINUTE)
    return () => clearInterval(clock)
  }, [])
  return data?.now ? Date.parse(data.now) : now
}
