/** How days are written in a reader's form, and read from it. Days are YYYY-MM-DD everywhere else. */
export interface DayForm {
  /** The form with letters: “dd/mm/yyyy”. */
  readonly pattern: string
  readonly write: (day: string) => string
  /** `undefined` for what is no day. The plain form, YYYY-MM-DD, is read as well. */
  readonly read: (text: string) => string | undefined
}

type Part = 'd' | 'm' | 'y'

const plain: DayForm = {
  pattern: 'yyyy-mm-dd',
  write: day => day,
  read: text => fromNumbers('ymd', text),
}

/** By how the reader's language writes one day whose parts can be told apart. */
export function dayForm(inNumbers: (at: number) => string): DayForm {
  const sample = inNumbers(Date.UTC(2033, 10, 22))
  const found = (
    [
      ['d', sample.indexOf('22')],
      ['m', sample.indexOf('11')],
      ['y', sample.indexOf('2033')],
    ] as [Part, number][]
  ).sort((a, b) => a[1] - b[1])
  // Other digits than these, or another calendar: the form that everybody can read.
  if (found.some(([, at]) => at === -1)) return plain
  const order = found.map(([part]) => part).join('')
  return {
    pattern: sample.replace('2033', 'yyyy').replace('22', 'dd').replace('11', 'mm'),
    write: day => (day === '' ? '' : inNumbers(Date.parse(`${day}T00:00:00Z`))),
    read: text => plain.read(text) ?? fromNumbers(order, text),
  }
}

function fromNumbers(order: string, text: string): string | undefined {
  const numbers = text.trim().match(/\d+/g) ?? []
  if (numbers.length !== 3 || /[^\d\s./-]/.test(text.trim())) return undefined
  const of = (part: Part) => numbers[order.indexOf(part)] ?? ''
  const year = of('y')
  if (year.length !== 2 && year.length !== 4) return undefined
  const day = `${year.padStart(4, '20')}-${of('m').padStart(2, '0')}-${of('d').padStart(2, '0')}`
  return isDay(day) ? day : undefined
}

/** There is no 31 February: a day that the calendar moves on is none. */
function isDay(day: string): boolean {
  const at = Date.parse(`${day}T00:00:00Z`)
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(day)
}
