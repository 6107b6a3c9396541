import fc from 'fast-check'
import type { Edit } from '../changes/edit.ts'
import { allRows } from '../base/collection.ts'
import type { TableName } from '../state/kinds.ts'
import { pathOf, type State } from '../state/state.ts'
import { edit } from './judging.ts'
import { now } from './world.ts'
import { anyActions, anyGrant, anyLimit, anySpan, nodeIds, personIds } from './worlds.ts'

/** Random edits, drafted at a random world. */

const nodeId = fc.constantFrom(...nodeIds)
const nth = fc.nat(9)
const anyUntil = anySpan.map(span => span.until)

/** From where it is into another place that holds folders: most pairs of nodes make no sense. */
const anyMove = fc.record({ nth, to: nth }).map(({ nth, to }) => (state: State) => {
  const movable = allRows(state.nodes).filter(each => each.parent !== null && each.parent !== 'root')
  const node = movable[nth % Math.max(movable.length, 1)]
  const goals = allRows(state.nodes).filter(
    each => each.parent !== null && node !== undefined && !pathOf(state, each.id).includes(node),
  )
  const parent = goals[to % Math.max(goals.length, 1)]
  return node === undefined || parent === undefined
    ? []
    : [edit('node.move', { node: node.id, parent: parent.id })]
})

/** An edit of any kind that changes access, at a world whose records it may name by number. */
export const anyEdit: fc.Arbitrary<(state: State) => Edit[]> = fc.oneof(
  anyGrant.map(({ row }) => () => [edit('grant.add', { ...row, grant: `new ${row.id}` })]),
  anyLimit.map(({ row }) => () => [edit('limit.add', { ...row, limit: `new ${row.id}` })]),
  fc.record({ nth, gives: anyActions.filter(set => set > 0), until: anyUntil }).map(
    ({ nth, ...fields }) =>
      (state: State) =>
        allRows(state.grants)
          .slice(nth, nth + 1)
          .map(({ id }) => edit('grant.change', { grant: id, ...fields })),
  ),
  fc.record({ nth, allows: anyActions, until: anyUntil }).map(
    ({ nth, ...fields }) =>
      (state: State) =>
        allRows(state.limits)
          .slice(nth, nth + 1)
          .map(({ id }) => edit('limit.change', { limit: id, ...fields })),
  ),
  nth.map(
    nth => (state: State) =>
      allRows(state.grants)
        .slice(nth, nth + 1)
        .map(({ id }) => edit('grant.end', { grant: id })),
  ),
  nth.map(
    nth => (state: State) =>
      allRows(state.limits)
        .slice(nth, nth + 1)
        .map(({ id }) => edit('limit.end', { limit: id })),
  ),
  fc
    .record({ node: nodeId, mode: fc.constantFrom('keep', 'empty') })
    .map(fields => () => [edit('node.break', { ...fields, copies: 'copy' })]),
  fc
    .record({ node: nodeId, drop: fc.constantFrom('copies', 'none', 'own') })
    .map(fields => () => [edit('node.restore', fields)]),
  anyMove,
  fc
    .record({
      node: nodeId,
      state: fc.constantFrom(
        { archived: true },
        { archived: false },
        { binned: true },
        { binned: false },
        { draft: true },
        { archived: true, draft: false },
      ),
    })
    .map(({ node, state }) => () => [edit('node.state', { node, ...state })]),
)

export const anyPolicy: fc.Arbitrary<(state: State) => Edit[]> = fc.oneof(
  fc
    .record({ node: nodeId, web: fc.constantFrom('published', 'excluded', null) })
    .map(fields => () => [edit('node.web', fields)]),
  fc.record({ node: nodeId, order: fc.integer() }).map(fields => () => [edit('node.order', fields)]),
  anyActions.map(actions => () => [edit('level.change', { level: 'l0', actions })]),
  fc
    .record({ guestCeiling: anyActions, allowsPublishing: fc.boolean() })
    .map(fields => () => [edit('workspace.change', fields)]),
  fc
    .record({ team: fc.constantFrom('t0', 't1'), archived: fc.boolean() })
    .map(fields => () => [edit('team.archive', fields)]),
)

const anybody = fc.constantFrom(...personIds)
const anyRow = (table: TableName, draft: (id: string) => Edit) =>
  nth.map(
    nth => (state: State) =>
      allRows(state[table] as State['nodes'])
        .slice(nth, nth + 1)
        .map(({ id }) => draft(id)),
  )

/** People come to be guests, leave and take over; roles and teams change. Only the owner may most of it. */
export const anyStanding: fc.Arbitrary<(state: State) => Edit[]> = fc.oneof(
  anybody.map(person => () => [edit('person.suspend', { person })]),
  { weight: 4, arbitrary: anybody.map(person => () => [edit('person.reactivate', { person })]) },
  anybody.map(person => () => [edit('person.remove', { person })]),
  fc.record({ person: anybody, until: anyUntil }).map(fields => () => [edit('person.end', fields)]),
  fc.record({ person: anybody, as: fc.constantFrom('member', 'guest') }).map(fields => () => [
    edit('person.convert', {
      ...fields,
      taker: null,
      holding: 'turned',
      folder: 'turned',
      grant: 'turned',
    }),
  ]),
  // Seldom is a place without any steward.
  {
    weight: 5,
    arbitrary: fc
      .record({ node: nodeId, taker: anybody })
      .map(fields => () => [edit('access.recover', { ...fields, grant: 'recovered', limits: [] })]),
  },
  fc
    .record({ team: fc.constantFrom('t0', 't1'), welcomesGuests: fc.boolean() })
    .map(fields => () => [edit('team.change', fields)]),
  fc
    .record({ team: fc.constantFrom('t0', 't1'), person: anybody, lead: fc.boolean(), until: anyUntil })
    .map(fields => () => [edit('member.add', { ...fields, membership: 'added', from: null })]),
  fc
    .record({ team: fc.constantFrom('t0', 't1'), keptByDirectory: fc.boolean() })
    .map(fields => () => [edit('team.change', fields)]),
  nth.chain(nth =>
    fc
      .record({
        lead: fc.constantFrom(undefined, true, false),
        until: fc.constantFrom(undefined, null, now + 7),
      })
      .map(
        fields => (state: State) =>
          allRows(state.memberships)
            .slice(nth, nth + 1)
            .map(({ team, person }) => edit('member.change', { team, person, ...fields })),
      ),
  ),
  anyRow('memberships', id => {
    const [team, person] = id.split(' ')
    return edit('member.remove', { team, person })
  }),
  {
    weight: 4,
    arbitrary: fc
      .record({ node: nodeId, parent: nodeId })
      .map(fields => () => [edit('node.duplicate', { ...fields, name: 'Copy', copies: 'dup' })]),
  },
  { weight: 3, arbitrary: nodeId.map(node => () => [edit('node.delete', { node })]) },
  fc
    .record({ person: anybody, role: fc.constantFrom('role-owner', 'role-people-lead') })
    .map(fields => () => [
      edit('role.assign', {
        ...fields,
        holding: 'given',
        scope: { over: 'workspace' },
        from: null,
        until: null,
      }),
    ]),
  { weight: 3, arbitrary: anyRow('holdings', holding => edit('role.unassign', { holding })) },
)
