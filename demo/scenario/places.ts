import type { NodeKind } from '#core/tree/node.ts'

/**
 * The content tree: each place is written with what is in it. Keys of homes are their names; teams' homes
 * are made with their teams.
 */
export interface DemoPlace {
  readonly name: string
  readonly kind: NodeKind
  readonly within: readonly DemoPlace[]
  readonly text?: string
}

const folder = (name: string, ...within: DemoPlace[]): DemoPlace => ({ name, kind: 'folder', within })
const board = (name: string, ...rows: DemoPlace[]): DemoPlace => ({ name, kind: 'board', within: rows })
const row = (name: string, ...within: DemoPlace[]): DemoPlace => ({ name, kind: 'row', within })
const file = (name: string): DemoPlace => ({ name, kind: 'file', within: [] })
const page = (name: string, text?: string, ...within: DemoPlace[]): DemoPlace => ({
  name,
  kind: 'page',
  within,
  ...(text ? { text } : {}),
})
const rows = (count: number, name: string, first = 1): DemoPlace[] =>
  Array.from({ length: count }, (_, index) => row(`${name} ${first + index}`))

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

const site = (name: string, transects: number, ...more: DemoPlace[]): DemoPlace =>
  folder(
    name,
    folder(
      'Transects',
      board(
        'Spring transects',
        row('Transect 1', page('What was odd', 'The second post is gone.')),
        ...rows(transects - 1, 'Transect', 2),
      ),
      board('Autumn transects', ...rows(transects, 'Transect')),
    ),
    page('Method', method, page('Plant list'), page('Post positions')),
    folder('Photos', folder('Spring', file('Landward post.jpg'), file('Seaward post.jpg'))),
    page('Access Notes', accessNotes),
    ...more,
  )

export const sharedHomes: readonly DemoPlace[] = [
  folder(
    'Sites',
    site(
      'North Spit',
      6,
      folder(
        'Nest Locations',
        board('2026 season', ...rows(9, 'Nest')),
        board('Ringing log', ...rows(4, 'Ringing day')),
        page('Ringing notes', 'Rings of the **blue** series are used up. Green from May on.'),
      ),
    ),
    site(
      'Gull Sands',
      5,
      folder('Drone flights', board('Flight log', ...rows(3, 'Flight')), page('Flight plan')),
    ),
    site('Harrow Creek', 5),
    site('Long Marsh', 4, page('Sluice keys')),
    site('Tern Bank', 4),
    site('Otter Slack', 4),
    site('Far Dunes', 5),
    site('Skerry Flats', 3),
    site('Wick Lagoon', 3, folder('Water levels', board('Gauge readings', ...rows(5, 'Week')))),
    site('Old Groyne', 3),
    site('Marram Point', 4),
  ),
  folder(
    'Season Plan',
    board('Calendar'),
    page('Who is where', 'The plan for the season, week by week. **Changes** go through the office.'),
    page(
      'Volunteer with us',
      'Come for a week or for a season. We bring you there, feed you and teach you.',
      page('What you will do', 'Count, measure, carry, and learn to read the tide.'),
      page('What to bring', 'Boots that may get wet for good. A hat. A torch.'),
      page('Who pays for what', 'Travel from the station is ours; what you eat at noon is yours.'),
    ),
  ),
  folder(
    'Permits and Consents',
    board('Permits'),
    page('How we ask'),
    folder('Letters', file('County, spring.pdf'), file('Harbour office.pdf')),
  ),
  folder(
    'Funder Report',
    page(
      'Draft figures',
      '| | 2025 | 2026 |\n|---|---:|---:|\n| Sites surveyed | 9 | 11 |\n| Nests found | 212 | 240 |\n',
    ),
    folder('Photographs for print', file('Cover.tif'), file('Marsh at dawn.tif')),
    page('Summary'),
    folder('Salaries', page('Rates for 2027')),
  ),
  folder(
    'Tide Safety',
    page('Crossing the channel', 'Nobody crosses alone. Nobody crosses after the second whistle.'),
    page(
      'Crossing the channel, next version',
      'Nobody crosses alone. The second whistle now comes ten minutes earlier.',
    ),
    page('Tide table 2025', 'High water at the outer mark, by day.'),
  ),
  folder(
    'Templates',
    folder('A new site', folder('Transects'), page('Method'), folder('Photos')),
    board('A transect board'),
    page('An incident', 'What happened, where, who was there, what we change.'),
  ),
]

export const teamPlaces: Readonly<Record<string, readonly DemoPlace[]>> = {
  dunes: [
    board('Species list', ...rows(7, 'Species')),
    page('Field notes', undefined, page('Marram and lyme grass'), page('Blow-outs')),
    folder(
      'Old transects',
      board('Season of 2024', ...rows(3, 'Transect')),
      board('Season of 2025', ...rows(3, 'Transect')),
    ),
  ],
  marsh: [
    board('Core samples', ...rows(5, 'Core')),
    page('Creek map', undefined, page('Crossings')),
    folder('Laboratory', file('Results, May.csv'), file('Results, August.csv')),
  ],
  birds: [
    page('Count rules', undefined, page('Winter rules'), page('Breeding season')),
    board('Winter counts', ...rows(8, 'Count')),
    folder('Drafts', page('Terns and the new wardens')),
  ],
  boats: [
    board('Kit Loans'),
    page('Engine log', undefined, page('Spare parts')),
    folder('Manuals', file('Outboard.pdf'), file('Radios.pdf')),
  ],
  liaison: [
    board('Calls', ...rows(6, 'Call')),
    folder(
      'Agreements',
      page('With the Lund estate'),
      page('With Harrow farm'),
      page('With the harbour office'),
    ),
  ],
  data: [
    page('How we name things'),
    board('Open questions', ...rows(5, 'Question')),
    folder('Exports', file('Birds 2025.csv'), file('Dunes 2025.csv')),
  ],
  volunteers: [
    page('Rota', undefined, page('Minibus list')),
    board('Sign-up', ...rows(6, 'Week')),
    page('First day'),
  ],
  steering: [
    page('Budget 2027'),
    page('Minutes', undefined, page('Minutes of March'), page('Minutes of June')),
  ],
  all: [page('Who to ask'), page('House rules')],
  'last-year': [board('Counts 2025', ...rows(5, 'Count')), page('What we learnt')],
}
