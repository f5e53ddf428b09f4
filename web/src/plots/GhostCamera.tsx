import { useEffect, useRef, useState } from 'react'
import { Label, Slider, SliderThumb, SliderTrack } from 'react-aria-components'
import styled from 'styled-components'
import { Button } from '../design/buttons.js'
import { Line, Small } from '../design/text.js'
import { colour, size } from '../design/theme.js'
import { photoNow, type SmallPhoto } from '../library/photo.js'
import { useText } from '../messages/useText.js'

const Finder = styled.div`
  position: relative;
  max-width: 560px;
  background: ${colour.ink};
  border-radius: 4px;
  overflow: hidden;
  video,
  img {
    display: block;
    width: 100%;
    aspect-ratio: 4 / 3;
    object-fit: cover;
  }
  img {
    position: absolute;
    inset: 0;
    pointer-events: none;
  }
`
const Strength = styled(Slider)`
  display: grid;
  gap: 4px;
  width: min(260px, 60vw);
  font-size: ${size.small};
  .track {
    position: relative;
    height: 44px;
    &::before {
      content: '';
      position: absolute;
      inset: 20px 0;
      border-radius: 4px;
      background: ${colour.rule};
    }
  }
  .thumb {
    width: 28px;
    height: 28px;
    border-radius: 50%;
    top: 50%;
    background: ${colour.white};
    border: 2px solid ${colour.ink};
    &[data-focus-visible] {
      outline: 3px solid ${colour.pollen};
    }
  }
`

/** How strongly the last photo is seen over what stands there, at first. */
const FIRST_STRENGTH = 40

/**
 * The camera of this device with the last photo of the same ground as a ghost over it: moved until both lie on each other, it shows the same
 * piece of ground again.
 *
 * @param ghost address of the last photo; null where there is none yet
 */
export function GhostCamera({
  ghost,
  onTaken,
  onLeave,
}: {
  ghost: string | null
  onTaken: (photo: SmallPhoto) => void
  onLeave: () => void
}) {
  const t = useText()
  const video = useRef<HTMLVideoElement>(null)
  const [state, setState] = useState<'asking' | 'on' | 'none'>('asking')
  const [strength, setStrength] = useState(FIRST_STRENGTH)
  useEffect(() => {
    let stream: MediaStream | null = null
    let isOver = false
    const begin = async (): Promise<void> => {
      try {
        // Without a secure address a browser has no camera to give.
        const { mediaDevices } = navigator as { mediaDevices?: MediaDevices }
        if (!mediaDevices) throw new Error('no camera')
        stream = await mediaDevices.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1600 } }, audio: false })
        if (isOver || !video.current) return stop(stream)
        video.current.srcObject = stream
        await video.current.play()
        setState('on')
      } catch {
        if (!isOver) setState('none')
      }
    }
    void begin()
    return () => {
      isOver = true
      if (stream) stop(stream)
    }
  }, [])
  const take = async (): Promise<void> => {
    if (video.current) onTaken(await photoNow(video.current))
  }
  if (state === 'none') return <Small role="status">{t('plots.noCamera')}</Small>
  return (
    <>
      <Finder>
        <video ref={video} muted playsInline aria-label={t('plots.finder')} />
        {ghost && state === 'on' ? <img src={ghost} alt="" style={{ opacity: strength / 100 }} /> : null}
      </Finder>
      <Small role="status">{state === 'asking' ? t('plots.cameraWait') : ghost ? t('plots.ghostHow') : t('plots.firstPhoto')}</Small>
      {ghost ? (
        <Strength minValue={0} maxValue={100} value={strength} onChange={(value) => setStrength(value as number)}>
          <Label>{t('plots.ghost')}</Label>
          <SliderTrack className="track">
            <SliderThumb className="thumb" />
          </SliderTrack>
        </Strength>
      ) : null}
      <Line>
        <Button isDisabled={state !== 'on'} onPress={() => void take()}>
          {t('plots.take')}
        </Button>
        <Button $plain onPress={onLeave}>
          {t('plots.closeCamera')}
        </Button>
      </Line>
    </>
  )
}

const stop = (stream: MediaStream): void => stream.getTracks().forEach((track) => track.stop())
