import { Navigate } from 'react-router'
import { useSites } from '../api/hooks.js'
import { Connection } from './Connection.js'
import { Waiting } from './Waiting.js'

/** Goes to the site of this browser's last visit, else the first; where there is none, to the start of one. */
export function FirstSite() {
  const { data } = useSites()
  if (!data) {
    return (
      <>
        <Connection />
        <Waiting />
      </>
    )
  }
  const last = localStorage.getItem('bocado.site')
  const site = data.find(({ id }) => id === last) ?? data[0]
  // Whoever looks after other people's ground begins with what presses on each.
  const first = site?.kind === 'others' && data.length > 1 ? 'overview' : 'today'
  return <Navigate to={site ? `/sites/${site.id}/${first}` : '/start'} replace />
}
