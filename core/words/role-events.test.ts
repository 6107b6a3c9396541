import { expect, test } from 'vitest'
import type { PersonId, RoleId, RequestId, TeamId } from '../base/ids.ts'
import { auditEventsOf } from '../changes/audit-event.ts'
import type { Privilege } from '../levels/privilege.ts'
import type { Scope } from '../people/person.ts'
import type { Role } from '../people/role.ts'
import type { RecordChange } from '../state/state.ts'
import { holding, role, world } from '../tests/world.ts'
import { eventInWords, type EventNaming } from './audit-event.ts'
import { powersInWords } from './impact.ts'
import { privilegesListed } from './privilege.ts'

const naming = {
  person: (id: string) => (id === 'p' ? 'Pilar' : undefined),
  team: (id: string) => (id === 't' ? 'Boats' : undefined),
  role: (id: string) => (id === 'role-help' ? 'Help' : 'a role that is no more'),
  through: () => '30 Sep',
} as unknown as EventNaming

const wordsFor = (change: object): string => {
  const [event] = auditEventsOf(world(), [change as RecordChange])
  return event === undefined ? '' : eventInWords(world(), event, naming)
}
const roleRow = (name: string, rank: number, ...held: Privilege[]) => role(name, rank, ...held).row as Role
const changed = (before: Role | null, after: Role | null) => ({
  table: 'roles',
  id: 'role-help',
  before,
  after,
})
const held = (scope: Scope, more: object = {}) => ({ ...holding('p', 'role-help', scope).row, ...more })
const over = { over: 'team', team: 't' as TeamId } as const
const request = { id: 'r' as RequestId, person: 'p' as PersonId, at: 0, reason: '', declined: null }
const help = { of: 'role', role: 'role-help' as RoleId }
const requesting = (wants: object, more: object = {}) => ({ ...request, wants, ...more })
const session = { id: 'l', by: 'o', at: 0, until: 1, reason: 'w' }

test.each<[string, object]>([
  [
    'created the role Help, which may suspend people and set when their access ends',
    changed(null, roleRow('Help', 20, 'suspend')),
  ],
  ['created the role Help', changed(null, roleRow('Help', 20))],
  ['deleted the role Help', changed(roleRow('Help', 20), null)],
  ['renamed the role Help to Aid', changed(roleRow('Help', 20), roleRow('Aid', 20))],
  ['moved the role Help up from rank 20 to 40', changed(roleRow('Help', 20), roleRow('Help', 40))],
  [
    'allowed the role Help to moderate channels, no longer allowed the role Help to create teams, moved the role Help down from rank 20 to 10',
    changed(roleRow('Help', 20, 'create teams'), roleRow('Help', 10, 'moderate')),
  ],
  [
    'changed the role Help: the description',
    changed(roleRow('Help', 20), { ...roleRow('Help', 20), note: 'N' }),
  ],
  [
    'gave Pilar the role Help',
    { table: 'holdings', id: 'h', before: null, after: held({ over: 'workspace' }) },
  ],
  [
    'gave Pilar the role Help over the people of Boats until 30 Sep',
    { table: 'holdings', id: 'h', before: null, after: held(over, { until: 9 }) },
  ],
  [
    'removed the role Help over guests from Pilar',
    { table: 'holdings', id: 'h', before: held({ over: 'guests' }), after: null },
  ],
  ['requested the role Help', { table: 'requests', id: 'r', before: null, after: requesting(help) }],
  [
    'requested a role that may create teams',
    {
      table: 'requests',
      id: 'r',
      before: null,
      after: requesting({ of: 'privilege', privilege: 'create teams' }),
    },
  ],
  [
    'declined the request of Pilar for the role Help',
    {
      table: 'requests',
      id: 'r',
      before: requesting(help),
      after: requesting(help, { declined: { by: 'o', at: 1, comment: '' } }),
    },
  ],
  [
    'offered to hand over the workspace to Pilar',
    { table: 'handovers', id: 'h', before: null, after: { id: 'h', from: 'o', to: 'p' } },
  ],
  [
    'saw the workspace as Pilar',
    { table: 'viewingSessions', id: 'l', before: null, after: { ...session, through: 'p' } },
  ],
  [
    'opened the outline of all places',
    { table: 'viewingSessions', id: 'l', before: null, after: { ...session, through: null } },
  ],
])('%s', (words, change) => {
  expect(wordsFor(change)).toBe(words)
})

test('what people may do is told for all who gain just the same at once', () => {
  const one = (
    person: string,
    gains: Privilege[],
    loses: Privilege[] = [],
    overWhom: string | null = null,
  ) => ({
    person,
    over: overWhom,
    gains,
    loses,
  })
  expect(powersInWords([])).toBe('')
  expect(
    powersInWords([one('a', ['moderate']), one('b', ['moderate']), one('c', [], ['suspend'], 'Boats')]),
  ).toBe(
    '2 people may now moderate channels. 1 person may no longer suspend people and set when their access ends over Boats.',
  )
  const many = ['moderate', 'create teams', 'own', 'directory', 'suspend'] as const
  expect(powersInWords(many.map((each, index) => one(`p${index}`, [each])))).toBe(
    '5 changes to what 5 people may do in the workspace.',
  )
})

test('a list of privileges is cut where it grows long', () => {
  expect(privilegesListed(['moderate'])).toBe('moderate channels')
  expect(privilegesListed(['moderate', 'create teams'])).toBe('moderate channels and create teams')
  const five: Privilege[] = ['moderate', 'create teams', 'create homes', 'view roles', 'own']
  expect(privilegesListed(five)).toBe('moderate channels, create teams, create shared homes and 2 more')
})
