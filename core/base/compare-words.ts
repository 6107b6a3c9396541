const collator = new Intl.Collator('en')

/** The order of names and paths: the same on each machine, whatever its language. Made once, since it is asked for each pair. */
export const compareWords = (a: string, b: string): number => collator.compare(a, b)
