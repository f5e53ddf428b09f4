import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import styled from 'styled-components'
import { TextButton } from '../design/buttons.js'
import { colour } from '../design/theme.js'
import { useText } from '../messages/useText.js'

const Quiet = styled.p`
  padding: 32px 20px;
  color: ${colour.inkSoft};
`
/** Sooner than this nobody notices. */
const NOTICED_MS = 400
/** Later than this it is told that it is slow, with a way to go on. */
const SLOW_MS = 8000

/** Says that something is on its way, but only once it is slow enough to be noticed; and what can be done when it does not come. */
export function Waiting() {
  const t = useText()
  const client = useQueryClient()
  const [after, setAfter] = useState<'nothing' | 'noticed' | 'slow'>('nothing')
  useEffect(() => {
    const noticed = setTimeout(() => setAfter('noticed'), NOTICED_MS)
    const slow = setTimeout(() => setAfter('slow'), SLOW_MS)
    return () => {
      clearTimeout(noticed)
      clearTimeout(slow)
    }
  }, [])
  if (after === 'nothing') return <Quiet role="status" />
  if (after === 'noticed') return <Quiet role="status">{t('waiting')}</Quiet>
  const again = (): void => void client.cancelQueries().then(() => client.refetchQueries({ type: 'active' }))
  return (
    <Quiet role="status">
      {t('waiting.slow')} <TextButton onPress={again}>{t('stumble.again')}</TextButton>
    </Quiet>
  )
}
