/**
 * Words as they are compared when something is looked for: without accents, large and small letters alike, also where
 * a letter is written as two.
 */

const doubled: Readonly<Record<string, string>> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
}
const accents = /[\u0300-\u036f]/g
const others = /[ßæœøłđðþ]/g
const wordsIn = /[\p{L}\p{N}\p{Co}]+/gu

const plain = /^[\0-\x7f]*$/

export const fold = (text: string): string =>
  plain.test(text)
    ? text.toLowerCase()
    : text
        .normalize('NFKD')
        .replaceAll(accents, '')
        .toLowerCase()
        .replaceAll(others, letter => doubled[letter] ?? letter)

/** Runs of letters and figures, folded; what stands between them is not looked for. */
export const foldedWords = (text: string): string[] => fold(text).match(wordsIn) ?? []

const endsInWord = /[\p{L}\p{N}\p{Co}]$/u

/** Whether a word of a folded text begins with a folded word: without taking the text apart. */
export function beginsIn(folded: string, word: string): boolean {
  for (let at = folded.indexOf(word); at !== -1; at = folded.indexOf(word, at + 1))
    if (!endsInWord.test(folded.slice(Math.max(0, at - 2), at))) return true
  return false
}

/** Where in a text, as it is written, words begin with one of some folded ones: first and behind, in order. */
export function placesOf(text: string, words: readonly string[]): (readonly [number, number])[] {
  const places: (readonly [number, number])[] = []
  for (const { 0: written, index } of text.matchAll(/[\p{L}\p{N}\p{Co}\p{M}]+/gu)) {
    const folded = fold(written)
    const found = words.filter(word => folded.startsWith(word)).toSorted((a, b) => b.length - a.length)[0]
    if (found !== undefined) places.push([index, index + lengthOf(written, found.length)])
  }
  return places
}

/** How much of a word is what begins so many letters long when it is folded. */
function lengthOf(written: string, folded: number): number {
  let length = 0
  while (length < written.length && fold(written.slice(0, length)).length < folded) length += 1
  return length
}
