import type { CountedPlace, Enemies, PlantHeight } from '@bocado/contract'
import { useCallback } from 'react'
import { Link } from 'react-router'
import styled from 'styled-components'
import { useSite } from '../api/workplace.js'
import { Button, TextButton } from '../design/buttons.js'
import { Heading, Line, Small, Stack } from '../design/text.js'
import { PHONE } from '../design/theme.js'
import { useText } from '../messages/useText.js'
import { AlongPart } from './Along.js'
import { EnemiesPart } from './EnemiesPart.js'
import { HeightPart } from './HeightPart.js'
import { PlacePart } from './PlacePart.js'
import { TallyRows } from './TallyRows.js'
import type { CountProps, Counting } from './useCounting.js'
import '../messages/en/count.js'

const Keys = styled(Small)`
  @media ${PHONE} {
    display: none;
  }
`

/** What is done with the thumb: the sample unit in hand, its place, what else is seen on it, and on to the next. */
export function CountHand({ p, c }: { p: CountProps; c: Counting }) {
  const t = useText()
  const site = useSite()
  const { sampling, at, last, units, places, effective, asked } = c
  const found = effective.reduce((a, b) => a + b, 0)
  const { set } = c
  const setPlaces = useCallback((places: CountedPlace[]) => set({ places }), [set])
  const setHeights = useCallback((heights: (PlantHeight | null)[]) => set({ heights }), [set])
  const setEnemies = useCallback((enemies: Enemies) => set({ enemies }), [set])
  const left = p.others.filter(({ row: other }) => !c.along[other.watch.id])
  return (
    <Stack>
      <Heading>{t('count.unit', { unit: sampling.unit, number: at + 1, items: sampling.itemsPerUnit, item: sampling.items })}</Heading>
      {places ? (
        <PlacePart places={places} at={at} units={units.length} one={sampling.unit} many={sampling.units} onChange={setPlaces} />
      ) : null}
      {c.heights ? <HeightPart heights={c.heights} at={at} onChange={setHeights} /> : null}
      <TallyRows
        classes={sampling.classes}
        unit={units[at] ?? {}}
        onTally={(classId, by) => c.tally({ classId, by })}
        hasKeys
        {...(sampling.scale === 'degrees' ? { drawing: sampling.degrees.drawing } : {})}
      />
      {asked ? (
        <Stack role="alert" $gap={8}>
          <b>{t('count.finished', { unit: sampling.unit, number: at + 1, found: effective[at] ?? 0 })}</b>
          <Line>
            <Button $plain onPress={() => c.mend(asked)}>
              {t('count.mend', { unit: sampling.unit, number: at + 1 })}
            </Button>
            {at < last ? (
              <Button $plain onPress={() => c.goTo(last)}>
                {t('count.toLast', { unit: sampling.unit, number: last + 1 })}
              </Button>
            ) : null}
          </Line>
        </Stack>
      ) : null}
      {p.others.map(({ row: other, organism: named }) => {
        const one = c.along[other.watch.id]
        return one ? (
          <AlongPart
            key={other.watch.id}
            row={other}
            organism={named}
            along={one}
            at={at}
            places={
              places &&
              places.filter(({ from }, i) => (places[i + 1]?.from ?? units.length) > one.from && from < one.from + one.units.length).length
            }
            isCheck={c.values.checkAreaId !== null}
            onTally={(classId, by) => c.tally({ classId, by, watchId: other.watch.id })}
            last={last}
            onChange={(change) => c.setAlong(other.watch.id, change)}
          />
        ) : null
      })}
      <Button onPress={c.next} style={{ minHeight: 56 }}>
        {c.nextPlace === null
          ? t('count.next', { unit: sampling.unit })
          : t('count.nextPlace', { unit: sampling.unit, place: c.nextPlace })}
      </Button>
      {left.length > 0 && at === last ? (
        <Line>
          <Small>{t('along.offer', { unit: sampling.unit })}</Small>
          {left.map(({ row: other }) => (
            <TextButton
              key={other.watch.id}
              onPress={() => c.setAlong(other.watch.id, { from: at, units: [{}], isOver: false })}
              aria-label={t('along.addOne', { name: other.organismName })}
            >
              {other.organismName}
            </TextButton>
          ))}
        </Line>
      ) : null}
      <EnemiesPart
        enemies={c.enemies}
        onChange={setEnemies}
        prey={sampling.measure === 'density' && sampling.scale === 'classes' ? found : null}
      />
      {/* What was tallied is held, so one may go away and come back. */}
      <Link to={`/sites/${site.id}/scouting?panel=flags&new=${p.block.id}`}>{t('count.flag')}</Link>
      <Keys>{t('count.keys')}</Keys>
    </Stack>
  )
}
