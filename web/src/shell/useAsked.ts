import { useEffect, useEffectEvent } from 'react'
import { useSearchParams } from 'react-router'

/** Does what the address asks for, as in `?do=block`, once; then the address no longer asks for it. */
export function useAsked(what: string, act: () => void): void {
  const [search, setSearch] = useSearchParams()
  const isAsked = search.get('do') === what
  const answer = useEffectEvent(() => {
    act()
    const rest = new URLSearchParams(search)
    rest.delete('do')
    setSearch(rest, { replace: true })
  })
  useEffect(() => {
    if (isAsked) answer()
  }, [isAsked])
}
