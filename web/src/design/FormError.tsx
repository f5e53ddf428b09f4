import { useContext } from 'react'
import { useIntl } from 'react-intl'
import styled from 'styled-components'
import { SiteContext } from '../api/workplace.js'
import { useText } from '../messages/useText.js'
import { TextButton } from './buttons.js'
import { colour } from './theme.js'
import { momentWords } from './useFormat.js'

const Message = styled.p`
  border-left: 4px solid ${colour.beet};
  background: ${colour.beetSoft};
  padding: 8px 12px;
  font-weight: 600;
`

const Again = styled.p`
  border-left: 4px solid ${colour.petrol};
  background: ${colour.petrolSoft};
  padding: 8px 12px;
`

/** What is wrong with a whole form, where no single field is to blame. */
export function FormError({ text }: { text: string | null }) {
  return <div role="alert">{text ? <Message>{text}</Message> : null}</div>
}

interface DraftProps {
  /** What `useEntry` gives. */
  entry: { draftSince: string | null; discard: () => void }
}

/** Says that what was typed before is there again, and lets go of it where it is not wanted. */
export function DraftNote({ entry: { draftSince, discard } }: DraftProps) {
  const t = useText()
  const { locale } = useIntl()
  // Before there is a site, such as where one is begun, by the clock of the device.
  const zone = useContext(SiteContext)?.timeZone
  return (
    <div role="status">
      {draftSince === null ? null : (
        <Again>
          {t('draft.again', { when: momentWords(locale, zone)(draftSince) })}{' '}
          <TextButton onPress={discard}>{t('draft.discard')}</TextButton>
        </Again>
      )}
    </div>
  )
}
