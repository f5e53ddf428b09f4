import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { RequestProblem } from '../api/client.js'
import { Button } from '../design/buttons.js'
import { Bullets } from '../design/text.js'

/** Takes a file in whole, and says what came of it; or nothing of it, with what is wrong line by line. */
export function TakeFile(p: {
  words: string
  types: readonly string[]
  isBarred: boolean
  /** Sends the file; what it gives back is said. Each message of a refusal names its line. */
  take: (file: File) => Promise<string>
}) {
  const [said, setSaid] = useState<{ done: string } | { wrong: string[] } | null>(null)
  const taken = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    setSaid(null)
    try {
      setSaid({ done: await p.take(file) })
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      const { fields, detail } = error.problem
      setSaid({ wrong: fields?.map(({ message }) => message) ?? [detail] })
    }
  }
  return (
    <>
      <FileTrigger acceptedFileTypes={p.types} onSelect={(files) => void taken(files)}>
        <Button $plain isDisabled={p.isBarred}>
          {p.words}
        </Button>
      </FileTrigger>
      {said && 'done' in said ? <span role="status">{said.done}</span> : null}
      {said && 'wrong' in said ? (
        <div role="alert">
          <Bullets>
            {said.wrong.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </Bullets>
        </div>
      ) : null}
    </>
  )
}
