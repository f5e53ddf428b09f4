import { endpoints, type Treatment } from '@bocado/contract'
import { useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { useSite, useWorkplace } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Line, Small } from '../design/text.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'
import '../messages/en/work.js'

/** Who signed a record; or that it is a draft until somebody with a licence does, and the way to that for who has one. */
export function Signature({ treatment }: { treatment: Treatment }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const { personId, byCode } = useWorkplace()
  const { save, isBarred } = useWrite(endpoints.treatments.sign)
  const [refused, setRefused] = useState<string | null>(null)
  const { done, id: treatmentId, rowVersion } = treatment
  if (!done?.label) return null
  if (done.signed)
    return (
      <Small>
        {t('signature.signed', { name: done.signed.byName, at: f.moment(done.signed.at), licence: done.signed.licence || 'none' })}
      </Small>
    )
  if (!done.label.licensedOnly) return null
  const mayTry = !byCode && site.people.some(({ id, licensed }) => id === personId && licensed)
  const sign = async (): Promise<void> => {
    try {
      await save({ params: { siteId: site.id, treatmentId }, input: { rowVersion } })
      setRefused(null)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
  }
  return (
    <>
      <Line>
        <Small>
          <b>{t('signature.draft')}</b> {t('signature.draftText')}
        </Small>
        {mayTry ? (
          <TextButton isDisabled={isBarred} aria-label={t('signature.doNamed', { name: treatment.name })} onPress={() => void sign()}>
            {t('signature.do')}
          </TextButton>
        ) : null}
      </Line>
      {refused === null ? null : <FormError text={refused} />}
    </>
  )
}
