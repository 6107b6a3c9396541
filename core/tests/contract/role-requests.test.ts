import { describe, expect, test } from 'vitest'
import { mayUse } from '../../access/powers.ts'
import { allRows, rowOf } from '../../base/collection.ts'
import type { HandoverId, PersonId, RequestId } from '../../base/ids.ts'
import { scheduledTransitionsOf } from '../../changes/scheduled.ts'
import { decidersOnRole } from '../../changes/requests/for-role.ts'
import { viewingTime } from '../../people/asking.ts'
import { isForRole } from '../../people/request.ts'
import { snapshotOf } from '../../state/snapshot.ts'
import { type State, workspaceOf } from '../../state/state.ts'
import { after, edit, refusal } from '../judging.ts'
import { holding, member, now, person, team, world, role } from '../world.ts'

/** What waits for another’s word: roles that are asked for, ownership that is offered; and seats, and looking. */

const state = world(
  person('admin'),
  holding('admin', 'role-administrator'),
  person('p'),
  holding('p', 'role-member'),
  person('q'),
  holding('q', 'role-member'),
  person('g', { kind: 'guest' }),
  team('t'),
  member('t', 'p'),
  person('assigner'),
  holding('assigner', 'role-assigner', { over: 'team', team: 't' as never }),
  role('assigner', 50, 'assign roles', 'suspend'),
  role('keeper', 30, 'suspend'),
  role('settler', 30, 'edit settings'),
)
const asking = (wants: object, request = 'r') =>
  edit('request.make', { request, wants, reason: 'For the season' })
const suspending = { of: 'privilege', privilege: 'suspend' }
const asKeeper = { of: 'role', role: 'role-keeper' }
const answering = (gives: object | null) =>
  gives === null
    ? edit('request.decline', { request: 'r', comment: 'No' })
    : edit('request.accept', {
        request: 'r',
        comment: '',
        gives: { of: 'role', holding: 'h new', until: null, ...gives },
      })
const everything = { over: 'workspace' }
const overT = { over: 'team', team: 't' }

describe('a role that is asked for', () => {
  const requested = after(state, 'p', asking(suspending))
  const deciders = (of: State) => {
    const request = rowOf(of.requests, 'r' as RequestId)
    return request === undefined || !isForRole(request)
      ? []
      : decidersOnRole(snapshotOf(of, now), request).sort()
  }

  test('is asked for by members, once, by what it lets one do; by its name where one sees roles', () => {
    expect(refusal(state, 'g', asking(suspending))).toMatchObject({ rule: 'no role' })
    expect(refusal(state, 'p', asking(asKeeper))).toEqual({ code: 'unknown', what: 'role' })
    expect(refusal(state, 'admin', asking(asKeeper))).toBe('allowed')
    expect(refusal(state, 'admin', asking(suspending))).toMatchObject({ code: 'already-there' })
    expect(refusal(requested, 'p', asking(suspending, 'r2'))).toMatchObject({ what: 'role request' })
  })

  test('reaches those who could give it, over what they may', () => {
    expect(deciders(requested)).toEqual(['admin', 'assigner', 'owner'])
    expect(deciders(after(state, 'q', asking(suspending)))).toEqual(['admin', 'owner'])
    expect(deciders(after(state, 'p', asking({ of: 'privilege', privilege: 'change seats' })))).toEqual([
      'owner',
    ])
  })

  test('is given as it was asked for, within rank and scope, and is gone then', () => {
    expect(
      refusal(requested, 'assigner', answering({ role: 'role-keeper', scope: everything })),
    ).toMatchObject({
      code: 'privilege-missing',
    })
    expect(refusal(requested, 'admin', answering({ role: 'role-settler', scope: everything }))).toEqual({
      code: 'not-asked-for',
    })
    const own = after(state, 'admin', asking(asKeeper))
    for (const gives of [{ role: 'role-keeper', scope: everything }, null])
      expect(refusal(own, 'admin', answering(gives))).toEqual({ code: 'unknown', what: 'request' })
    expect(refusal(requested, 'q', answering(null))).toEqual({ code: 'unknown', what: 'request' })
    const given = after(requested, 'assigner', answering({ role: 'role-keeper', scope: overT }))
    expect([allRows(given.requests), given.holdings.size > requested.holdings.size]).toEqual([[], true])
  })

  test('stays with its answer when it is declined, and can be asked for again', () => {
    const declined = after(requested, 'admin', answering(null))
    expect(rowOf(declined.requests, 'r' as RequestId)?.declined).toMatchObject({
      by: 'admin',
      comment: 'No',
    })
    expect(refusal(declined, 'admin', answering({ role: 'role-keeper', scope: everything }))).toMatchObject({
      code: 'unknown',
    })
    const again = after(declined, 'p', asking(suspending, 'r2'))
    expect(allRows(again.requests).map(each => [each.id, each.declined])).toEqual([['r2', null]])
    expect(allRows(after(again, 'p', edit('request.withdraw', { request: 'r2' })).requests)).toEqual([])
    expect(refusal(again, 'q', edit('request.withdraw', { request: 'r2' }))).toMatchObject({
      code: 'unknown',
    })
  })
})

describe('handing over', () => {
  const offer = edit('handover.offer', { handover: 'h', to: 'p', keeps: 'role-administrator', word: '' })
  const taking = (accepted: boolean) =>
    edit('handover.answer', { handover: 'h', accepted, holding: 'h1', kept: 'h2' })
  const offered = after(state, 'owner', offer)
  const owns = (of: State, who: string) => mayUse(snapshotOf(of, now), who as PersonId, 'own')

  test('is offered by owners to members, and takes the other’s assent', () => {
    expect(refusal(state, 'admin', offer)).toMatchObject({ privilege: 'own' })
    for (const to of ['g', 'owner', 'nobody'])
      expect(refusal(state, 'owner', { ...offer, to } as never)).toMatchObject({ code: 'unknown' })
    expect([owns(offered, 'owner'), owns(offered, 'p')]).toEqual([true, false])
    expect(refusal(offered, 'q', taking(true))).toEqual({ code: 'unknown', what: 'handover' })
    const taken = after(offered, 'p', taking(true))
    expect([
      owns(taken, 'owner'),
      owns(taken, 'p'),
      mayUse(snapshotOf(taken, now), 'owner' as PersonId, 'security'),
    ]).toEqual([false, true, true])
    const declined = after(offered, 'p', taking(false))
    expect([owns(declined, 'owner'), rowOf(declined.handovers, 'h' as HandoverId)]).toEqual([true, undefined])
  })

  test('is not taken by somebody who became a guest meanwhile', () => {
    const turning = { as: 'guest', holding: 'x', folder: 'f', grant: 'gr', taker: null }
    const turned = after(
      offered,
      'owner',
      edit('member.remove', { team: 't', person: 'p' }),
      edit('person.convert', { person: 'p', ...turning }),
    )
    expect(refusal(turned, 'p', taking(true))).toMatchObject({ code: 'guest-rule', rule: 'no role' })
    expect(refusal(turned, 'p', taking(false))).toBe('allowed')
  })

  test('gives by the right of who offers it, as that is when it is taken', () => {
    const second = after(
      offered,
      'owner',
      edit('role.assign', {
        holding: 'second',
        person: 'q',
        role: 'role-owner',
        scope: everything,
        from: null,
        until: null,
      }),
    )
    const without = after(second, 'q', edit('role.unassign', { holding: 'owner role-owner' }))
    expect(refusal(without, 'p', taking(true))).toEqual({ code: 'handover-over' })
  })

  test('the last owner cannot go by any other way', () => {
    const ways = [
      edit('role.unassign', { holding: 'owner role-owner' }),
      edit('person.remove', { person: 'owner' }),
      edit('person.suspend', { person: 'owner' }),
      edit('person.end', { person: 'owner', until: now + 5 }),
    ]
    const turned = { as: 'guest', holding: 'x', folder: 'f', grant: 'gr', taker: null }
    expect(refusal(state, 'owner', edit('person.convert', { person: 'owner', ...turned }))).not.toBe(
      'allowed',
    )
    for (const way of ways)
      expect([way.kind, refusal(state, 'owner', way)]).toMatchObject([way.kind, { code: 'no-owner-left' }])
  })
})

test('seats that are planned count from their day on, and a plan is taken back', () => {
  const start = after(state, 'owner', edit('seats.change', { seats: 9 }))
  const planned = after(start, 'owner', edit('seats.change', { seats: 7, from: now + 10 }))
  expect(workspaceOf(planned)).toMatchObject({ seats: 9, seatsNext: { seats: 7, from: now + 10 } })
  const [passing] = scheduledTransitionsOf(planned, now, now + 20)
  expect(passing?.at).toBe(now + 10)
  expect(workspaceOf(passing?.state ?? planned)).toMatchObject({ seats: 7, seatsNext: null })
  const back = after(planned, 'owner', edit('seats.change', { seats: 9, from: now + 10 }))
  expect([workspaceOf(back).seatsNext, scheduledTransitionsOf(back, now, now + 20)]).toEqual([null, []])
  expect(refusal(start, 'owner', edit('seats.change', { seats: 7, from: now }))).toEqual({
    code: 'end-in-past',
  })
  expect(refusal(start, 'admin', edit('seats.change', { seats: 99 }))).toMatchObject({
    privilege: 'change seats',
  })
})

test('one looks by a privilege, with a reason, for a while, and it is never undone', () => {
  const session = (through: string | null, reason = 'A complaint') =>
    edit('session.begin', { session: 'l', through, reason })
  expect(refusal(state, 'p', session('q'))).toEqual({ code: 'privilege-missing', privilege: 'see as' })
  expect(refusal(state, 'p', session(null))).toEqual({
    code: 'privilege-missing',
    privilege: 'see the outline',
  })
  expect(refusal(state, 'admin', session('p', ' '))).toEqual({ code: 'reason-missing' })
  expect(refusal(state, 'admin', session('admin'))).toMatchObject({ code: 'unknown' })
  const viewed = after(state, 'admin', session('p'))
  const [row] = allRows(viewed.viewingSessions)
  expect(row).toMatchObject({ by: 'admin', through: 'p', until: now + viewingTime })
  const change = { table: 'viewingSessions', id: 'l', before: null, after: row }
  expect(refusal(viewed, 'owner', edit('undo', { revision: 1, changes: [change], written: [] }))).toEqual({
    code: 'never-undone',
  })
})

test('a role that anything stands on is not deleted; requests for it go with it', () => {
  const requested = after(state, 'admin', asking({ of: 'role', role: 'role-settler' }))
  const gone = after(requested, 'owner', edit('role.delete', { role: 'role-settler' }))
  expect(allRows(gone.requests)).toEqual([])
  const uses = [
    edit('workspace.change', { twoStepFor: ['role-settler'] }),
    edit('welcome.create', {
      welcome: 'w',
      name: 'W',
      note: '',
      offer: { as: 'member', role: 'role-settler', teams: [], places: [], from: null, until: null },
    }),
    edit('handover.offer', { handover: 'h', to: 'p', keeps: 'role-settler', word: '' }),
  ]
  for (const use of uses)
    expect([
      use.kind,
      refusal(after(state, 'owner', use), 'owner', edit('role.delete', { role: 'role-settler' })),
    ]).toEqual([use.kind, { code: 'in-use', what: 'role' }])
})
