import type { Team } from '#core/people/person.ts'

export const joiningWords: Readonly<
  Record<Team['joining'], { readonly word: string; readonly means: string }>
> = {
  open: { word: 'Open', means: 'Members can join by themselves.' },
  request: { word: 'By request', means: 'Members can request to join. A lead decides.' },
  unlisted: { word: 'Unlisted', means: 'Only the people in it can see it.' },
  everyone: { word: 'Everyone', means: 'All members are always in it.' },
}
