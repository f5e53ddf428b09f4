import { endpoints, type AerialImage } from '@bocado/contract'
import type L from 'leaflet'
import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { RequestProblem } from '../api/client.js'
import { useRead, useWrite } from '../api/hooks.js'
import { useEntry } from '../api/useEntry.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { EntryEnd } from '../design/EntryEnd.js'
import { FormError } from '../design/FormError.js'
import { NumberField } from '../design/NumberField.js'
import { Fields, Line, Small, Stack } from '../design/text.js'
import { smallPhoto } from '../library/photo.js'
import { useText } from '../messages/useText.js'
import { RemoveButton } from '../shell/RemoveButton.js'
import '../messages/en/ground.js'

export const useAerialImages = (siteId: string) => useRead(endpoints.ground.images, { params: { siteId }, input: {} })

/** Where a picture of the ground is to be had. */
export const aerialPath = (siteId: string, { id }: Pick<AerialImage, 'id'>): string => `/api/v1/sites/${siteId}/aerial-images/${id}/jpeg`

const SIDES = ['north', 'west', 'south', 'east'] as const
/** About a decimetre. */
const DIGITS = 6

/** Pictures of one's own under the map: laid into what the map shows, put right by their edges, taken away. */
export function AerialPart({ bounds }: { bounds: () => L.LatLngBounds | null }) {
  const t = useText()
  const site = useSite()
  const { data: images = [] } = useAerialImages(site.id)
  const add = useWrite(endpoints.ground.addImage)
  const [open, setOpen] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const choose = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    const shown = bounds()
    if (!file || !shown) return
    setWrong(null)
    let jpeg: string
    try {
      jpeg = (await smallPhoto(file)).jpeg
    } catch {
      return setWrong(t('aerial.noPicture', { name: file.name }))
    }
    const edges = { south: shown.getSouth(), west: shown.getWest(), north: shown.getNorth(), east: shown.getEast() }
    try {
      const saved = await add.save({
        params: { siteId: site.id },
        input: { name: file.name.replace(/\.\w+$/, '').slice(0, 120), jpeg, ...edges },
      })
      setOpen(saved.id)
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      setWrong(error.problem.detail)
    }
  }
  return (
    <Stack $gap={4}>
      <FileTrigger acceptedFileTypes={['image/*']} onSelect={(files) => void choose(files)}>
        <TextButton isDisabled={add.isBarred}>{t('aerial.add')}</TextButton>
      </FileTrigger>
      <FormError text={wrong} />
      {images.map((image) =>
        open === image.id ? (
          <Edges key={`${image.id} ${image.rowVersion}`} image={image} onDone={() => setOpen(null)} />
        ) : (
          <Line key={image.id}>
            <Small as="span">{image.name || t('aerial.unnamed')}</Small>
            <TextButton onPress={() => setOpen(image.id)} aria-label={t('aerial.moveOne', { name: image.name })}>
              {t('aerial.move')}
            </TextButton>
            <RemoveButton
              remove={endpoints.ground.removeImage}
              restore={endpoints.ground.restoreImage}
              params={{ siteId: site.id, aerialId: image.id }}
              rowVersion={image.rowVersion}
              label={t('aerial.removeOne', { name: image.name })}
              said={t('aerial.removed')}
            />
          </Line>
        ),
      )}
    </Stack>
  )
}

/** Lays a picture by its four edges, as the file that came with it says, or until it fits what is drawn. */
function Edges({ image, onDone }: { image: AerialImage; onDone: () => void }) {
  const t = useText()
  const site = useSite()
  const { north, west, south, east } = image
  const entry = useEntry(
    endpoints.ground.moveImage,
    { north: north as number | null, west: west as number | null, south: south as number | null, east: east as number | null },
    image,
    image.id,
  )
  const save = async (): Promise<void> => {
    const input = ({ north: n, west: w, south: s, east: e }: typeof entry.values) => ({
      north: n ?? NaN,
      west: w ?? NaN,
      south: s ?? NaN,
      east: e ?? NaN,
    })
    if (await entry.submit({ siteId: site.id, aerialId: image.id }, (v, rowVersion) => ({ ...input(v), rowVersion }))) onDone()
  }
  return (
    <Stack $gap={6}>
      <Small>
        {t('aerial.how')} {t('aerial.edges')}
      </Small>
      <Fields>
        {SIDES.map((side) => (
          <NumberField key={side} label={t(`aerial.${side}`)} width="16ch" digits={DIGITS} {...entry.bind.number(side)} />
        ))}
      </Fields>
      <EntryEnd entry={entry} onSave={save} onCancel={onDone} />
    </Stack>
  )
}
