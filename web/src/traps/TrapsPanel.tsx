import { endpoints } from '@bocado/contract'
import { useState } from 'react'
import { FileTrigger } from 'react-aria-components'
import { addressOf, RequestProblem } from '../api/client.js'
import { useBand, useBlocks, useOrganisms, useTraps, useWrite } from '../api/hooks.js'
import { useSeasonChoice, useSite } from '../api/workplace.js'
import { Button } from '../design/buttons.js'
import { FormError } from '../design/FormError.js'
import { rowKeys } from '../design/rowKeys.js'
import { Empty, Heading, Line, Small, Stack } from '../design/text.js'
import { useText } from '../messages/useText.js'
import { useAsked } from '../shell/useAsked.js'
import { Waiting } from '../shell/Waiting.js'
import { TrapForm } from './TrapForm.js'
import { TrapLine } from './TrapLine.js'
import '../messages/en/field.js'
import '../messages/en/records.js'
import '../messages/en/traps.js'
import '../messages/en/windows.js'

/** The traps of the season: what each caught, when it is to be checked, and what its catches say. */
export function TrapsPanel() {
  const t = useText()
  const site = useSite()
  const { isPast } = useSeasonChoice()
  const { data: traps } = useTraps(site.id, site.season.start)
  const { data: blocks } = useBlocks(site.id)
  const { data: organisms } = useOrganisms()
  const { data: band } = useBand(site.id, site.season.start)
  const [hangs, setHangs] = useState(false)
  useAsked('trap', () => setHangs(true))
  if (!traps || !blocks || !organisms || !band) return <Waiting />
  // What flies is caught; what is watched here comes first.
  const watched = band.watches.map(({ watch }) => watch.organismId)
  const caught = organisms
    .filter(({ kind }) => kind === 'insect' || kind === 'mite')
    .sort((a, b) => Number(watched.includes(b.id)) - Number(watched.includes(a.id)) || a.name.localeCompare(b.name))
  const waits = band.watches.find(
    ({ watch, kind }) =>
      kind === 'insect' && !traps.some(({ organismId, blockId }) => organismId === watch.organismId && blockId === watch.blockId),
  )
  const begins = {
    name: t('traps.usualName', { number: traps.length + 1 }),
    blockId: waits?.watch.blockId ?? (blocks.length === 1 ? (blocks[0]?.id ?? null) : null),
    organismId: waits?.watch.organismId ?? null,
  }
  return (
    <Stack $gap={18}>
      <Line style={{ justifyContent: 'space-between' }}>
        <Heading>{t('traps.title', { count: traps.length })}</Heading>
        {isPast ? null : <Button onPress={() => setHangs(true)}>{t('traps.hang')}</Button>}
      </Line>
      {hangs ? <TrapForm blocks={blocks} organisms={caught} begins={begins} onDone={() => setHangs(false)} /> : null}
      {traps.length === 0 && !hangs ? (
        <Empty>
          <p>{t('traps.none')}</p>
        </Empty>
      ) : null}
      <div data-rows onKeyDown={(event) => rowKeys(event)}>
        {traps.map((trap) => (
          <TrapLine
            key={trap.id}
            trap={trap}
            blocks={blocks}
            organisms={caught}
            forecast={band.watches.find(({ watch }) => watch.id === trap.watch?.id)}
            isPast={isPast}
          />
        ))}
      </div>
      {traps.length > 0 ? (
        <a
          href={addressOf(endpoints.traps.list, { params: { siteId: site.id }, input: { season: site.season.start } }).replace(
            '?',
            '.csv?',
          )}
        >
          {t('traps.csv')}
        </a>
      ) : null}
      {traps.length > 0 && !isPast ? <ChecksFile /> : null}
    </Stack>
  )
}

/** Checks from a file that somebody kept elsewhere, or that was saved here: each into the trap of its name, all or none. */
function ChecksFile() {
  const t = useText()
  const site = useSite()
  const write = useWrite(endpoints.traps.takeFile)
  const [said, setSaid] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const take = async (files: FileList | null): Promise<void> => {
    const file = files?.[0]
    if (!file) return
    setSaid(null)
    setWrong(null)
    try {
      setSaid(t('traps.fileTaken', await write.save({ params: { siteId: site.id }, input: { text: await file.text() } })))
    } catch (error) {
      if (!(error instanceof RequestProblem)) throw error
      // The row is named first: it is what has to be put right.
      setWrong(error.problem.detail)
    }
  }
  return (
    <Stack $gap={4}>
      <FileTrigger acceptedFileTypes={['.csv', 'text/csv']} onSelect={(files) => void take(files)}>
        <Button $plain isDisabled={write.isBarred}>
          {t('traps.file')}
        </Button>
      </FileTrigger>
      {said ? <Small role="status">{said}</Small> : null}
      <FormError text={wrong} />
    </Stack>
  )
}
