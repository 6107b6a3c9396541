import type { PersonView } from '#contract/views.ts'

/** One address out of a pasted list, judged at once. */
export interface Address {
  readonly mail: string
  readonly name: string
  readonly verdict:
    'new' | 'here already' | 'invited already' | 'suspended' | 'twice in the list' | 'not an address'
}

// As loose as mail itself: something, an @, a domain with a dot. The server has the last word.
const shape = /^[^\s@<>,;"]+@[^\s@<>,;"]+\.[^\s@<>,;."]+$/

/** Up to the next separator that does not stand in quotes. */
const entry = /(?:"[^"\n]*"|[^,;\n\r\t])+/g

/**
 * Reads a list in any shape: split by commas, semicolons, lines or, between bare addresses, blanks;
 * `Name <mail>` gives the name.
 */
export function readAddresses(text: string, people: readonly PersonView[]): Address[] {
  const seen = new Set<string>()
  return (text.match(entry) ?? [])
    .flatMap(splitBare)
    .map(part => part.trim())
    .filter(part => part !== '')
    .map(part => {
      const named = /^(.*?)\s*<([^<>]*)>$/.exec(part)
      const mail = (named?.[2] ?? part).trim().toLowerCase()
      const name = (named?.[1] ?? '').replace(/^"|"$/g, '').trim()
      const verdict = seen.has(mail) ? 'twice in the list' : verdictOn(mail, people)
      seen.add(mail)
      return { mail, name, verdict }
    })
}

/** "a@x.example b@x.example" is two; "Ada Lowe <a@x.example>" is one. */
const splitBare = (part: string): string[] => (part.includes('<') ? part.split(/(?<=>)/) : part.split(/\s+/))

function verdictOn(mail: string, people: readonly PersonView[]): Address['verdict'] {
  if (!shape.test(mail)) return 'not an address'
  switch (people.find(person => person.mail.toLowerCase() === mail)?.status) {
    case 'invited':
      return 'invited already'
    case 'suspended':
      return 'suspended'
    case 'active':
      return 'here already'
    default:
      return 'new'
  }
}
