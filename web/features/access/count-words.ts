import { peopleWords } from '#core/words/english.ts'
import type { PrincipalName } from '#contract/views/names.ts'

/** What stands under a name: a person's kind, or how many people a team is. */
export function countWords(kind: PrincipalName['kind'], people: number): string {
  if (kind === 'member' || kind === 'guest') return kind
  return `${kind === 'team' ? 'team · ' : ''}${peopleWords(people)}`
}
