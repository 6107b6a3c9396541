/** A day of each month and its month, as pages write them: the year stands only where it is not this one. */
export const dayInWords = (at: number, language = 'en-GB'): string =>
  new Intl.DateTimeFormat(language, { timeZone: 'Europe/London', day: 'numeric', month: 'short' }).format(at)

/** A day that lies ahead whenever the tests are run: as a field takes it, and as a page writes it. */
export function dayAhead(days: number) {
  const at = Date.now() + days * 86_400_000
  return {
    day: new Date(at).toISOString().slice(0, 10),
    words: dayInWords(Date.parse(new Date(at).toISOString().slice(0, 10))),
  }
}
