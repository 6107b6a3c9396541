import { ok, refused, type Result } from '../../base/result.ts'
import type { CellValue, Filled, Usage } from '../kind.ts'
import { countDifferent } from '../tallies.ts'
import { eachOnce, namesIn, orderedText } from '../words.ts'

/** What kinds have in common that name people, places or files by their ids: they are read and ordered by names that hang on who reads. */
export const idLists = {
  version: 1,
  isWritten: true,
  form: 'list',
  hold: (value: Filled): readonly string[] => value as readonly string[],
  stored: (held: readonly string[]): CellValue => (held.length === 0 ? null : held),
  orderOf: (held: readonly string[], _settings: unknown, nameOf: Usage['nameOf']): string =>
    held.length === 0 ? '\uffff' : held.map(id => orderedText(nameOf(id) ?? '\ufffe')).join('\u0001'),
  totals: countDifferent,
} as const

export const wordsOfIds = (value: Filled, nameOf: Usage['nameOf'], between: string): string =>
  (value as readonly string[]).flatMap(id => nameOf(id) ?? []).join(between)

/** Each id once, and no more than so many. */
export const fitsIds = (value: unknown, most: number): boolean =>
  Array.isArray(value) &&
  value.length > 0 &&
  value.length <= most &&
  value.every(each => typeof each === 'string' && /^[\w-]{1,60}$/.test(each)) &&
  new Set(value).size === value.length

/** The ids that a text names, each once: of all of it, or of its parts. The first one that is none is refused. */
export function idsNamed(
  text: string,
  idOf: (name: string) => string | undefined,
  none: string,
): Result<readonly string[], string> {
  const names = text.trim() !== '' && idOf(text) === undefined ? namesIn(text) : [text]
  const ids: string[] = []
  for (const name of text.trim() === '' ? [] : names) {
    const found = idOf(name)
    if (found === undefined) return refused(`“${name.slice(0, 100)}” ${none}`)
    ids.push(found)
  }
  return ok(eachOnce(ids))
}
