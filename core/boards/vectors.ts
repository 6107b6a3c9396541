import { type Held, type HeldForm, type HeldForms, nothingIn } from './kind.ts'

/**
 * One column's cells, by the slot of their row. A vector is never changed: one with some other cells is a copy, 8 bytes a
 * row or 4; lists are held once each, since few differ.
 */
export type Vector =
  | { readonly form: 'number'; readonly numbers: Float64Array }
  | { readonly form: 'span'; readonly from: Float64Array; readonly through: Float64Array }
  | { readonly form: 'text'; readonly texts: readonly string[] }
  | Lists

export type VectorOf<F extends HeldForm> = Vector & { readonly form: F }

export interface Lists {
  readonly form: 'list'
  readonly codes: Int32Array
  /** By code; the first is the empty one. Vectors that come of this one have them too, and add to them. */
  readonly lists: (readonly string[])[]
  /** Each list's code, by its members with a line break between them. */
  readonly codeOf: Map<string, number>
}

export function emptyVector<F extends HeldForm>(form: F, size: number): VectorOf<F> {
  return emptyOf(form, size) as VectorOf<F>
}

function emptyOf(form: HeldForm, size: number): Vector {
  switch (form) {
    case 'number':
      return { form, numbers: new Float64Array(size).fill(Number.NaN) }
    case 'span':
      return {
        form,
        from: new Float64Array(size).fill(Number.NaN),
        through: new Float64Array(size).fill(Number.NaN),
      }
    case 'text':
      return { form, texts: Array<string>(size).fill('') }
    case 'list':
      return { form, codes: new Int32Array(size), lists: [[]], codeOf: new Map([['', 0]]) }
  }
}

/** A copy for so many slots, to be filled before anybody is handed it. */
export function copyOf<V extends Vector>(vector: V, size: number): V {
  return copied(vector, size) as V
}

function copied(vector: Vector, size: number): Vector {
  switch (vector.form) {
    case 'number':
      return { form: 'number', numbers: longer(vector.numbers, size) }
    case 'span':
      return { form: 'span', from: longer(vector.from, size), through: longer(vector.through, size) }
    case 'text': {
      const texts = vector.texts.slice()
      while (texts.length < size) texts.push('')
      return { form: 'text', texts }
    }
    case 'list': {
      const codes = new Int32Array(size)
      codes.set(vector.codes)
      return { form: 'list', codes, lists: vector.lists, codeOf: vector.codeOf }
    }
  }
}

/** The first so many slots. */
export function cutTo<V extends Vector>(vector: V, size: number): V {
  return cut(vector, size) as V
}

function cut(vector: Vector, size: number): Vector {
  switch (vector.form) {
    case 'number':
      return { form: 'number', numbers: vector.numbers.slice(0, size) }
    case 'span':
      return { form: 'span', from: vector.from.slice(0, size), through: vector.through.slice(0, size) }
    case 'text':
      return { form: 'text', texts: vector.texts.slice(0, size) }
    case 'list':
      return { ...vector, codes: vector.codes.slice(0, size) }
  }
}

/** Writes into a copy of one's own. */
export function setHeld(own: Vector, slot: number, held: Held): void {
  switch (own.form) {
    case 'number':
      own.numbers[slot] = held as number
      return
    case 'span':
      ;[own.from[slot], own.through[slot]] = held as HeldForms['span']
      return
    case 'text':
      ;(own.texts as string[])[slot] = held as string
      return
    case 'list': {
      const { codes, lists, codeOf } = own
      const list = held as HeldForms['list']
      const key = list.length === 1 ? (list[0] as string) : list.join('\n')
      let code = codeOf.get(key)
      if (code === undefined) {
        code = lists.push(list) - 1
        codeOf.set(key, code)
      }
      codes[slot] = code
    }
  }
}

function longer(numbers: Float64Array, size: number): Float64Array<ArrayBuffer> {
  const copy = new Float64Array(size)
  copy.set(numbers)
  copy.fill(Number.NaN, numbers.length)
  return copy
}

export function sizeOf(vector: Vector): number {
  switch (vector.form) {
    case 'number':
      return vector.numbers.length
    case 'span':
      return vector.from.length
    case 'text':
      return vector.texts.length
    case 'list':
      return vector.codes.length
  }
}

export function heldAt(vector: Vector, slot: number): Held {
  switch (vector.form) {
    case 'number':
      return vector.numbers[slot] ?? Number.NaN
    case 'span':
      return [vector.from[slot] ?? Number.NaN, vector.through[slot] ?? Number.NaN]
    case 'text':
      return vector.texts[slot] ?? ''
    case 'list':
      return vector.lists[vector.codes[slot] ?? 0] ?? nothingIn('list')
  }
}
