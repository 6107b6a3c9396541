import type { Team } from '#core/people/person.ts'

export interface DemoTeam {
  readonly key: string
  readonly name: string
  readonly note: string
  readonly joining: Team['joining']
  readonly welcomesGuests: boolean
  readonly leads: readonly string[]
  readonly people: readonly string[]
  readonly day: number
}

export const teams: readonly DemoTeam[] = [
  {
    key: 'dunes',
    name: 'Dune Survey',
    note: 'Transects, vegetation and sand levels, April to October.',
    joining: 'request',
    welcomesGuests: true,
    leads: ['maren'],
    people: ['joss', 'edda', 'tove'],
    day: 245,
  },
  {
    key: 'birds',
    name: 'Bird Counts',
    note: 'Breeding birds, nests and the winter counts.',
    joining: 'request',
    welcomesGuests: false,
    leads: ['aino'],
    people: ['davit', 'pilar', 'ravi'],
    day: 244,
  },
  {
    key: 'boats',
    name: 'Boats and Kit',
    note: 'Whatever floats, flies or needs charging.',
    joining: 'open',
    welcomesGuests: false,
    leads: ['joss', 'ravi'],
    people: ['davit', 'callum'],
    day: 243,
  },
  {
    key: 'liaison',
    name: 'Landowner Liaison',
    note: 'Permissions, gates and good manners.',
    joining: 'request',
    welcomesGuests: true,
    leads: ['edda'],
    people: ['maren', 'sefa'],
    day: 230,
  },
  {
    key: 'volunteers',
    name: 'Volunteers',
    note: 'Everyone who helps for a season.',
    joining: 'open',
    welcomesGuests: false,
    leads: ['wiebke'],
    people: ['sunniva', 'callum', 'imke'],
    day: 200,
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
  },
]
