import type { KindName } from '#core/boards/kind.ts'
import type { Mark } from '#core/boards/kinds/state.ts'

/** What boards are made of, and what stands in them. Days are counted from today, people are named by their keys. */

export interface DemoColumn {
  readonly name: string
  readonly kind: KindName
  readonly settings?: object
  readonly viewers?: readonly string[]
  readonly editors?: readonly string[]
}

export type DemoCell = string | number | true | readonly (string | number)[] | null

export interface DemoRow {
  readonly name: string
  /** Which of the board's sections, from 0. */
  readonly section?: number
  /** In the order of the columns that are written. */
  readonly cells: readonly DemoCell[]
}

export interface DemoView {
  readonly name: string
  readonly as?: 'lanes' | 'calendar'
  /** Columns by their names. */
  readonly by?: string
  readonly where?: readonly (readonly [column: string, word: string, ...given: string[]])[]
  readonly sort?: readonly string[]
}

export interface DemoBoard {
  /** Its path, or the end of the paths of several. */
  readonly board: string
  readonly by: string
  readonly sections?: readonly string[]
  readonly columns: readonly DemoColumn[]
  readonly views?: readonly DemoView[]
  readonly rows?: readonly DemoRow[]
}

type State = readonly [name: string, mark: Mark, isFinished?: boolean]

const states = (...all: State[]) => ({
  states: all.map(([name, mark, isFinished = false], index) => ({ id: `s${index}`, name, mark, isFinished })),
})
const tags = (...names: string[]) => ({ tags: names.map((name, index) => ({ id: `t${index}`, name })) })
const several = { isSeveral: true }
const number = (unit: string, places = 0, foot = 'sum') => ({ places, unit, foot })

const row = (name: string, section: number, ...cells: DemoCell[]): DemoRow => ({ name, section, cells })

/** How readings of a transect board are made: see demo/cells.ts. */
export const transectColumns: readonly DemoColumn[] = [
  { name: 'Walked on', kind: 'date' },
  { name: 'By', kind: 'person', settings: several },
  { name: 'Posts found', kind: 'number', settings: number('') },
  { name: 'Marram', kind: 'number', settings: number('%', 1, 'mean') },
  { name: 'Bare sand', kind: 'number', settings: number('%', 1, 'mean') },
  { name: 'Tallest plant', kind: 'number', settings: number('cm', 0, 'greatest') },
  {
    name: 'State',
    kind: 'state',
    settings: states(
      ['To walk', 'ring'],
      ['Walked', 'half'],
      ['Entered', 'wedge'],
      ['Checked', 'diamond', true],
    ),
  },
  { name: 'Weather', kind: 'tags', settings: tags('dry', 'wet', 'windy', 'fog') },
]

export const boards: readonly DemoBoard[] = [
  {
    board: 'Permits and Consents/Permits',
    by: 'noor',
    sections: ['Access over land', 'Species', 'Water'],
    columns: [
      { name: 'No.', kind: 'serial number', settings: { prefix: 'P-' } },
      {
        name: 'State',
        kind: 'state',
        settings: states(
          ['To ask', 'ring'],
          ['Asked', 'dotted'],
          ['Asked again', 'half'],
          ['Waits for them', 'triangle'],
          ['Granted', 'diamond', true],
          ['Refused', 'cross', true],
        ),
      },
      { name: 'Who', kind: 'person', settings: { isSeveral: false } },
      { name: 'Valid through', kind: 'date' },
      { name: 'Visit', kind: 'period' },
      { name: 'Place', kind: 'place' },
      {
        name: 'Fees',
        kind: 'number',
        settings: number('€', 2),
        viewers: ['leads:liaison', 'gesa'],
        editors: ['gesa'],
      },
      { name: 'Contact', kind: 'text', viewers: ['team:liaison', 'gesa'] },
      { name: 'Notes', kind: 'long text' },
    ],
    views: [
      {
        name: 'Open, soonest first',
        where: [['State', 'is not finished']],
        sort: ['Valid through'],
      },
      { name: 'By state', as: 'lanes', by: 'State' },
      { name: 'Visits', as: 'calendar', by: 'Visit' },
    ],
    rows: [
      row(
        'Track to Harrow Creek',
        0,
        's3',
        'piran',
        -3,
        [2, 6],
        'Sites/Harrow Creek',
        0,
        'Estate office',
        'They want the dates in writing, a week before.',
      ),
      row(
        'Gate at North Spit',
        0,
        's2',
        'edda',
        4,
        [8, 12],
        'Sites/North Spit',
        40,
        'S. Lund',
        'The code of the gate changes in January. Ask for two keys, one for the boat crew.',
      ),
      row(
        'Landing, Gull Sands',
        0,
        's0',
        'ilse',
        9,
        [14, 15],
        'Sites/Gull Sands',
        120,
        'Harbour office',
        null,
      ),
      row(
        'Vehicle on the beach',
        0,
        's2',
        'joss',
        20,
        [21, 23],
        'Sites/Long Marsh',
        65,
        'County',
        'Only below the high-water mark.',
      ),
      row('Night visits, Long Marsh', 0, 's4', 'aino', 31, [-6, 31], 'Sites/Long Marsh', 0, 'County', null),
      row(
        'Footpath diversion, Far Dunes',
        0,
        's5',
        'tomas',
        -20,
        null,
        'Sites/Far Dunes',
        15,
        'County',
        'Refused: the path is on the county’s winter route.',
      ),
      row(
        'Ringing licence',
        1,
        's4',
        'aino',
        31,
        [-120, 31],
        null,
        210,
        'Licensing',
        'Renewed each year. Pilar’s runs a month longer.',
      ),
      row('Disturbance, winter', 1, 's3', 'tomas', 36, [30, 60], 'Sites/Skerry Flats', 0, 'County', null),
      row(
        'Drone flights',
        1,
        's0',
        'ilse',
        43,
        [45, 47],
        'Sites/Gull Sands/Drone flights',
        90,
        'Highline',
        'Not before the last waders are off the roost.',
      ),
      row('Egg measuring, terns', 1, 's2', 'aino', 46, [150, 190], 'Sites/Tern Bank', 35, 'Licensing', null),
      row(
        'Plant samples, dune slack',
        1,
        's1',
        'yara',
        52,
        [60, 62],
        'Sites/Otter Slack',
        20,
        'County',
        null,
      ),
      row(
        'Dip wells, Wick Lagoon',
        2,
        's1',
        'oren',
        25,
        [28, 28],
        'Sites/Wick Lagoon',
        55,
        'Harbour office',
        'Four wells, by hand auger.',
      ),
      row(
        'Mooring at the old groyne',
        2,
        's3',
        'joss',
        12,
        [12, 40],
        'Sites/Old Groyne',
        75,
        'Harbour office',
        null,
      ),
      row(
        'Water samples at the sluice',
        2,
        's4',
        'hedvig',
        80,
        [-40, 80],
        'Sites/Long Marsh/Sluice keys',
        0,
        'Water board',
        null,
      ),
    ],
  },
  {
    board: 'Season Plan/Calendar',
    by: 'wiebke',
    sections: ['Counts', 'Days out', 'Everyone'],
    columns: [
      { name: 'When', kind: 'period' },
      { name: 'Kind', kind: 'tags', settings: tags('count', 'training', 'school', 'repair', 'meeting') },
      { name: 'Leads', kind: 'person', settings: several },
      { name: 'Where', kind: 'place' },
      { name: 'Places', kind: 'number', settings: number('') },
      { name: 'Minibus', kind: 'checkbox', editors: ['joss', 'ravi'] },
      { name: 'Fixed', kind: 'checkbox' },
    ],
    views: [
      { name: 'Month', as: 'calendar', by: 'When' },
      { name: 'With the minibus', where: [['Minibus', 'is yes']], sort: ['When'] },
    ],
    rows: [
      row('Low water count, north', 0, [2, 3], ['t0'], ['aino', 'davit'], 'Sites/North Spit', 8, true, true),
      row('Low water count, south', 0, [9, 10], ['t0'], ['aino'], 'Sites/Marram Point', 8, true, true),
      row('Roost count', 0, [5, 5], ['t0'], ['pilar'], 'Sites/Skerry Flats', 4, null, true),
      row('Winter gulls', 0, [23, 25], ['t0'], ['davit'], 'Sites/Gull Sands', 6, true, null),
      row('Training: boats', 1, [-1, 0], ['t1'], ['joss', 'ravi'], null, 6, null, true),
      row('Training: first aid on the shore', 1, [12, 12], ['t1'], ['tamsin'], null, 14, true, true),
      row(
        'Dune walk with the school',
        1,
        [16, 16],
        ['t2'],
        ['tamsin', 'yara'],
        'Sites/Far Dunes',
        22,
        true,
        null,
      ),
      row('Fence mending', 1, [18, 20], ['t3'], ['tomas', 'amadi'], 'Sites/North Spit', 10, true, true),
      row('Beach clean', 1, [-12, -12], ['t3'], ['amadi'], 'Sites/Gull Sands', 30, null, true),
      row('Data evening', 2, [6, 6], ['t4'], ['lotte'], null, 12, null, true),
      row('Season review', 2, [33, 34], ['t4'], ['ilse', 'wiebke'], null, 40, null, null),
      row('Rota for January', 2, [14, 14], ['t4'], ['wiebke'], null, null, null, true),
    ],
  },
  {
    board: 'boats/Kit Loans',
    by: 'joss',
    sections: ['Optics', 'On the water', 'In the field'],
    columns: [
      { name: 'No.', kind: 'serial number', settings: { prefix: 'L-' } },
      {
        name: 'State',
        kind: 'state',
        settings: states(
          ['In the store', 'ring'],
          ['Out', 'half'],
          ['Overdue', 'triangle'],
          ['Broken', 'cross'],
          ['Back', 'diamond', true],
        ),
      },
      { name: 'Who', kind: 'person' },
      { name: 'Back on', kind: 'date' },
      { name: 'Deposit', kind: 'number', settings: number('€', 2) },
      { name: 'Charged', kind: 'checkbox' },
      { name: 'Notes', kind: 'text' },
    ],
    views: [
      {
        name: 'Overdue',
        where: [
          ['Back on', 'overdue'],
          ['State', 'is not finished'],
        ],
        sort: ['Back on'],
      },
      { name: 'Mine', where: [['Who', 'is me']], sort: ['Back on'] },
      { name: 'By state', as: 'lanes', by: 'State' },
    ],
    rows: [
      row('Spotting scope 1', 0, 's1', 'davit', 2, 20, null, null),
      row('Spotting scope 3', 0, 's2', 'joss', -4, 20, null, 'With the short tripod'),
      row('Binoculars, pair 7', 0, 's1', 'ravi', -1, 10, null, null),
      row('Binoculars, pair 8', 0, 's4', 'sunniva', -9, 10, null, null),
      row('Dinghy', 1, 's1', 'joss', 6, null, true, 'Oars are in the shed'),
      row('Outboard, 6 hp', 1, 's3', 'joss', -2, null, null, 'Fuel line leaks, part is ordered'),
      row('Dry suit, M', 1, 's1', 'finlo', 3, 15, null, null),
      row('Dry suit, L', 1, 's0', null, null, null, null, null),
      row('Handheld radio 2', 1, 's2', 'ravi', -6, 10, true, null),
      row('Handheld radio 5', 1, 's1', 'mercy', 8, 10, true, null),
      row('Soil auger', 2, 's1', 'oren', 5, null, null, null),
      row('Quadrat, 1 m', 2, 's1', 'yara', 11, null, null, null),
      row('Levelling staff', 2, 's2', 'joss', -12, null, null, 'The foot is bent'),
      row('Head torches, box', 2, 's0', null, null, null, true, null),
    ],
  },
  {
    board: 'birds/Winter counts',
    by: 'aino',
    columns: [
      { name: 'Counted on', kind: 'date' },
      { name: 'By', kind: 'person', settings: several },
      { name: 'Waders', kind: 'number', settings: number('') },
      { name: 'Gulls', kind: 'number', settings: number('') },
      { name: 'Seen from', kind: 'place' },
    ],
  },
]
