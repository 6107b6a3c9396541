const collator = new Intl.Collator('en')
/** Slower by far: the engine has no short way for it. */
const byNumbers = new Intl.Collator('en', { numeric: true })
const digit = /\d/

/**
 * The order of names and paths: the same on each machine, whatever its language; numbers in names count as numbers, so that
 * Week 10 comes after Week 9. Made once, since it is asked for each pair. Only two names that both have digits are ever
 * ordered otherwise by their numbers, so the one order goes on in the other.
 */
export const compareWords = (a: string, b: string): number =>
  digit.test(a) && digit.test(b) ? byNumbers.compare(a, b) || collator.compare(a, b) : collator.compare(a, b)
