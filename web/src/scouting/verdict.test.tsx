// @vitest-environment happy-dom
import type { Organism, Site } from '@bocado/contract'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { IntlProvider } from 'react-intl'
import { afterEach, describe, expect, test, vi } from 'vitest'
import { makeQueryClient } from '../api/hooks.js'
import { SiteProvider } from '../api/workplace.js'
import { planOf } from '../band/countingPlan.js'
import { en } from '../messages/en.js'
import '../messages/en/work.js'
import { Verdict } from './Verdict.js'

let ended = 0
/** A thread that never answers. */
class Busy extends EventTarget {
  postMessage(): void {
    return
  }
  terminate(): void {
    ended++
  }
}
vi.stubGlobal('Worker', Busy)
afterEach(cleanup)

const FRUIT = {
  measure: 'incidence',
  unit: 'tree',
  units: 'trees',
  items: 'fruit',
  itemsPerUnit: 20,
  suggestedUnits: 24,
  classes: [
    { id: 'fresh', weight: 1 },
    { id: 'old', weight: 0 },
  ],
} as unknown as Organism['sampling']
const SITE = { units: 'metric', timeZone: 'America/Los_Angeles', season: { start: '2026-01-01' }, today: '2026-06-12' } as Site
const THRESHOLD = { per100: 2, from: 'library' } as const

const shown = (found: readonly number[], places: number | null = null) => {
  render(
    <IntlProvider locale="en-GB" messages={en}>
      <QueryClientProvider client={makeQueryClient()}>
        <SiteProvider value={SITE}>
          <Verdict plan={planOf(THRESHOLD, FRUIT)!} found={found} places={places} threshold={THRESHOLD} sampling={FRUIT} />
        </SiteProvider>
      </QueryClientProvider>
    </IntlProvider>,
  )
  return screen.getByTestId('verdict').textContent
}
const trees = (many: number, each: number): number[] => Array.from({ length: many }, () => each)

describe('what a count says', () => {
  test('is nothing before ten units, however much was found', () => {
    expect(shown(trees(9, 8))).toMatch(
      /Count on: fewer than 10 trees decide nothing\. Where these are all there are, they are no sample: it is over the threshold of 2/,
    )
  })
  test('is to act, or that it is enough, once a line is left', () => {
    expect(shown(trees(10, 2))).toContain('Act: 20 on 10 trees is over the line. This holds where the trees were chosen in at least five')
    cleanup()
    expect(shown(trees(22, 0))).toContain('Enough counted: 0 on 22 trees is under the line')
  })
  test('is to count on between the lines, then neither, leaning to one', () => {
    expect(shown([...trees(10, 0), ...trees(10, 0), 3])).toContain('Count on: 3 on 21 trees lies between the lines.')
    cleanup()
    expect(shown([...trees(40, 0), ...trees(8, 2)])).toContain('Undecided after 48 trees, leaning to acting.')
  })
  test('is drawn with the same words, and says when asked what it rests on', async () => {
    shown(trees(10, 2))
    expect((await screen.findByRole('img')).getAttribute('aria-label')).toContain('Act: 20 on 10 trees')
    fireEvent.click(screen.getByRole('button', { name: 'Why these lines' }))
    expect(screen.getByText(/50 % of it is taken as safe.*22 trees are enough.*after 48/).textContent).toContain('is assumed, it was not')
    // Counts are simulated as long as somebody looks at it, and no longer.
    await screen.findByText('Simulating counts.')
    fireEvent.click(screen.getByRole('button', { name: 'Why these lines' }))
    expect(ended).toBe(1)
  })
})

test('where classes weigh differently, or nothing is known, there are no lines', () => {
  const classes = [{ id: 'small', weight: 0.375 }] as Organism['sampling']['classes']
  expect(planOf(THRESHOLD, { ...FRUIT, classes })).toBeNull()
  expect(planOf(null, FRUIT)).toBeNull()
})
