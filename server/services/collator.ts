/** The order of names; made once, since it is asked for each pair. */
export const collator = new Intl.Collator('en')
