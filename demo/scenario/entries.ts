import type { BuiltInLevel } from '#core/levels/level.ts'

/** Who was given what where, and what else is set on places. */

export interface DemoGrant {
  /** Path of names from a home. */
  readonly place: string
  /** A person's or team's key; `everyone`; `leads:` before a team's key for its leads. */
  readonly to: string
  readonly level: BuiltInLevel
  readonly by: string
  readonly day: number
  /** Days from now. */
  readonly until?: number
  readonly reason?: string
}

/** The first grants of the shared homes: without a steward none can be made. */
export const firstGrants: Readonly<Record<string, readonly Pick<DemoGrant, 'to' | 'level'>[]>> = {
  Sites: [
    { to: 'tomas', level: 'Steward' },
    { to: 'ilse', level: 'Steward' },
    { to: 'everyone', level: 'Reader' },
  ],
  'Season Plan': [
    { to: 'wiebke', level: 'Steward' },
    { to: 'ilse', level: 'Steward' },
    { to: 'everyone', level: 'Commenter' },
  ],
  'Permits and Consents': [
    { to: 'noor', level: 'Steward' },
    { to: 'ilse', level: 'Steward' },
    { to: 'leads:liaison', level: 'Editor' },
  ],
  'Funder Report': [
    { to: 'ilse', level: 'Steward' },
    { to: 'noor', level: 'Steward' },
  ],
  'Tide Safety': [
    { to: 'tomas', level: 'Steward' },
    { to: 'ilse', level: 'Steward' },
    { to: 'everyone', level: 'Reader' },
  ],
  Templates: [
    { to: 'noor', level: 'Steward' },
    { to: 'ilse', level: 'Steward' },
    { to: 'everyone', level: 'Reader' },
  ],
}

export const grants: readonly DemoGrant[] = [
  { place: 'Sites/North Spit', to: 'team:dunes', level: 'Editor', by: 'tomas', day: 226 },
  { place: 'Sites/North Spit', to: 'team:birds', level: 'Editor', by: 'tomas', day: 226 },
  { place: 'Sites/North Spit/Nest Locations', to: 'team:birds', level: 'Curator', by: 'tomas', day: 220 },
  { place: 'Sites/Gull Sands', to: 'team:dunes', level: 'Editor', by: 'tomas', day: 226 },
  { place: 'Sites/Gull Sands', to: 'maren', level: 'Curator', by: 'tomas', day: 200 },
  { place: 'Sites/Harrow Creek', to: 'leads:liaison', level: 'Editor', by: 'tomas', day: 219 },
  { place: 'Sites/Long Marsh', to: 'edda', level: 'Curator', by: 'tomas', day: 190 },
  {
    place: 'Sites/North Spit/Access Notes',
    to: 'sefa',
    level: 'Commenter',
    by: 'ilse',
    day: 170,
    until: 120,
    reason: 'She tells us when the ewes are on the track',
  },
  { place: 'Permits and Consents/Permits', to: 'henrik', level: 'Commenter', by: 'noor', day: 95 },
  {
    place: 'Funder Report',
    to: 'rosamund',
    level: 'Preview',
    by: 'ilse',
    day: 138,
    until: 21,
    reason: 'May look, not copy',
  },
  {
    place: 'Sites/Gull Sands/Transects',
    to: 'tove',
    level: 'Adder',
    by: 'tomas',
    day: 58,
    until: 30,
    reason: 'Thesis on sea lavender',
  },
  {
    place: 'Sites/Gull Sands/Drone flights',
    to: 'bram',
    level: 'Adder',
    by: 'ilse',
    day: 3,
    until: 45,
    reason: 'Two flights before the frost',
  },
  {
    place: 'Sites/Harrow Creek/Method',
    to: 'henrik',
    level: 'Commenter',
    by: 'tomas',
    day: 80,
    until: -20,
    reason: 'Until the culvert consent is through',
  },
  {
    place: 'Sites/Long Marsh/Transects',
    to: 'pilar',
    level: 'Editor',
    by: 'tomas',
    day: 40,
    until: 5,
    reason: 'Autumn transects while Maren is away',
  },
  { place: 'Season Plan/Calendar', to: 'team:volunteers', level: 'Adder', by: 'wiebke', day: 150 },
  { place: 'Sites/Harrow Creek', to: 'piran', level: 'Curator', by: 'tomas', day: 218 },
  { place: 'Sites/Harrow Creek', to: 'team:marsh', level: 'Editor', by: 'tomas', day: 218 },
  { place: 'Sites/Long Marsh', to: 'team:marsh', level: 'Editor', by: 'tomas', day: 217 },
  { place: 'Sites/Long Marsh', to: 'mercy', level: 'Steward', by: 'tomas', day: 205 },
  { place: 'Sites/Gull Sands', to: 'amadi', level: 'Curator', by: 'tomas', day: 216 },
  { place: 'Sites/Tern Bank', to: 'team:birds', level: 'Editor', by: 'tomas', day: 215 },
  { place: 'Sites/Otter Slack', to: 'team:marsh', level: 'Editor', by: 'tomas', day: 214 },
  { place: 'Sites/Far Dunes', to: 'team:dunes', level: 'Editor', by: 'tomas', day: 213 },
  { place: 'Sites/Skerry Flats', to: 'team:birds', level: 'Editor', by: 'tomas', day: 212 },
  { place: 'Sites/Wick Lagoon', to: 'hedvig', level: 'Steward', by: 'tomas', day: 211 },
  {
    place: 'Sites/Wick Lagoon/Water levels',
    to: 'ottoline',
    level: 'Commenter',
    by: 'hedvig',
    day: 120,
    until: 40,
  },
  { place: 'Sites/Old Groyne', to: 'team:dunes', level: 'Adder', by: 'tomas', day: 210 },
  { place: 'Sites/Marram Point', to: 'leads:dunes', level: 'Steward', by: 'tomas', day: 209 },
  { place: 'Sites/Harrow Creek/Access Notes', to: 'una', level: 'Commenter', by: 'tomas', day: 158 },
  { place: 'Sites/Harrow Creek/Access Notes', to: 'leads:liaison', level: 'Editor', by: 'tomas', day: 158 },
  { place: 'Sites/North Spit/Access Notes', to: 'aldous', level: 'Reader', by: 'ilse', day: 168, until: 120 },
  { place: 'Sites/Marram Point/Photos', to: 'bridie', level: 'Reader', by: 'maren', day: 126 },
  { place: 'Sites/Marram Point/Photos', to: 'leif', level: 'Reader', by: 'maren', day: 126 },
  { place: 'Sites/Gull Sands/Drone flights', to: 'greer', level: 'Adder', by: 'tomas', day: 148 },
  { place: 'Sites/Otter Slack/Transects', to: 'milo', level: 'Adder', by: 'tomas', day: 57, until: 30 },
  { place: 'Funder Report/Photographs for print', to: 'dorian', level: 'Editor', by: 'ilse', day: 169 },
  { place: 'Funder Report', to: 'ilka', level: 'Editor', by: 'ilse', day: 140 },
  { place: 'Tide Safety', to: 'anton', level: 'Editor', by: 'tomas', day: 80 },
  { place: 'Permits and Consents', to: 'gesa', level: 'Editor', by: 'noor', day: 190 },
  {
    place: 'Sites/North Spit/Nest Locations/Ringing notes',
    to: 'henrik',
    level: 'Reader',
    by: 'tomas',
    day: 70,
    reason: 'He asked about the rings',
  },
  { place: 'boats/Kit Loans', to: 'everyone', level: 'Adder', by: 'joss', day: 230 },
  { place: 'boats/Kit Loans', to: 'team:boats', level: 'Editor', by: 'joss', day: 230 },
  { place: 'boats/Manuals', to: 'everyone', level: 'Reader', by: 'joss', day: 229 },
]

/** Nine people with the same grants by name in four places: a team that nobody has made. */
export const hiddenTeam = {
  places: [
    'Sites/Gull Sands/Photos',
    'Sites/Tern Bank/Photos',
    'Sites/Otter Slack/Photos',
    'Sites/Far Dunes/Photos',
  ],
  people: ['jory', 'solveig', 'nadim', 'finlo', 'hal', 'emeka', 'ruben', 'tjark', 'liv'],
  level: 'Editor',
  by: 'tomas',
  day: 84,
} as const

/** Where inheritance is broken: started empty, or with all that came from above. */
export const breaks: readonly {
  readonly place: string
  readonly mode: 'empty' | 'keep'
  readonly by: string
  readonly day: number
  readonly reason: string
}[] = [
  {
    place: 'Sites/North Spit/Nest Locations',
    mode: 'empty',
    by: 'tomas',
    day: 218,
    reason: 'Nest theft: only those who count, and the warden',
  },
  // Changes nothing for anybody, and was never looked at again.
  {
    place: 'Sites/Long Marsh/Sluice keys',
    mode: 'keep',
    by: 'mercy',
    day: 130,
    reason: 'To be on the safe side',
  },
  // Ilse alone.
  { place: 'Funder Report/Salaries', mode: 'empty', by: 'ilse', day: 136, reason: 'Not for the printer' },
]

export interface DemoLimit extends Omit<DemoGrant, 'level'> {
  /** What is left; nothing if there is none. */
  readonly level?: BuiltInLevel
}

export const limits: readonly DemoLimit[] = [
  { place: 'Sites/North Spit/Nest Locations', to: 'guests', by: 'tomas', day: 217 },
  { place: 'Permits and Consents', to: 'guests', level: 'Commenter', by: 'noor', day: 195 },
  {
    place: 'Sites/Old Groyne',
    to: 'odile',
    level: 'Reader',
    by: 'tomas',
    day: 60,
    reason: 'Until the fence is mended',
    until: 25,
  },
]

/** What stands on the web, and what is kept out of it. */
export const published: readonly {
  readonly place: string
  readonly web: 'published' | 'excluded'
  readonly by: string
  readonly day: number
}[] = [
  { place: 'Season Plan/Volunteer with us', web: 'published', by: 'wiebke', day: 174 },
  { place: 'Season Plan/Volunteer with us/Who pays for what', web: 'excluded', by: 'wiebke', day: 173 },
  // Nobody has opened it since.
  { place: 'Tide Safety/Tide table 2025', web: 'published', by: 'tomas', day: 220 },
]

/** Not released yet. */
export const drafts: readonly { readonly place: string; readonly by: string; readonly day: number }[] = [
  { place: 'Tide Safety/Crossing the channel, next version', by: 'tomas', day: 26 },
]

/** What somebody asks for at a place, and nobody has answered yet. */
export const requests: readonly {
  readonly place: string
  readonly by: string
  readonly level: BuiltInLevel
  readonly reason: string
  readonly day: number
}[] = [
  {
    place: 'Sites/Harrow Creek',
    by: 'piran',
    level: 'Steward',
    reason: 'The wardens change every week; I would let them in myself',
    day: 1.4,
  },
]
