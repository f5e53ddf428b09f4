import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Quiet = styled.p`
  padding: 32px 20px;
  color: ${colour.inkSoft};
`

/** Says that something is on its way, but only once it is slow enough to be noticed. */
export function Waiting() {
  const t = useText()
  const [slow, setSlow] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), 400)
    return () => clearTimeout(timer)
  }, [])
  return <Quiet role="status">{slow ? t('waiting') : ''}</Quiet>
}
