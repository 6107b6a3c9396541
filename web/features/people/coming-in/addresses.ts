/** One address out of a pasted list, as it was written. */
export interface Address {
  readonly mail: string
  readonly name: string
}

/** Up to the next separator that does not stand in quotes. */
const entry = /(?:"[^"\n]*"|[^,;\n\r\t])+/g

/**
 * Reads a list in any shape: split by commas, semicolons, lines or, between bare addresses, blanks;
 * `Name <mail>` gives the name. Judging is the server's.
 */
export const readAddresses = (text: string): Address[] =>
  (text.match(entry) ?? [])
    .flatMap(splitBare)
    .map(part => part.trim())
    .filter(part => part !== '')
    .map(part => {
      const named = /^(.*?)\s*<([^<>]*)>$/.exec(part)
      return {
        mail: (named?.[2] ?? part).trim().toLowerCase(),
        name: (named?.[1] ?? '').replace(/^"|"$/g, '').trim(),
      }
    })

/** "a@x.example b@x.example" is two; "Ada Lowe <a@x.example>" is one. */
const splitBare = (part: string): string[] => (part.includes('<') ? part.split(/(?<=>)/) : part.split(/\s+/))
