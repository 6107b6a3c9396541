/** Counts and lists as one writes them: the one place that knows how English does it. */

const plural = new Intl.PluralRules('en')
const numbers = new Intl.NumberFormat('en')
const all = new Intl.ListFormat('en-GB', { type: 'conjunction' })
const either = new Intl.ListFormat('en-GB', { type: 'disjunction' })

/** A large number is easier to read in groups of three. */
export const numberWords = (count: number): string => numbers.format(count)

/** The noun that goes with a number: “person” or “people”. */
export const nounFor = (count: number, one: string, many: string): string =>
  plural.select(count) === 'one' ? one : many

/** “1 person”, “1,200 people”. */
export const counted = (count: number, one: string, many: string): string =>
  `${numberWords(count)} ${nounFor(count, one, many)}`

export const peopleWords = (count: number): string => counted(count, 'person', 'people')
export const placesWords = (count: number): string => counted(count, 'place', 'places')

/** “A, B and C”; of more than `atMost`, “A, B, C and 2 more”. */
export const listed = (words: readonly string[], atMost = Infinity): string =>
  all.format(
    words.length <= atMost
      ? words
      : [...words.slice(0, atMost), `${numberWords(words.length - atMost)} more`],
  )

/** “A, B or C”. */
export const listedOr = (words: readonly string[]): string => either.format(words)
