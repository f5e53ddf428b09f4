import { endpoints, type LeftPerson } from '@bocado/contract'
import { useState } from 'react'
import { useMay } from '../api/may.js'
import { useRead, useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Caution, Line, Quiet, Rows, Small, Stack } from '../design/text.js'
import { Unfold } from '../design/Unfold.js'
import { useFormat } from '../design/useFormat.js'
import { useText } from '../messages/useText.js'

/** Who worked here and left: they come back, or their name is taken out. Shown where it is asked for. */
export function Left() {
  return (
    <Unfold title={useText()('left.title')}>
      <List />
    </Unfold>
  )
}

function List() {
  const t = useText()
  const site = useSite()
  const { data } = useRead(endpoints.privacy.left, { params: { siteId: site.id }, input: {} })
  if (!data) return <Small>{t('waiting')}</Small>
  if (data.length === 0) return <Small>{t('left.nobody')}</Small>
  return (
    <Rows>
      {data.map((person) => (
        <li key={person.id}>
          <One person={person} />
        </li>
      ))}
    </Rows>
  )
}

function One({ person: { id: personId, name, leftAt, isErased, keeps, rowVersion } }: { person: LeftPerson }) {
  const t = useText()
  const f = useFormat()
  const site = useSite()
  const owns = useMay('own')
  const back = useWrite(endpoints.sites.restorePerson)
  const erase = useWrite(endpoints.privacy.erase)
  const [asks, setAsks] = useState(false)
  const [refused, setRefused] = useState<string | null>(null)
  const call = { params: { siteId: site.id, personId }, input: { rowVersion } }
  const act = async (write: typeof back | typeof erase): Promise<void> => {
    try {
      await write.save(call, () => setAsks(false))
      setRefused(null)
    } catch (error) {
      setRefused(error instanceof Error ? error.message : String(error))
    }
    setAsks(false)
  }
  return (
    <Stack>
      <Line>
        <span>
          {name} <Quiet>{t('left.since', { date: f.withYear(leftAt.slice(0, 10)) })}</Quiet>
        </span>
        {isErased ? null : (
          <TextButton aria-label={t('left.backNamed', { name })} isDisabled={back.isBarred} onPress={() => void act(back)}>
            {t('left.back')}
          </TextButton>
        )}
        {isErased || !owns || asks ? null : (
          <TextButton aria-label={t('left.eraseNamed', { name })} onPress={() => setAsks(true)}>
            {t('left.erase')}
          </TextButton>
        )}
      </Line>
      {asks ? (
        <>
          <Caution>{t('left.eraseText', { name, keeps })}</Caution>
          <Line>
            <Button isDisabled={erase.isBarred} onPress={() => void act(erase)}>
              {t('left.eraseDo')}
            </Button>
            <Button $plain onPress={() => setAsks(false)}>
              {t('cancel')}
            </Button>
          </Line>
        </>
      ) : null}
      {refused === null ? null : <FormError text={refused} />}
    </Stack>
  )
}
