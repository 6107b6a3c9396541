import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import type { UndoChangeSet } from '../../changes/edits/undo.ts'
import { undoingOf } from '../../changes/undo.ts'
import { applyChanges, pathOf, type State } from '../../state/state.ts'
import {
  after,
  done,
  edit,
  giving,
  making,
  moving,
  publishing,
  reader,
  refusal,
  setting,
  steward,
  turning,
} from '../judging.ts'
import { grant, holding, node, now, person, role, world } from '../world.ts'

/** What undoing leaves out and says so, and what it meets like any edit. */

const leftOut = (state: State, back: UndoChangeSet) =>
  undoingOf(state, now, back).leftOut.map(each => `${each.change.id}: ${each.why}`)

describe('no place ever stands in itself', () => {
  const home = world(
    person('m'),
    node('home', 'root'),
    node('a', 'home'),
    node('x', 'a'),
    grant('home', 'person:m', steward),
  )

  test('undoing a move leaves out what would close a ring, and says so', () => {
    const first = done(home, 'm', moving('x', 'home'))
    const second = after(first.state, 'm', moving('a', 'x'))
    expect(refusal(second, 'm', first.back)).toEqual({ code: 'nothing-to-undo' })
    expect(leftOut(second, first.back)).toEqual(['x: within itself'])
  })

  test('two moves that are taken back together may close one, too', () => {
    const swapped = done(
      after(home, 'm', making('b', 'x', 'folder'), making('c', 'home', 'folder')),
      'm',
      moving('b', 'home'),
      moving('c', 'b'),
    )
    const turned = after(swapped.state, 'm', moving('x', 'b'))
    const undone = after(turned, 'm', swapped.back)
    for (const { id } of allRows(undone.nodes)) expect(pathOf(undone, id).at(-1)?.kind).toBe('root')
    expect(leftOut(turned, swapped.back)).toEqual(['b: within itself'])
  })

  test('a state in which one does cannot be made', () => {
    const row = (id: string) => rowOf(home.nodes, id as NodeId)
    const [a] = [row('a')]
    const change = { table: 'nodes', id: 'a', before: a, after: { ...a, parent: 'x' } }
    expect(() => applyChanges(home, [change as never])).toThrow('in itself')
    const made = [
      { ...a, id: 'r1', parent: 'r2' },
      { ...a, id: 'r2', parent: 'r1' },
    ].map(after => ({ table: 'nodes', id: after.id, before: null, after }))
    expect(() => applyChanges(home, made as never)).toThrow('in itself')
  })
})

describe('undoing', () => {
  const base = [
    person('m'),
    person('g', { kind: 'guest' }),
    holding('m', 'role-member'),
    node('home', 'root'),
    node('a', 'home'),
    node('b', 'a'),
    grant('home', 'person:m', steward),
    grant('home', 'person:owner', steward),
  ]
  const state = world(...base)

  test('says what it leaves out since it lies in the bin, what is set there too', () => {
    const first = done(
      state,
      'm',
      edit('node.describe', { node: 'b', name: 'B' }),
      making('c', 'a'),
      giving('b', 'everyone', reader),
      edit('node.describe', { node: 'home', name: 'H' }),
    )
    const binned = after(first.state, 'm', setting('a', { binned: true }))
    expect(leftOut(binned, first.back).sort()).toEqual([
      'b everyone new: in the bin',
      'b: in the bin',
      'c: in the bin',
    ])
    expect(refusal(binned, 'm', first.back)).toBe('allowed')
    const ended = done(first.state, 'm', edit('grant.end', { grant: 'b everyone new' }))
    const later = after(ended.state, 'm', setting('a', { binned: true }))
    expect(leftOut(later, ended.back)).toEqual(['b everyone new: in the bin'])
  })

  test('brings back from the bin, and no more than that', () => {
    const gone = done(
      state,
      'm',
      edit('node.describe', { node: 'a', name: 'A' }),
      setting('a', { binned: true }),
    )
    expect(leftOut(gone.state, gone.back)).toEqual(['a: in the bin'])
    const back = after(gone.state, 'm', gone.back)
    expect(rowOf(back.nodes, 'a' as NodeId)).toMatchObject({ binned: null, name: 'A' })
  })

  test('publishes nothing against the policy, in an archive, or what an archive took from the web', () => {
    const published = after(state, 'm', publishing('a'))
    const withdrawn = done(published, 'm', edit('node.web', { node: 'a', web: null }))
    const closed = after(withdrawn.state, 'owner', edit('workspace.change', { allowsPublishing: false }))
    expect(refusal(closed, 'm', withdrawn.back)).toEqual({ code: 'publishing-off' })
    const archived = after(withdrawn.state, 'm', setting('home', { archived: true }))
    expect(leftOut(archived, withdrawn.back)).toEqual(['a: stays withdrawn'])
    const archiving = done(published, 'm', setting('home', { archived: true }))
    expect(leftOut(archiving.state, archiving.back)).toEqual(['a: stays withdrawn'])
    expect(rowOf(after(archiving.state, 'm', archiving.back).nodes, 'a' as NodeId)?.web).toBeNull()
    expect(refusal(state, 'm', setting('home', { archived: true }), publishing('a'))).toMatchObject({
      action: 'publish',
    })
  })

  test('gives no stewardship to who is a guest by now, and nothing to who was removed', () => {
    const member = world(...base, person('p'), holding('p', 'role-member'))
    const given = done(member, 'm', giving('a', 'person:p', steward))
    const taken = done(given.state, 'm', edit('grant.end', { grant: 'a person:p new' }))
    const guest = after(taken.state, 'owner', turning('p'))
    expect(refusal(guest, 'm', taken.back)).toMatchObject({ rule: 'no stewardship' })
    const removed = after(taken.state, 'owner', edit('person.remove', { person: 'p' }))
    expect(leftOut(removed, taken.back)).toEqual(['a person:p new: gone'])
    expect(refusal(removed, 'm', taken.back)).toEqual({ code: 'nothing-to-undo' })
  })

  test('makes no role the first one that outranks its author, and orders nothing in an archive', () => {
    const settings = role('settings', 50, 'edit settings', 'assign roles')
    const ranked = world(...base, settings, role('high', 70), holding('m', 'role-settings'))
    const set = after(ranked, 'owner', edit('workspace.change', { defaultRole: 'role-high' }))
    const back = done(set, 'owner', edit('workspace.change', { defaultRole: 'role-member' }))
    expect(refusal(back.state, 'm', back.back)).toMatchObject({ code: 'outranked' })
    const ordered = done(state, 'm', edit('node.order', { node: 'b', order: 5 }))
    const archived = after(ordered.state, 'm', setting('home', { archived: true }))
    expect(refusal(archived, 'm', ordered.back)).toMatchObject({ action: 'arrange' })
  })
})
