import type { BuiltInLevel } from '#core/levels/level.ts'
import type { NodeKind } from '#core/tree/node.ts'

/**
 * The content tree. A folder is written with what is in it; `:page` and `:board` mark the others.
 * Keys of homes are their names; teams' homes are made with their teams.
 */
export interface DemoPlace {
  readonly name: string
  readonly kind: NodeKind
  readonly within: readonly DemoPlace[]
  readonly text?: string
}

const folder = (name: string, ...within: DemoPlace[]): DemoPlace => ({ name, kind: 'folder', within })
const board = (name: string): DemoPlace => ({ name, kind: 'board', within: [] })
const page = (name: string, text?: string): DemoPlace => ({
  name,
  kind: 'page',
  within: [],
  ...(text ? { text } : {}),
})

const method = `## Before you go

- Tide tables: leave at the latest two hours before high water.
- One person carries the radio, one the first-aid kit.

## On the transect

1. Start at the landward post and walk seawards.
2. Every ten metres: cover, bare sand, tallest plant.
3. Photograph the quadrat with its number in view.
`

const accessNotes = `Use the **lower gate** only. The upper track is closed from March to July while the ewes lamb.

Ring the estate office the day before; they open the gate at seven.
`

const site = (name: string, ...more: DemoPlace[]): DemoPlace =>
  folder(
    name,
    folder('Transects', board('Spring transects'), board('Autumn transects')),
    page('Method', method),
    folder('Photos'),
    page('Access Notes', accessNotes),
    ...more,
  )

export const sharedHomes: readonly DemoPlace[] = [
  folder(
    'Sites',
    site('North Spit', folder('Nest Locations', board('2026 season'), board('Ringing log'))),
    site('Gull Sands', folder('Drone flights', board('Flight log'), page('Flight plan'))),
    site('Harrow Creek'),
    site('Long Marsh', page('Sluice keys')),
  ),
  folder(
    'Season Plan',
    board('Calendar'),
    page('Who is where', 'The plan for the season, week by week. **Changes** go through the office.'),
    folder('Volunteer with us', page('What you will do'), page('What to bring'), page('Who pays for what')),
  ),
  folder('Permits and Consents', board('Permits'), page('How we ask'), folder('Letters')),
  folder(
    'Funder Report',
    page(
      'Draft figures',
      '| | 2025 | 2026 |\n|---|---:|---:|\n| Sites surveyed | 9 | 11 |\n| Nests found | 212 | 240 |\n',
    ),
    folder('Photographs for print'),
    page('Summary'),
  ),
  folder(
    'Tide Safety',
    page('Crossing the channel', 'Nobody crosses alone. Nobody crosses after the second whistle.'),
  ),
]

export const teamPlaces: Readonly<Record<string, readonly DemoPlace[]>> = {
  dunes: [board('Species list'), page('Field notes'), folder('Old transects', board('2024'), board('2025'))],
  birds: [page('Count rules'), board('Winter counts'), folder('Drafts')],
  boats: [board('Kit Loans'), page('Engine log')],
  liaison: [board('Calls'), folder('Agreements', page('Lund estate'), page('Harrow farm'))],
  volunteers: [page('Rota'), board('Sign-up')],
  steering: [page('Budget 2027'), page('Minutes')],
}

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
]

/** Where inheritance is broken, started empty. */
export const breaks: readonly {
  readonly place: string
  readonly by: string
  readonly day: number
  readonly reason: string
}[] = [
  {
    place: 'Sites/North Spit/Nest Locations',
    by: 'tomas',
    day: 218,
    reason: 'Nest theft: only those who count, and the warden',
  },
]

export interface DemoLimit extends Omit<DemoGrant, 'level'> {
  /** What is left; nothing if there is none. */
  readonly level?: BuiltInLevel
}

export const limits: readonly DemoLimit[] = [
  { place: 'Sites/North Spit/Nest Locations', to: 'guests', by: 'tomas', day: 217 },
]
