import fc from 'fast-check'
import type { Span } from '../base/instant.ts'
import { actions, allActions } from '../levels/action.ts'
import type { Principal } from '../rules/principal.ts'
import type { State } from '../state/state.ts'
import type { LevelId, PersonId } from '../base/ids.ts'
import type { Gives } from '../rules/access-entry.ts'
import {
  broken,
  grant,
  level,
  limit,
  member,
  node,
  now,
  type Part,
  person,
  team,
  workspace,
  world,
} from './world.ts'

/** Random small workspaces, with every feature that changes access. */

export const personIds = ['owner', 'p0', 'p1', 'p2', 'p3'] as const
export const nodeIds = ['root', 'n0', 'n1', 'n2', 'n3', 'n4', 'n5', 'n6'] as const
const teamIds = ['t0', 't1'] as const

export const anyActions = fc.subarray([...allActions]).map(names => actions(...names))

/** The level of its own that every random workspace has. */
const ownLevel = 'l0' as LevelId
const anyGives: fc.Arbitrary<Gives> = fc.oneof({ weight: 4, arbitrary: anyActions }, fc.constant(ownLevel))

export const anySpan: fc.Arbitrary<Span> = fc.record({
  from: fc.constantFrom(null, null, null, now - 5, now + 5),
  until: fc.constantFrom(null, null, null, now - 2, now + 10, now + 20),
})

const anyPerson = (id: string): fc.Arbitrary<Part> =>
  fc
    .record({
      kind: fc.constantFrom('member' as const, 'member' as const, 'guest' as const),
      status: fc.constantFrom(...(['active', 'active', 'active', 'invited', 'suspended'] as const)),
      span: anySpan,
    })
    .map(({ kind, status, span }) => person(id, { kind, status, ...span }))

const anyTeam = (id: string): fc.Arbitrary<Part> =>
  fc
    .record({
      welcomesGuests: fc.boolean(),
      archived: fc.constantFrom(false, false, true),
      joining: fc.constantFrom(...(['request', 'open', 'everyone'] as const)),
      allowsPublishing: fc.constantFrom(true, true, false),
      keptByDirectory: fc.constantFrom(false, false, false, true),
    })
    .map(more => team(id, more))

const anyMembership = fc
  .record({
    team: fc.constantFrom(...teamIds),
    person: fc.constantFrom(...personIds),
    lead: fc.boolean(),
    span: anySpan,
  })
  .map(({ team, person, lead, span }) => member(team, person, { lead, ...span }))

/** Each node's parent comes before it, so there is no cycle; teams' homes stand under the root. */
const anyNode = (index: number): fc.Arbitrary<Part> =>
  fc
    .record({
      parent: fc.constantFrom(...nodeIds.slice(0, index + 1)),
      isBroken: fc.constantFrom(false, false, true),
      draft: fc.constantFrom(false, false, false, true),
      archived: fc.constantFrom(false, false, false, false, true),
      binned: fc.constantFrom(null, null, null, null, null, { by: 'owner' as PersonId, at: now - 8 }),
      web: fc.constantFrom(null, null, null, 'published' as const, 'published' as const, 'excluded' as const),
      maker: fc.constantFrom(...personIds),
      team: fc.constantFrom(...teamIds, null),
    })
    .map(({ parent, isBroken, maker, team, ...states }) =>
      node(`n${index}`, parent, {
        ...states,
        ...(isBroken ? broken : {}),
        maker: maker as never,
        home: parent === 'root' && team !== null ? { of: 'team', team: team as never } : null,
      }),
    )

export const principals: readonly Principal[] = [
  'everyone',
  ...personIds.map(id => `person:${id}` as const),
  ...teamIds.flatMap(id => [`team:${id}`, `leads:${id}`] as const),
]

export const anyGrant = fc
  .record({
    at: fc.constantFrom(...nodeIds),
    to: fc.constantFrom(...principals),
    gives: anyGives,
    span: anySpan,
    id: fc.nat(9),
  })
  .map(({ at, to, gives, span, id }) => grant(at, to, gives, { ...span, id: `g ${at} ${to} ${id}` as never }))

export const anyLimit = fc
  .record({
    at: fc.constantFrom(...nodeIds),
    to: fc.constantFrom<Principal>(...principals, 'guests', 'anyone'),
    allows: anyActions,
    span: anySpan,
    sparesStewards: fc.boolean(),
  })
  .map(({ at, to, allows, span, sparesStewards }) => limit(at, to, allows, { ...span, sparesStewards }))

export const anyWorld: fc.Arbitrary<State> = fc
  .tuple(
    fc.tuple(
      anyActions.map(actions => level(ownLevel, actions)),
      fc.constantFrom(true, true, true, false).map(allowsPublishing => workspace({ allowsPublishing })),
    ),
    fc.tuple(...personIds.slice(1).map(anyPerson)),
    fc.tuple(...teamIds.map(anyTeam)),
    fc.uniqueArray(anyMembership, { maxLength: 6, selector: ({ row }) => row.id }),
    fc.tuple(...nodeIds.slice(1).map((_, index) => anyNode(index))),
    fc.uniqueArray(anyGrant, { maxLength: 10, selector: ({ row }) => row.id }),
    fc.uniqueArray(anyLimit, { maxLength: 4, selector: ({ row }) => row.id }),
  )
  .map(parts => world(...parts.flat()))
