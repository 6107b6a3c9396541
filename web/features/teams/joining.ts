import type { Team } from '#core/people/person.ts'

export const joiningWords: Readonly<
  Record<Team['joining'], { readonly word: string; readonly means: string }>
> = {
  open: { word: 'Open', means: 'Members join by themselves.' },
  request: { word: 'By request', means: 'Members see it and ask; a lead decides.' },
  unlisted: { word: 'Unlisted', means: 'Only its people know that it exists.' },
  everyone: { word: 'Everyone', means: 'All members are in, always.' },
}
