import { isSameName } from './words.ts'

/** What a column lets one choose from: its own states, or its own tags. */
export interface Option {
  readonly id: string
  readonly name: string
}

/** So many one column has. */
export const optionsAtMost = 200
const nameLength = 100

/** Names are read apart by commas and semicolons, and found whatever their letters. */
export function wrongOptions(options: unknown): string | undefined {
  if (!Array.isArray(options)) return 'The names are missing.'
  if (options.length > optionsAtMost) return `There can be ${optionsAtMost} at most.`
  const wrong = options.map(wrongOption).find(each => each !== undefined)
  if (wrong !== undefined) return wrong
  const all = options as readonly Option[]
  const twice = all.find((each, index) =>
    all.slice(0, index).some(other => isSameName(other.name, each.name)),
  )
  if (twice !== undefined) return `There is more than one ${twice.name}.`
  return new Set(all.map(each => each.id)).size === all.length ? undefined : 'Two of them have the same id.'
}

function wrongOption(option: unknown): string | undefined {
  const { id, name } = Object(option) as { readonly id?: unknown; readonly name?: unknown }
  if (typeof id !== 'string' || !/^[\w-]{1,40}$/.test(id)) return 'One of them has no id.'
  if (typeof name !== 'string' || name.trim() !== name || name === '' || name.length > nameLength)
    return `Each has a name of ${nameLength} characters at most.`
  return /[,;\p{Cc}]/u.test(name) ? `The name ${name} holds a comma, a semicolon or a line break.` : undefined
}

export const optionNamed = <O extends Option>(options: readonly O[], name: string): O | undefined =>
  options.find(each => isSameName(each.name, name))

/** One that is no option any more stands behind all others. */
export const placeIn = (options: readonly Option[], id: string | undefined): number => {
  const place = options.findIndex(each => each.id === id)
  return place === -1 ? (id === undefined ? options.length + 1 : options.length) : place
}
