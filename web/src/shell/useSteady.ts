import { useCallback, useLayoutEffect, useRef } from 'react'

/**
 * A function that does what its newest version does, and stays the same between renders: what is handed down with it need not be drawn anew.
 * For answers to what somebody does, not for what is drawn.
 */
export function useSteady<A extends readonly unknown[], R>(newest: (...args: A) => R): (...args: A) => R {
  const held = useRef(newest)
  useLayoutEffect(() => {
    held.current = newest
  })
  return useCallback((...args: A) => held.current(...args), [])
}
