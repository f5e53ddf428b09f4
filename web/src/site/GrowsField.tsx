import { useMemo } from 'react'
import styled from 'styled-components'
import { useBlocks, useOrganisms } from '../api/hooks.js'
import { useSite } from '../api/workplace.js'
import { TextButton } from '../design/buttons.js'
import { TextField } from '../design/controls.js'
import { useText } from '../messages/useText.js'

const Offers = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  max-width: 44ch;
  min-height: 24px;
`
/** More than these are found by typing on. */
const MOST_OFFERED = 6

/** The word that is being typed, and what stands before it. */
const lastWord = (text: string): { head: string; word: string } => {
  const at = text.lastIndexOf(',') + 1
  return { head: text.slice(0, at), word: text.slice(at).trim().toLowerCase() }
}

/**
 * What could be meant by the last word of a list divided by commas: what begins with it first, then what has it within. Nothing once it is
 * written out, and nothing that stands there already.
 *
 * @param known Plants by their names, the likeliest first.
 */
export function offeredPlants(text: string, known: readonly string[]): string[] {
  const { head, word } = lastWord(text)
  const there = new Set(head.split(',').map((name) => name.trim().toLowerCase()))
  const left = known.filter((name) => !there.has(name.toLowerCase()))
  if (word === '') return left.slice(0, MOST_OFFERED)
  if (left.some((name) => name.toLowerCase() === word)) return []
  const begins = left.filter((name) => name.toLowerCase().startsWith(word))
  const within = left.filter((name) => !begins.includes(name) && name.toLowerCase().includes(` ${word}`))
  return [...begins, ...within].slice(0, MOST_OFFERED)
}

/** What grows in a place: plants that the library knows something of are offered while one types; anything else is taken as well. */
export function GrowsField({ bound }: { bound: { value: string; onChange: (value: string) => void; error?: string | undefined } }) {
  const t = useText()
  const site = useSite()
  const { data: organisms = [] } = useOrganisms()
  const { data: blocks = [] } = useBlocks(site.id)
  const known = useMemo(() => {
    const beside = blocks.flatMap(({ grows }) => grows.split(',').map((name) => name.trim().toLowerCase())).filter((name) => name !== '')
    const often = new Map<string, number>()
    for (const { crops } of organisms) for (const crop of crops) often.set(crop, (often.get(crop) ?? 0) + 1)
    const crops = [...often.keys()].sort((a, b) => (often.get(b) ?? 0) - (often.get(a) ?? 0) || a.localeCompare(b))
    return [...new Set([...beside, ...crops])]
  }, [organisms, blocks])
  const { value, onChange } = bound
  return (
    <div>
      <TextField label={t('block.grows')} width="36ch" {...bound} />
      <Offers role="group" aria-label={t('grows.offers')}>
        {offeredPlants(value, known).map((name) => (
          <TextButton
            key={name}
            onPress={() => {
              const { head } = lastWord(value)
              onChange(`${head}${head === '' ? '' : ' '}${name}`)
            }}
          >
            {name}
          </TextButton>
        ))}
      </Offers>
    </div>
  )
}
