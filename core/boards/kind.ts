import type { Result } from '../base/result.ts'
import type { VectorOf } from './vectors.ts'

/**
 * A kind of column: one file each in kinds/, all of one shape. What a cell holds has three forms. As it is *stored* and goes
 * over the wire it is JSON (`CellValue`); as a board *holds* it, to go through many at once, it is a number, two, a text
 * or a list (`Held`); as it is *read and typed* it is words. For each kind `parse` takes `words` back to the same value, and
 * `hold` and `stored` take each other back.
 */

/** What a cell holds, as it is stored: JSON in the form of its column's kind; `null` for nothing. */
export type CellValue = string | number | true | readonly string[] | null
export type Filled = Exclude<CellValue, null>

/** As it is held. Nothing is NaN, an empty text or an empty list. */
export interface HeldForms {
  readonly number: number
  /** From and through. */
  readonly span: readonly [number, number]
  readonly text: string
  readonly list: readonly string[]
}
export type HeldForm = keyof HeldForms
export type Held = HeldForms[HeldForm]

export const kindNames = [
  'text',
  'long text',
  'number',
  'serial number',
  'state',
  'tags',
  'person',
  'date',
  'period',
  'checkbox',
  'link',
  'place',
  'file',
  'created',
  'updated',
] as const
export type KindName = (typeof kindNames)[number]

/** How words are read, and written: as it is usual for whoever types or reads them. */
export interface Usage {
  readonly decimal: '.' | ','
  /** Whether a day stands before its month, where both are numbers. */
  readonly isDayFirst: boolean
  /** Days since 1970. */
  readonly today: number
  /** What a clock shows at an instant, as if it were UTC; and the instant at which it shows that first. */
  readonly localOf: (instant: number) => number
  readonly instantOf: (local: number) => number
  readonly personOf: (name: string) => string | undefined
  readonly placeOf: (name: string) => string | undefined
  /** The name of what one may know; `undefined` for anything else. */
  readonly nameOf: (id: string) => string | undefined
}

/** Who asks for rows, and when: what conditions are held against. */
export interface Asking {
  readonly me: string
  /** Days since 1970. */
  readonly today: number
  /** The instant at which a day begins. */
  readonly startOf: (day: number) => number
  readonly membersOf: (team: string) => ReadonlySet<string>
}

/** What a condition takes besides its word: as many texts as it says. */
export const argumentForms = [
  'nothing',
  'text',
  'number',
  'two numbers',
  'options',
  'people',
  'team',
  'places',
  'day',
  'two days',
  'count',
] as const
export type ArgumentForm = (typeof argumentForms)[number]

export interface FilterWord<H extends Held = Held, S = unknown> {
  readonly word: string
  readonly takes: ArgumentForm
  /** `by` is who made a row, or wrote it last, where that is what the column tells. */
  readonly test: (
    given: readonly string[],
    settings: S,
    asking: Asking,
  ) => (held: H, by: string | undefined) => boolean
}

/** All that a foot can tell of a column; what does not fit its kind is not there. */
export interface Totals {
  readonly filled: number
  readonly sum?: number
  readonly mean?: number
  readonly least?: number
  readonly greatest?: number
  /** How many people or places they name. */
  readonly different?: number
  /** How many cells have each option. */
  readonly options?: readonly (readonly [id: string, count: number])[]
}

export interface ColumnKind<F extends HeldForm = HeldForm, S = unknown> {
  readonly kind: KindName
  /** Of the stored form: a new one is a new number, and reads those before it. */
  readonly version: number
  /** Whether people write it: some are told by the board itself. */
  readonly isWritten: boolean
  readonly form: F
  readonly settings: {
    /** What a column of this kind begins with. */
    readonly plain: S
    /** Why some are none of this kind's; `undefined` where they are. */
    readonly wrong: (settings: unknown) => string | undefined
  }
  /** What somebody typed or pasted. A refusal is a sentence. */
  readonly parse: (text: string, settings: S, usage: Usage) => Result<CellValue, string>
  readonly words: (value: Filled, settings: S, usage: Usage) => string
  /** Whether something is a value in the stored form. */
  readonly fits: (value: unknown, settings: S) => value is Filled
  readonly hold: (value: Filled, settings: S) => HeldForms[F]
  readonly stored: (held: HeldForms[F], settings: S) => CellValue
  /** By what rows are ordered: all of one column are numbers, or all are texts that compare by their code units. */
  readonly orderOf: (held: HeldForms[F], settings: S, nameOf: Usage['nameOf']) => number | string
  readonly filters: readonly FilterWord<HeldForms[F], S>[]
  /** Of the cells of some slots. Costs a look at each. */
  readonly totals: (vector: VectorOf<F>, slots: Int32Array, settings: S) => Totals
  /** By what rows can be grouped; not there where each would be alone. */
  readonly groupOf?: (held: HeldForms[F], settings: S) => string
}

/** A column as what is written in it is read by. */
export interface ColumnForm {
  readonly id: string
  readonly kind: KindName
  readonly settings: unknown
}

const emptyForms: HeldForms = { number: Number.NaN, span: [Number.NaN, Number.NaN], text: '', list: [] }

export const nothingIn = <F extends HeldForm>(form: F): HeldForms[F] => emptyForms[form]

export const isNothing = (held: Held): boolean =>
  typeof held === 'number'
    ? Number.isNaN(held)
    : typeof held === 'string'
      ? held === ''
      : held.length === 0 || Number.isNaN(held[0])

/** `is empty` is said of every kind that can be. */
export const isEmptyWord = {
  word: 'is empty',
  takes: 'nothing',
  test: () => isNothing,
} as const satisfies FilterWord
export const isFilledWord = {
  word: 'is filled',
  takes: 'nothing',
  test: () => (held: Held) => !isNothing(held),
} as const satisfies FilterWord
