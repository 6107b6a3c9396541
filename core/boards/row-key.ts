import { fold } from '../base/fold-words.ts'
import type { ColumnForm, Held, KindName, Usage } from './kind.ts'
import { number, type NumberSettings } from './kinds/number.ts'
import type { SerialSettings } from './kinds/serial-number.ts'

/** By what a row of a table from elsewhere is found on a board again: its name, a text, a number. */

export const keyKinds: ReadonlySet<KindName> = new Set(['text', 'link', 'number', 'serial number'])

/** As it is held. Texts are alike whatever their letters. */
export const keyOf = (held: Held): Held => (typeof held === 'string' ? fold(held.trim()) : held)

export const keyOfText = (text: string): string | undefined => fold(text.trim()) || undefined

/** What a cell of a table says as a key; nothing where it is empty, or is none. */
export function keyFrom(
  text: string,
  { kind, settings }: Pick<ColumnForm, 'kind' | 'settings'>,
  usage: Usage,
): string | number | undefined {
  const written = text.trim()
  if (written === '') return undefined
  switch (kind) {
    case 'number': {
      const read = number.parse(written, settings as NumberSettings, usage)
      return read.ok && typeof read.value === 'number' ? read.value : undefined
    }
    case 'serial number': {
      const { prefix } = settings as SerialSettings
      const digits = written.startsWith(prefix) ? written.slice(prefix.length).trim() : written
      return /^\d{1,15}$/.test(digits) ? Number(digits) : undefined
    }
    default:
      return keyOfText(written)
  }
}
