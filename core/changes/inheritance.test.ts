import { describe, expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { allRows } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { levelActions } from '../levels/level.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { after, edit, editor, giving, reader, refusal, steward } from '../tests/judging.ts'
import { grant, holding, member, node, now, type Part, person, role, team, world } from '../tests/world.ts'

describe('breaking and restoring', () => {
  const parts: Part[] = [
    person('s'),
    person('p'),
    team('t'),
    member('t', 'p', { until: now + 30 }),
    member('t', 's', { until: now + 40 }),
    node('a', 'root'),
    node('b', 'a'),
    grant('a', 'person:s', steward),
    grant('a', 'team:t', editor, { until: now + 20 }),
    grant('a', 'everyone', reader, { from: now + 10 }),
  ]
  const breaking = (mode: string) => edit('node.break', { node: 'b', mode, copies: 'copy' })
  const restoring = (drop: string) => edit('node.restore', { node: 'b', drop })
  const actionsAt = (state: State, who: string, at = now) =>
    check(snapshotOf(state, at), who as PersonId, 'b' as NodeId)

  test('starting empty leaves the node’s own grants, and the author for as long', () => {
    const state = after(world(...parts), 's', breaking('empty'))
    expect([actionsAt(state, 's'), actionsAt(state, 'p'), actionsAt(state, 'p', now + 15)]).toEqual([
      steward,
      0,
      0,
    ])
    expect(actionsAt(after(state, 's', restoring('copies')), 'p')).toBe(editor)
  })

  test('who leaves in the same change set is left nothing', () => {
    const guards = [role('keeper', 70, 'remove'), holding('s', 'role-keeper')]
    const state = after(
      world(...parts, ...guards, grant('b', 'person:owner', steward)),
      's',
      edit('person.remove', { person: 's' }),
      breaking('empty'),
    )
    expect(allRows(state.grants).filter(each => each.principal === 'person:s')).toEqual([])
  })

  test('keeping changes nobody’s access, now, when something ends or when something begins', () => {
    const before = world(...parts)
    const state = after(before, 's', breaking('keep'))
    for (const at of [now, now + 15, now + 25, now + 35])
      for (const who of ['s', 'p', 'owner'])
        expect(actionsAt(state, who, at)).toBe(actionsAt(before, who, at))
  })

  test('restoring drops the copies, keeps all, or drops all of the node’s own', () => {
    const kept = after(world(...parts, grant('b', 'person:owner', reader)), 's', breaking('keep'))
    const own = (drop: string) =>
      allRows(after(kept, 's', restoring(drop)).grants).filter(each => each.node === 'b').length
    expect([own('copies'), own('none'), own('own')]).toEqual([1, 4, 0])
  })

  test('needs seal, and something to do', () => {
    const sharer = grant('b', 'person:p', 0b10000001 as never)
    expect(refusal(world(...parts, sharer), 'p', breaking('empty'))).toMatchObject({
      code: 'action-missing',
      action: 'seal',
    })
    expect(refusal(world(...parts), 's', restoring('none'))).toEqual({ code: 'unknown', what: 'break' })
    expect(refusal(after(world(...parts), 's', breaking('keep')), 's', breaking('empty'))).toMatchObject({
      what: 'break',
    })
  })
})

describe('limits', () => {
  const parts: Part[] = [
    person('s'),
    person('e'),
    person('g', { kind: 'guest' }),
    node('a', 'root'),
    grant('a', 'person:s', steward),
    grant('a', 'person:owner', steward),
    grant('a', 'person:e', editor),
    grant('a', 'person:g', editor),
  ]
  const limiting = (principal: string, allows: number, more: object = {}) =>
    edit('limit.add', {
      limit: 'l',
      node: 'a',
      principal,
      allows,
      sparesStewards: true,
      from: null,
      until: null,
      ...more,
    })
  const all = (state: State) =>
    ['s', 'e', 'g'].map(id => check(snapshotOf(state, now), id as PersonId, 'a' as NodeId))

  test('lower a guest, all guests, or all members but stewards', () => {
    expect(all(after(world(...parts), 's', limiting('person:g', reader)))).toEqual([steward, editor, reader])
    expect(all(after(world(...parts), 's', limiting('guests', 0)))).toEqual([steward, editor, 0])
    expect(all(after(world(...parts), 's', limiting('everyone', reader)))).toEqual([steward, reader, editor])
  })

  test('are set with share, and lifted by whoever has what they kept out', () => {
    expect(refusal(world(...parts), 'e', limiting('guests', 0))).toMatchObject({ action: 'share' })
    const limited = after(world(...parts, grant('a', 'team:x', reader)), 's', limiting('guests', reader))
    expect(refusal(limited, 's', edit('limit.end', { limit: 'l' }))).toBe('allowed')
    expect(refusal(limited, 'e', edit('limit.end', { limit: 'l' }))).toEqual({
      code: 'unknown',
      what: 'limit',
    })
    const narrow = world(...parts, person('n'), grant('a', 'person:n', 0b10000011 as never))
    const tight = after(narrow, 's', limiting('guests', 1))
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', allows: reader }))).toBe('allowed')
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', allows: editor }))).toMatchObject({
      code: 'gives-more',
      lacks: ['comment', 'add', 'change'],
    })
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', sparesStewards: false }))).toBe('allowed')
    expect(refusal(tight, 'n', edit('limit.change', { limit: 'l', until: now + 5 }))).toMatchObject({
      code: 'gives-more',
    })
  })

  test('on oneself are not loosened by oneself', () => {
    const own = after(world(...parts), 'owner', limiting('person:s', 0b10000011))
    expect(refusal(own, 's', edit('limit.end', { limit: 'l' }))).toEqual({ code: 'own-limit' })
    expect(refusal(own, 's', edit('limit.change', { limit: 'l', allows: 0b10000001 }))).toBe('allowed')
    expect(refusal(own, 'owner', edit('limit.end', { limit: 'l' }))).toBe('allowed')
  })
})

describe('states and moves', () => {
  const parts: Part[] = [
    person('c'),
    person('p'),
    node('a', 'root'),
    node('b', 'a'),
    node('d', 'b'),
    node('x', 'root'),
    grant('root', 'person:owner', steward),
    grant('a', 'person:c', levelActions('Curator')),
    grant('x', 'person:c', levelActions('Adder')),
    grant('x', 'person:p', reader),
  ]
  const setting = (id: string, state: object) => edit('node.state', { node: id, ...state })
  const moving = (id: string, parent: string) => edit('node.move', { node: id, parent })

  test('what is archived is not edited, and comes back by those who could remove it', () => {
    const archived = after(world(...parts), 'c', setting('b', { archived: true }))
    expect(refusal(archived, 'c', edit('node.describe', { node: 'd', name: 'N' }))).toMatchObject({
      action: 'change',
    })
    expect(refusal(archived, 'c', setting('b', { archived: false }))).toBe('allowed')
    expect(refusal(archived, 'owner', giving('d', 'person:p', editor))).toBe('allowed')
  })

  test('nothing in the bin is edited but bringing back its top', () => {
    const binned = after(world(...parts), 'c', setting('b', { binned: true }))
    for (const id of ['b', 'd']) {
      expect(refusal(binned, 'c', edit('node.describe', { node: id, name: 'N' }))).toMatchObject({
        code: 'unknown',
      })
      expect(refusal(binned, 'owner', giving(id, 'person:p', reader))).toMatchObject({ code: 'unknown' })
    }
    expect(refusal(binned, 'c', setting('d', { binned: false }))).toMatchObject({ code: 'unknown' })
    expect(refusal(binned, 'p', setting('b', { binned: false }))).toMatchObject({ code: 'unknown' })
    expect(refusal(binned, 'c', setting('b', { binned: false }))).toBe('allowed')
  })

  test('a move needs share if anybody gains by it, and ends in no circle', () => {
    expect(refusal(world(...parts), 'c', moving('b', 'x'))).toMatchObject({
      code: 'action-missing',
      action: 'share',
      node: 'b',
    })
    const nobodyGains = world(...parts.filter(each => each.row.id !== 'x person:p'))
    expect(refusal(nobodyGains, 'c', moving('b', 'x'))).toBe('allowed')
    expect(refusal(world(...parts), 'owner', moving('b', 'd'))).toMatchObject({ kind: 'own subtree' })
    expect(refusal(world(...parts), 'owner', moving('a', 'x'))).toMatchObject({ kind: 'home' })
  })

  test('suspending is a matter of rank, and never leaves no owner; stewards may fall', () => {
    const staff = [
      person('admin'),
      holding('admin', 'role-administrator'),
      person('lead'),
      holding('lead', 'role-people-lead'),
      person('peer'),
      holding('peer', 'role-people-lead'),
    ]
    const suspending = (id: string) => edit('person.suspend', { person: id })
    const state = world(...parts, ...staff, node('only', 'root'), grant('only', 'person:lead', steward))
    expect(refusal(state, 'admin', suspending('owner'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'lead', suspending('peer'))).toMatchObject({ code: 'outranked' })
    expect(refusal(state, 'p', suspending('lead'))).toMatchObject({ what: 'person' })
    expect(refusal(state, 'lead', suspending('p'))).toBe('allowed')
    expect(refusal(state, 'owner', suspending('owner'))).toEqual({ code: 'no-owner-left' })
    const suspended = after(state, 'admin', suspending('lead'))
    expect(check(snapshotOf(suspended, now), 'lead' as PersonId, 'only' as NodeId)).toBe(0)
    expect(refusal(suspended, 'admin', edit('person.reactivate', { person: 'lead' }))).toBe('allowed')
  })
})
