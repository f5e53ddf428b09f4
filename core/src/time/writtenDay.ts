import { civilDate, dayNumber } from './civilDays.js'

/** Whether people write the day or the month first where a date is numbers only. */
export type DayOrder = 'dmy' | 'mdy'

/** A day that somebody wrote down, and where in the text it stands. */
export interface WrittenDay {
  /** `YYYY-MM-DD`; where both orders give a day, the one of the order asked for, otherwise day before month. */
  day: string
  /** First character of it, and the character after its last. */
  start: number
  end: number
  /** The day in the other order, where the numbers allow both and no order was given. */
  orElse?: string
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const MONTH =
  '(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\\.?'
const NTH = '(\\d{1,2})(?:st|nd|rd|th)?\\.?'
const YEAR = "(?:,?\\s*(\\d{4})\\b|,?\\s*['’](\\d{2})\\b)"

const FORMS = {
  yearFirst: /(?<![\d.])(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?!\d)/g,
  numbers: /(?<![\d.])(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2})(?!\d)/g,
  dayNamed: new RegExp(`(?<!\\d)${NTH}\\s*(?:of\\s+)?[-\\s]?${MONTH}(?![a-z])[-\\s]?${YEAR}?`, 'gi'),
  monthNamed: new RegExp(`(?<![a-z])${MONTH}\\s*${NTH}(?!\\d|[/.:]\\d)${YEAR}?`, 'gi'),
  short: /(?<![\d.])(\d{1,2})(?:\/(\d{1,2})(?![\d/])|\.(\d{1,2})\.(?!\d))/g,
}

/** The year of two digits: 98 is of the last century. */
const fullYear = (digits: string): number => (digits.length === 4 ? 0 : Number(digits) >= 50 ? 1900 : 2000) + Number(digits)

function civil(year: number, month: number, day: number): string | undefined {
  const two = (n: number): string => String(n).padStart(2, '0')
  const text = `${year}-${two(month)}-${two(day)}`
  try {
    return civilDate(dayNumber(text))
  } catch {
    return undefined
  }
}

interface Reading {
  day: string | undefined
  orElse?: string | undefined
}

function inOrder(a: number, b: number, year: number, order: DayOrder | null): Reading {
  const [dayFirst, monthFirst] = [civil(year, b, a), civil(year, a, b)]
  if (dayFirst === monthFirst || !dayFirst || !monthFirst) return { day: dayFirst ?? monthFirst }
  if (order !== null) return { day: order === 'mdy' ? monthFirst : dayFirst }
  return { day: dayFirst, orElse: monthFirst }
}

/**
 * The first day that a text names, as people write it: `2025-05-03`, `3.5.2025`, `5/3/2025`, `3 May 2025`, `May 3rd, 2025`, and without a
 * year, `6/1` or `3 May`, where one is given. Numbers with points are day before month; with strokes they are in the order given, unless only
 * the other makes a day of the calendar. Undefined where no day is named, or none that exists.
 *
 * @param order null: nobody said which comes first, and `orElse` tells where that matters
 * @param year year of days that are written without one; undefined: such are none
 * @example writtenDay('May 3rd, 2025 lilac').day // '2025-05-03'
 */
export function writtenDay(text: string, order: DayOrder | null = null, year?: number): WrittenDay | undefined {
  const found: (WrittenDay & { form: number })[] = []
  const take = (match: RegExpMatchArray, form: number, { day, orElse }: Reading): void => {
    const start = match.index ?? 0
    if (day) found.push({ day, start, end: start + match[0].trimEnd().length, form, ...(orElse ? { orElse } : {}) })
    // A day that does not exist is not read as something shorter.
    else found.push({ day: '', start, end: start + match[0].length, form })
  }
  const monthOf = (name: string): number => MONTHS.indexOf(name.slice(0, 3).toLowerCase()) + 1
  for (const m of text.matchAll(FORMS.yearFirst)) take(m, 0, { day: civil(Number(m[1]), Number(m[2]), Number(m[3])) })
  for (const m of text.matchAll(FORMS.numbers)) {
    const [a, b, y] = [Number(m[1]), Number(m[3]), fullYear(m[4] as string)]
    take(m, 0, m[2] === '.' ? { day: civil(y, b, a) } : inOrder(a, b, y, order))
  }
  for (const m of text.matchAll(FORMS.dayNamed)) {
    const y = m[3] ?? m[4]
    if (y === undefined && year === undefined) continue
    take(m, 1, { day: civil(y === undefined ? (year as number) : fullYear(y), monthOf(m[2] as string), Number(m[1])) })
  }
  for (const m of text.matchAll(FORMS.monthNamed)) {
    const y = m[3] ?? m[4]
    if (y === undefined && year === undefined) continue
    take(m, 1, { day: civil(y === undefined ? (year as number) : fullYear(y), monthOf(m[1] as string), Number(m[2])) })
  }
  if (year !== undefined)
    for (const m of text.matchAll(FORMS.short)) {
      const [a, b] = [Number(m[1]), Number(m[2] ?? m[3])]
      take(m, 2, m[3] !== undefined ? { day: civil(year, b, a) } : inOrder(a, b, year, order))
    }
  // Of two readings of one place the one with more of a date in it; of two places the one that comes first.
  const chosen = found
    .filter(({ start, end, form }) => !found.some((o) => o.form < form && o.start < end && start < o.end))
    .sort((a, b) => a.start - b.start || a.form - b.form || b.end - a.end)[0]
  if (!chosen || chosen.day === '') return undefined
  const { form: _, ...day } = chosen
  return day
}

/**
 * The order in which a text writes its days: null where no day of it tells, or where its days tell both.
 *
 * @example dayOrderOf(['5/3/2025', '5/17/2025']) // 'mdy'
 */
export function dayOrderOf(lines: readonly string[]): DayOrder | null {
  const orders = new Set<DayOrder>()
  for (const line of lines)
    for (const m of line.matchAll(/(?<![\d.])(\d{1,2})[-/](\d{1,2})(?:[-/](?:\d{4}|\d{2}))?(?![\d/])/g)) {
      const [a, b] = [Number(m[1]), Number(m[2])]
      if (a > 12 && b >= 1 && b <= 12 && a <= 31) orders.add('dmy')
      if (b > 12 && a >= 1 && a <= 12 && b <= 31) orders.add('mdy')
    }
  return orders.size === 1 ? ([...orders][0] as DayOrder) : null
}
