import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { Button } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { Line } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { smallPhoto, type SmallPhoto } from './photo.js'

/** A photo that goes with a record: chosen or taken, made small in the page, and shown. */
export function PhotoField({ photo, onChange }: { photo: SmallPhoto | null; onChange: (photo: SmallPhoto) => void }) {
  const t = useText()
  const [wrong, setWrong] = useState<string | null>(null)
  const choose = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    try {
      onChange(await smallPhoto(file))
      setWrong(null)
    } catch {
      setWrong(t('check.noPicture', { name: file.name }))
    }
  }
  return (
    <>
      <Line>
        <FileTrigger acceptedFileTypes={['image/*']} onSelect={(files) => void choose(files)}>
          <Button $plain>{t(photo ? 'check.otherPhoto' : 'check.photo')}</Button>
        </FileTrigger>
        {photo ? <img src={`data:image/jpeg;base64,${photo.jpeg}`} alt={t('check.yourPhoto')} height={72} /> : null}
      </Line>
      <FormError text={wrong} />
    </>
  )
}
