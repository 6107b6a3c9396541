import { fold } from '../base/fold-words.ts'
import { type KindName, type Usage } from './kind.ts'
import { kindOf } from './kinds/all.ts'
import { isLink } from './kinds/link.ts'
import { marks } from './kinds/state.ts'
import { optionsAtMost } from './options.ts'
import { namesIn } from './words.ts'

/** What a column of a table from elsewhere holds, and how it is written there. */

export type Written = Pick<Usage, 'decimal' | 'isDayFirst'>

export interface Guess {
  readonly kind: KindName
  readonly settings: unknown
}

/** Of more cells than this some are looked at, from all over the column. */
const looked = 400
/** So many of a hundred have to be read: some are always faulty. */
const enough = 0.9

const filledIn = (texts: readonly string[]): string[] =>
  texts.map(text => text.trim()).filter(text => text !== '')

function sampleOf(filled: readonly string[]): string[] {
  const step = Math.max(1, filled.length / looked)
  return Array.from(
    { length: Math.min(filled.length, looked) },
    (_, nth) => filled[Math.floor(nth * step)] ?? '',
  )
}

/**
 * Whether decimals stand behind a comma and days before months, by the cells that can be read in one way only. Where none
 * says so, it is as usual.
 */
export function writtenAs(texts: readonly string[], usual: Written): Written {
  const count = (is: (text: string) => boolean) => texts.filter(is).length
  const figures = (text: string) => text.replaceAll(/[\s\u00a0\u202f'’]/gu, '')
  const comma = count(text => withComma.some(form => form.test(figures(text))))
  const point = count(text => withPoint.some(form => form.test(figures(text))))
  const dayFirst = count(text => partOfDay(text, 1) > 12)
  const monthFirst = count(text => partOfDay(text, 2) > 12)
  return {
    decimal: point === comma ? usual.decimal : comma > point ? ',' : '.',
    isDayFirst: dayFirst === monthFirst ? usual.isDayFirst : dayFirst > monthFirst,
  }
}

const withComma = [/^\D*\d{1,3}(\.\d{3})+,\d/, /^\D*\d+,(\d{1,2}|\d{4,})\D*$/]
const withPoint = [/^\D*\d{1,3}(,\d{3})+\.\d/, /^\D*\d+\.(\d{1,2}|\d{4,})\D*$/]

const partOfDay = (text: string, nth: 1 | 2): number =>
  Number(/^\s*(\d{1,2})[-/](\d{1,2})[-/]\d{2,4}\b/.exec(text)?.[nth] ?? 0)

/** By what nearly all of its filled cells are; a text where they are nothing else. */
export function guessedKind(texts: readonly string[], usage: Usage): Guess {
  const filled = filledIn(texts)
  const sample = sampleOf(filled)
  const plain: Guess = { kind: 'text', settings: {} }
  if (sample.length === 0) return plain
  const guess =
    plainGuesses.find(each => isRead(sample, each, usage)) ??
    peopleIn(sample, usage) ??
    numberIn(sample, usage)
  if (guess !== undefined) return guess
  if (sample.some(text => text.includes('\n') || text.length > 200))
    return { kind: 'long text', settings: {} }
  return statesIn(filled) ?? tagsIn(filled) ?? plain
}

/** Each before those that would read its words, too. */
const plainGuesses: readonly Guess[] = [
  { kind: 'date', settings: { withTime: false } },
  { kind: 'date', settings: { withTime: true } },
  { kind: 'period', settings: {} },
  { kind: 'checkbox', settings: {} },
  { kind: 'link', settings: {} },
]

function isRead(sample: readonly string[], { kind, settings }: Guess, usage: Usage): boolean {
  const { parse } = kindOf({ kind })
  const isOfIt = (text: string) => {
    // What is a number is a number, whatever else it could be read as.
    if (/^[\d.,\s]+$/.test(text) && kind !== 'date') return false
    if (kind === 'link' && !isLink(text) && !/^(www\.|[^\s@]+@)/i.test(text)) return false
    return parse(text, settings, usage).ok
  }
  return sample.filter(isOfIt).length >= sample.length * enough
}

function peopleIn(sample: readonly string[], usage: Usage): Guess | undefined {
  const settings = { isSeveral: true }
  if (!isRead(sample, { kind: 'person', settings }, usage)) return undefined
  return { kind: 'person', settings: { isSeveral: sample.some(text => usage.personOf(text) === undefined) } }
}

function numberIn(sample: readonly string[], usage: Usage): Guess | undefined {
  const unit = unitIn(sample)
  for (let places = 0; places <= 6; places += 1) {
    const settings = { places, unit, foot: 'sum' }
    const { parse } = kindOf({ kind: 'number' })
    if (sample.filter(text => parse(text, settings, usage).ok).length >= sample.length * enough)
      return {
        kind: 'number',
        settings: { ...settings, places: placesIn(sample, { ...settings, places }, usage) },
      }
  }
  return undefined
}

/** As many as any number is written with: what nearly all need would leave the others faulty. */
function placesIn(
  sample: readonly string[],
  settings: object & { readonly places: number },
  usage: Usage,
): number {
  const { parse } = kindOf({ kind: 'number' })
  const read = (places: number) => sample.filter(text => parse(text, { ...settings, places }, usage).ok)
  const most = read(6)
  const decimals = usage.decimal === ',' ? /,(\d+)\D*$/ : /\.(\d+)\D*$/
  let places = Math.max(settings.places, ...most.map(text => decimals.exec(text)?.[1]?.length ?? 0))
  while (places < 6 && read(places).length < most.length) places += 1
  return Math.min(6, places)
}

/** What stands behind, or before, most of the numbers. */
function unitIn(sample: readonly string[]): string {
  const counts = new Map<string, number>()
  for (const text of sample) {
    const match = /^(?:(\p{Sc}|\p{Lu}{3})\s*)?[-+]?[\d.,'’\u00a0\u202f ]*\d\s*([^\d.,]{0,10})$/u.exec(text)
    const unit = (match?.[1] ?? match?.[2] ?? '').trim()
    if (unit !== '') counts.set(unit, (counts.get(unit) ?? 0) + 1)
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1])
  return most !== undefined && most[1] >= sample.length / 2 ? most[0] : ''
}

const shortAtMost = 40

/** A few short words that come again and again. */
function statesIn(filled: readonly string[]): Guess | undefined {
  const names = distinct(filled)
  const areStates = names.length <= 12 && names.length * 3 <= filled.length && !names.some(isNoName)
  return areStates ? { kind: 'state', settings: { states: statesFrom(names) } } : undefined
}

const statesFrom = (names: readonly string[]) =>
  names.map((name, index) => ({
    id: `s${index + 1}`,
    name,
    mark: marks[index % marks.length],
    isFinished: false,
  }))

function tagsIn(filled: readonly string[]): Guess | undefined {
  const all = filled.flatMap(namesIn)
  const names = distinct(all)
  const areTags =
    filled.some(text => namesIn(text).length > 1) &&
    names.length <= 40 &&
    names.length * 3 <= all.length &&
    !names.some(isNoName)
  return areTags ? { kind: 'tags', settings: { tags: tagsFrom(names) } } : undefined
}

const tagsFrom = (names: readonly string[]) => names.map((name, index) => ({ id: `t${index + 1}`, name }))

/** What a column of a kind that somebody chose begins with, so that most of what is to come in it can be read. */
export function settingsFor(kind: KindName, texts: readonly string[], usage: Usage): unknown {
  const filled = filledIn(texts)
  const sample = sampleOf(filled)
  switch (kind) {
    case 'state':
      return { states: statesFrom(fitNames(filled)) }
    case 'tags':
      return { tags: tagsFrom(fitNames(filled.flatMap(namesIn))) }
    case 'number':
      return (
        numberIn(
          sample.filter(text => /\d/.test(text)),
          usage,
        )?.settings ?? kindOf({ kind }).settings.plain
      )
    case 'person':
      return { isSeveral: sample.some(text => namesIn(text).length > 1) }
    case 'date':
      return {
        withTime: sample.some(text => /\d[ T]\d{1,2}:\d{2}/.test(text) && !/[ T]0?0:00(:00)?$/.test(text)),
      }
    default:
      return kindOf({ kind }).settings.plain
  }
}

const fitNames = (names: readonly string[]): string[] =>
  distinct(names)
    .filter(name => !isNoName(name))
    .slice(0, optionsAtMost)

const isNoName = (name: string): boolean => name.length > shortAtMost || /[,;\p{Cc}]/u.test(name)

function distinct(names: readonly string[]): string[] {
  const found = new Map<string, string>()
  for (const name of names) if (!found.has(fold(name))) found.set(fold(name), name)
  return [...found.values()]
}
