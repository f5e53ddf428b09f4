import { endpoints, type AlertSettings } from '@bocado/contract'
import { useEffect, useState } from 'react'
import { useWrite } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { Caution, Heading, Line, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import '../messages/en/alerts.js'

/** Longer than this nobody waits for the maker of a browser. */
const PATIENCE_MS = 15_000

/** Whether pushes come to this browser; `unable` where it takes none. */
type State = 'asking' | 'unable' | 'off' | 'on'

const isAble = (): boolean => 'serviceWorker' in navigator && 'PushManager' in window && 'Notification' in window

async function subscription(): Promise<PushSubscription | null> {
  const registration = await navigator.serviceWorker.getRegistration()
  return (await registration?.pushManager.getSubscription()) ?? null
}

/** The key of a server as browsers want it. */
function bytesOf(key: string): Uint8Array<ArrayBuffer> {
  const binary = atob(key.replaceAll('-', '+').replaceAll('_', '/'))
  return Uint8Array.from(binary, (letter) => letter.charCodeAt(0))
}

/** What cannot wait comes to this device though the page is closed, once its browser allows it. */
export function OnThisDevice({ settings }: { settings: AlertSettings }) {
  const t = useText()
  const site = useSite()
  const [state, setState] = useState<State>('asking')
  const [refusal, setRefusal] = useState<'denied' | 'failed' | null>(null)
  const askKey = useWrite(endpoints.alerts.pushKey)
  const add = useWrite(endpoints.alerts.addDevice)
  const remove = useWrite(endpoints.alerts.removeDevice)
  const set = useWrite(endpoints.alerts.set)
  useEffect(() => {
    let current = true
    const asked = isAble() ? subscription().catch(() => null) : Promise.resolve(undefined)
    void asked.then((found) => {
      if (current) setState(found === undefined ? 'unable' : found ? 'on' : 'off')
    })
    return () => {
      current = false
    }
  }, [])
  const allow = async (): Promise<void> => {
    setRefusal(null)
    if ((await Notification.requestPermission()) !== 'granted') return setRefusal('denied')
    const { key } = await askKey.save({ params: {}, input: {} })
    // The maker of the browser is not reached, or takes none from this server.
    const asked = navigator.serviceWorker.ready
      .then(({ pushManager }) => pushManager.subscribe({ userVisibleOnly: true, applicationServerKey: bytesOf(key) }))
      .catch(() => null)
    const made = await Promise.race([asked, new Promise<null>((resolve) => setTimeout(() => resolve(null), PATIENCE_MS))])
    const { endpoint = '', keys = {} } = made?.toJSON() ?? {}
    if (!made) return setRefusal('failed')
    await add.save({ params: {}, input: { endpoint, p256dh: keys['p256dh'] ?? '', auth: keys['auth'] ?? '' } })
    const { canMail: _, calendarSince: __, devices: ___, ...own } = settings
    if (own.push === 'none') await set.save({ params: { siteId: site.id }, input: { ...own, push: 'urgent' } })
    setState('on')
  }
  const stop = async (): Promise<void> => {
    const found = await subscription()
    if (found) {
      await found.unsubscribe()
      await remove.save({ params: {}, input: { endpoint: found.endpoint } })
    }
    setState('off')
  }
  return (
    <Stack data-testid="on-this-device">
      <Heading>{t('alert.device')}</Heading>
      <Small>{t('alert.deviceText')}</Small>
      {state === 'unable' ? <Small>{t('alert.deviceUnable')}</Small> : null}
      {refusal ? <Caution>{t(`alert.device.${refusal}`)}</Caution> : null}
      <Line>
        {state === 'off' ? <TextButton onPress={() => void allow()}>{t('alert.deviceAllow')}</TextButton> : null}
        {state === 'on' ? (
          <>
            <Small as="span">{t('alert.deviceOn')}</Small>
            <TextButton onPress={() => void stop()}>{t('alert.deviceStop')}</TextButton>
          </>
        ) : null}
      </Line>
    </Stack>
  )
}
