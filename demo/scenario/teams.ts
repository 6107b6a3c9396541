import type { Team } from '#core/people/person.ts'

export interface DemoTeam {
  readonly key: string
  readonly name: string
  readonly note: string
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
  /** The first makes the team's first things. */
  readonly leads: readonly string[]
  readonly people: readonly string[]
  readonly day: number
  /** Beside the general one that every team has; `only` restricts one to some of the team. */
  readonly channels: readonly { readonly name: string; readonly only?: readonly string[] }[]
  /** How many days ago it was archived, and why. */
  readonly archived?: { readonly day: number; readonly by: string; readonly reason: string }
}

export const teams: readonly DemoTeam[] = [
  {
    key: 'dunes',
    name: 'Dune Survey',
    note: 'Transects, vegetation and sand levels, April to October.',
    joining: 'request',
    welcomesGuests: true,
    leads: ['maren'],
    people: ['joss', 'edda', 'yara', 'oren', 'bastian', 'solveig', 'odile', 'tove'],
    day: 245,
    channels: [{ name: 'sightings' }],
  },
  {
    key: 'marsh',
    name: 'Saltmarsh',
    note: 'Creeks, sluices, sea lavender and mud.',
    joining: 'request',
    welcomesGuests: true,
    leads: ['hedvig', 'mercy'],
    people: ['piran', 'yara', 'oren', 'nadim', 'saskia', 'milo', 'ottoline'],
    day: 243.5,
    channels: [{ name: 'tide-warnings' }, { name: 'laboratory', only: ['hedvig', 'oren', 'ottoline'] }],
  },
  {
    key: 'birds',
    name: 'Bird Counts',
    note: 'Breeding birds, nests and the winter counts.',
    joining: 'request',
    welcomesGuests: false,
    leads: ['aino'],
    people: ['davit', 'pilar', 'ravi', 'jory', 'tjark', 'liv', 'wren'],
    day: 244,
    channels: [{ name: 'sightings' }, { name: 'nests', only: ['aino', 'davit', 'pilar'] }],
  },
  {
    key: 'boats',
    name: 'Boats and Kit',
    note: 'Whatever floats, flies or needs charging.',
    joining: 'open',
    welcomesGuests: false,
    leads: ['joss', 'ravi'],
    people: ['davit', 'callum', 'finlo', 'amadi', 'hal'],
    day: 243,
    channels: [{ name: 'kit-swaps' }],
  },
  {
    key: 'liaison',
    name: 'Landowner Liaison',
    note: 'Permissions, gates and good manners.',
    joining: 'request',
    welcomesGuests: true,
    leads: ['edda'],
    people: ['maren', 'tamsin', 'ilka', 'sefa', 'aldous', 'una', 'greer'],
    day: 230,
    channels: [{ name: 'with-the-pilots', only: ['edda', 'greer'] }],
  },
  {
    key: 'data',
    name: 'Data Desk',
    note: 'Everything that was counted ends up here.',
    joining: 'request',
    welcomesGuests: false,
    // Suspended meanwhile: a team whose only lead is away.
    leads: ['kasper'],
    people: ['lotte', 'bastian', 'gesa'],
    day: 226,
    channels: [],
  },
  {
    key: 'volunteers',
    name: 'Volunteers',
    note: 'Everyone who helps for a season.',
    joining: 'open',
    welcomesGuests: false,
    leads: ['wiebke'],
    people: [
      'sunniva',
      'callum',
      'imke',
      'jory',
      'solveig',
      'nadim',
      'branwen',
      'tjark',
      'odile',
      'ruben',
      'saskia',
      'emeka',
      'liv',
      'hal',
      'petra',
      'anton',
      'wren',
      'joachim',
    ],
    day: 200,
    channels: [{ name: 'lifts' }],
  },
  {
    key: 'steering',
    name: 'Steering Group',
    note: 'Budget, staffing, things not settled yet.',
    joining: 'unlisted',
    welcomesGuests: false,
    leads: ['ilse'],
    people: ['tomas', 'noor'],
    day: 238,
    channels: [],
  },
  {
    key: 'all',
    name: 'Everyone',
    note: 'All members; what all should know.',
    joining: 'everyone',
    welcomesGuests: false,
    leads: ['noor'],
    people: [],
    day: 237,
    channels: [{ name: 'notice-board' }],
  },
  {
    key: 'last-year',
    name: 'Survey 2025',
    note: 'Last year’s campaign, kept as it was.',
    joining: 'request',
    welcomesGuests: false,
    leads: ['maren', 'aino'],
    people: ['davit', 'joss', 'hedvig', 'lotte'],
    day: 241,
    channels: [],
    archived: { day: 150, by: 'maren', reason: 'The 2025 report is out' },
  },
]
