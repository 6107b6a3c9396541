/** What people say about the rows of the demo's boards: threads, the first of each what the others reply to. */

export interface DemoComment {
  /** By their keys. */
  readonly by: string
  readonly text: string
  readonly mentions?: readonly string[]
  readonly day: number
}

export interface DemoThread {
  readonly board: string
  readonly row: string
  readonly isResolved?: true
  readonly comments: readonly DemoComment[]
}

export const threads: readonly DemoThread[] = [
  {
    board: 'boats/Kit Loans',
    row: 'Spotting scope 3',
    comments: [
      {
        by: 'ravi',
        text: 'can you bring it to the shed on Friday? The roost count needs two of them.',
        mentions: ['joss'],
        day: 2,
      },
      { by: 'joss', text: 'It is in the van. I will put it back tomorrow.', day: 1 },
    ],
  },
  {
    board: 'boats/Kit Loans',
    row: 'Outboard, 6 hp',
    comments: [{ by: 'joss', text: 'The part comes on the 8th. Take the oars until then.', day: 5 }],
  },
  {
    board: 'boats/Kit Loans',
    row: 'Levelling staff',
    isResolved: true,
    comments: [
      { by: 'ravi', text: 'Does anybody have the spare foot?', day: 16 },
      { by: 'joss', text: 'Found, third drawer.', day: 14 },
    ],
  },
  {
    board: 'Permits and Consents/Permits',
    row: 'Disturbance, winter',
    comments: [
      {
        by: 'tomas',
        text: 'which of the two roosts is closed in January?',
        mentions: ['henrik'],
        day: 6,
      },
      { by: 'henrik', text: 'Both, from the 4th. The letter is on its way.', day: 4 },
    ],
  },
]
