import { fold } from '../base/fold-words.ts'

/** A text as it is ordered: large and small letters and accents alike, numbers by what they count. Code units compare it. */
export const orderedText = (text: string): string =>
  fold(text).replaceAll(/\d+/g, digits => digits.replace(/^0+(?=\d)/, '').padStart(12, '0'))

/** Several names in one text; those that hold a comma or a semicolon are found where they are the whole of it. */
export const namesIn = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map(each => each.trim())
    .filter(each => each !== '')

export const isSameName = (a: string, b: string): boolean => fold(a.trim()) === fold(b.trim())

/** Each once, in the order in which they come. */
export const eachOnce = (list: readonly string[]): string[] => [...new Set(list)]
