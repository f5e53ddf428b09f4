import ICAL from 'ical.js'
import { expect, test } from 'vitest'
import { calendarFile } from './calendarFile.js'

test('another program reads each entry as it was meant, long lines, marks and letters included', () => {
  const text = `${'Every second tree along the eastern edge, then across; '.repeat(4)}\nlast 5 Jun – “nothing found”`
  const entries = [
    { id: 'count 1', day: '2026-12-31', title: 'Count codling moth, fresh entries; 24 trees', place: 'Old Apples', text },
    { id: 'flags 2', day: '2026-06-12', title: 'Look at 3 flags: #4, #7, #9', place: 'Creek Margin', text: 'due since 1 Jun' },
  ]
  const file = calendarFile(entries, 'Hollin Bench, walks', new Date('2026-06-12T14:30:00Z'))
  for (const line of file.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
  const calendar = new ICAL.Component(ICAL.parse(file) as unknown[])
  const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))
  expect(events.map(({ summary, location, description }) => [summary, location, description])).toEqual(
    entries.map(({ title, place, text: said }) => [title, place, said]),
  )
  expect(events.map(({ startDate, endDate }) => [startDate.toString(), endDate.toString()])).toEqual([
    ['2026-12-31', '2027-01-01'],
    ['2026-06-12', '2026-06-13'],
  ])
  expect(new Set(events.map(({ uid }) => uid)).size).toBe(2)
})
