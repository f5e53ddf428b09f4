import { useState } from 'react'
import { Button, TextButton } from '../design/buttons.js'
import { PositionFields } from '../design/PositionFields.js'
import { Fields, Line, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import { whereNow } from './whereabouts.js'

/** Where a flag stands: as this device says, or typed. */
export type PinPosition = {
  latitude: number | null
  longitude: number | null
  accuracyM: number | null
}

export function PositionChoice(p: { value: PinPosition; onChange: (position: PinPosition) => void; error: string | undefined }) {
  const t = useText()
  const f = useFormat()
  const [state, setState] = useState<'asking' | 'none' | null>(null)
  const [isTyped, setTyped] = useState(false)
  const { latitude, longitude, accuracyM } = p.value
  const ask = async (): Promise<void> => {
    setState('asking')
    const here = await whereNow()
    setState(here ? null : 'none')
    if (here) p.onChange(here)
  }
  const has = latitude !== null && longitude !== null
  const typed = (change: Partial<PinPosition>): void => p.onChange({ ...p.value, ...change, accuracyM: null })
  return (
    <>
      <Line>
        <Button $plain onPress={() => void ask()} isDisabled={state === 'asking'}>
          {t(has ? 'flags.positionAgain' : 'flags.position')}
        </Button>
        <Small role="status">
          {state === 'asking'
            ? t('flags.positionWait')
            : state === 'none'
              ? t('flags.positionNone')
              : has
                ? accuracyM === null
                  ? t('flags.positionSet')
                  : t('flags.positionAt', { accuracy: f.height(accuracyM) })
                : ''}
        </Small>
        {isTyped ? null : <TextButton onPress={() => setTyped(true)}>{t('flags.positionByHand')}</TextButton>}
      </Line>
      {isTyped ? (
        <Fields>
          <PositionFields
            latitude={{ value: latitude, onChange: (value) => typed({ latitude: value }), error: p.error }}
            longitude={{ value: longitude, onChange: (value) => typed({ longitude: value }), error: undefined }}
            onBoth={typed}
          />
        </Fields>
      ) : null}
    </>
  )
}
