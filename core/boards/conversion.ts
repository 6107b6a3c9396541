import { type CellValue, type ColumnForm, type Filled, type Usage } from './kind.ts'
import { instantFrom } from './kinds/date.ts'
import { kindOf } from './kinds/all.ts'
import { dayLength, writtenDay } from './days.ts'

type Form = Pick<ColumnForm, 'kind' | 'settings'>

/** Whether cells of two forms of a column are written alike: what only differs in names or units is the same form. */
export const isWrittenAlike = (a: Form, b: Form): boolean => formKey(a) === formKey(b)

/** Of what form a column's cells are held: of another one they have to be read anew. */
export function formKey({ kind, settings }: Form): string {
  const { withTime } = Object(settings) as { readonly withTime?: unknown }
  return withTime === true ? `${kind} with time` : kind
}

/**
 * What a value written in one form of a column is in another: what the other reads in its words. `null` for what comes to
 * nothing, also where the form is the same and what it names is no option any more.
 */
export function converted(value: CellValue, { from, to }: Forms, usage: Usage): CellValue {
  if (value === null) return null
  const [source, target] = [kindOf(from), kindOf(to)]
  if (isWrittenAlike(from, to)) return kept(value, to)
  if (!source.fits(value, from.settings)) return null
  if (from.kind === 'date' && to.kind === 'date') return otherDate(value, usage)
  if (from.kind === 'period' && to.kind === 'date')
    return converted((value as readonly string[])[0] ?? null, { from: plainDate, to }, usage)
  const words = source.words(value, from.settings, usage)
  const read = target.parse(to.kind === 'text' ? words.slice(0, 2000) : words, to.settings, usage)
  return read.ok ? read.value : null
}

interface Forms {
  readonly from: Form
  readonly to: Form
}

const plainDate: Form = { kind: 'date', settings: { withTime: false } }

/** The same form: what fits stays; of a list that does not, what does. */
function kept(value: Filled, to: Form): CellValue {
  const { fits } = kindOf(to)
  if (fits(value, to.settings)) return value
  if (!Array.isArray(value)) return null
  const some = (value as readonly string[]).filter(each => fits([each], to.settings))
  return fits(some, to.settings) ? some : null
}

/** With a time it is the beginning of the day, without one the day. */
const otherDate = (value: Filled, usage: Usage): CellValue =>
  typeof value === 'number'
    ? writtenDay(Math.floor(usage.localOf(value) / dayLength))
    : (instantFrom(String(value), usage) ?? null)
