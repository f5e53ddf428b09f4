import type { Alert } from '@bocado/contract'
import { expect, test } from 'vitest'
import type { Format } from '../design/useFormat.js'
import type { Say } from '../messages/useText.js'
import { alertSays } from './alertWords.js'

const f = { date: (day: string) => day, percent: (share: number) => `${share * 100} %`, moment: (at: string) => at } as unknown as Format
const said: Say = ((id: string, values: Record<string, string>) => `${id} ${Object.values(values).join('|')}`) as unknown as Say
const says = (kind: Alert['kind'], of: Alert['says']): string =>
  alertSays(
    { id: 'a', kind, about: '2026-06-12', urgent: false, says: of, watchId: null, madeAt: '2026-06-12T14:30:00Z', seen: false },
    said,
    f,
  )

test('an alert says its day; a late bloom the day by which it was expected, and hours their run or that there is none', () => {
  expect(says('opens', { name: 'Codling moth', place: 'Old Apples' })).toContain('Codling moth|Old Apples||')
  expect(says('opens', {})).toContain('2026-06-12')
  expect(says('bloom', { late: '2026-06-07' })).toContain('2026-06-07')
  expect(says('hours', { from: 21, until: 24 })).toContain('21:00–00:00')
  expect(says('hours', { from: -1, until: -1 })).toContain('none')
  expect(says('frost', { share: 0.5 })).toContain('50 %')
})
