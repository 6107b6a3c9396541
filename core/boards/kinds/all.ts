import type { ColumnForm, ColumnKind, KindName } from '../kind.ts'
import { checkbox } from './checkbox.ts'
import { date } from './date.ts'
import { file } from './file.ts'
import { link } from './link.ts'
import { longText } from './long-text.ts'
import { created, updated } from './made.ts'
import { number } from './number.ts'
import { period } from './period.ts'
import { person } from './person.ts'
import { place } from './place.ts'
import { serialNumber } from './serial-number.ts'
import { state } from './state.ts'
import { tags } from './tags.ts'
import { text } from './text.ts'

/** Every kind of column. A new one is a file and a line here. */
export const columnKinds = {
  text,
  'long text': longText,
  number,
  'serial number': serialNumber,
  state,
  tags,
  person,
  date,
  period,
  checkbox,
  link,
  place,
  file,
  created,
  updated,
} as const satisfies Readonly<Record<KindName, unknown>>

/** The kind of a column, for whoever takes each as it comes: its settings and its held form are its own. */
export const kindOf = ({ kind }: Pick<ColumnForm, 'kind'>): ColumnKind =>
  columnKinds[kind] as unknown as ColumnKind
