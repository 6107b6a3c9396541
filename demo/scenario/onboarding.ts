import type { BuiltInLevel } from '#core/levels/level.ts'

/** How people come into Marram Coast Survey: what they are offered, and who waits to be let in where. */
export interface DemoWelcomeSet {
  readonly key: string
  readonly name: string
  readonly note: string
  readonly as: 'member' | 'guest'
  readonly teams: readonly string[]
  readonly places: readonly { readonly place: string; readonly level: BuiltInLevel }[]
  /** In days from now. */
  readonly until?: number
  readonly by: string
  readonly day: number
}

export const welcomeSets: readonly DemoWelcomeSet[] = [
  {
    key: 'winter-counts',
    name: 'Winter helpers',
    note: 'For volunteers who count from November to March.',
    as: 'member',
    teams: ['volunteers'],
    places: [{ place: 'Season Plan', level: 'Commenter' }],
    until: 125,
    by: 'ilse',
    day: 24,
  },
  {
    key: 'laboratory-guests',
    name: 'Lab visitors',
    note: 'They read the methods and see nothing of the nests.',
    as: 'guest',
    teams: [],
    places: [{ place: 'Sites/Long Marsh/Method', level: 'Reader' }],
    by: 'ilse',
    day: 22,
  },
]

export const joinLink = {
  key: 'helpers-day',
  name: 'Open beach day',
  domains: ['marram.example'],
  most: 12,
  /** In days from now. */
  until: 21,
  welcome: 'winter-counts',
  by: 'ilse',
  day: 8,
} as const

export const requests = [
  { by: 'wren', team: 'marsh', reason: 'I live beside the creek and can read the gauges.', day: 2 },
  { by: 'solveig', team: 'birds', reason: '', day: 1 },
] as const

export const houseRules = {
  text: 'What you see of nests stays here.\nOn the water the skipper decides.\nTake nothing home but photographs that show no nest.',
  by: 'ilse',
  day: 236,
} as const
