import { describe, expect, test } from 'vitest'
import { check } from '../access/evaluate.ts'
import { placeOf } from '../access/place.ts'
import { isPublic } from '../access/public.ts'
import { rowOf } from '../base/collection.ts'
import type { NodeId, PersonId } from '../base/ids.ts'
import { actions, noActions } from '../levels/action.ts'
import { levelActions } from '../levels/level.ts'
import { snapshotOf } from '../state/snapshot.ts'
import type { State } from '../state/state.ts'
import { after, edit, editor, giving, reader, refusal, steward } from '../tests/judging.ts'
import {
  broken,
  grant,
  holding,
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
} from '../tests/world.ts'

const onTheWeb = (state: State, at: string) => {
  const snapshot = snapshotOf(state, now)
  const place = placeOf(snapshot, at as NodeId)
  return place !== undefined && isPublic(snapshot, place)
}

const may = (state: State, who: string, at: string) =>
  check(snapshotOf(state, now), who as PersonId, at as NodeId)

describe('publishing', () => {
  const home = { home: { of: 'team', team: 't' as never } } as const
  const parts: Part[] = [
    person('s'),
    person('e'),
    team('t'),
    member('t', 's', { lead: true }),
    node('a', 'root', home),
    node('b', 'a'),
    node('c', 'b'),
    grant('a', 'person:s', steward),
    grant('a', 'person:e', levelActions('Curator')),
  ]
  const setting = (at: string, web: string | null) => edit('node.web', { node: at, web })
  const published = after(world(...parts), 's', setting('a', 'published'))
  const seen = (state: State) => ['a', 'b', 'c'].filter(at => onTheWeb(state, at))

  test('needs publish, and reaches down to exclusions, drafts and breaks', () => {
    expect(refusal(world(...parts), 'e', setting('a', 'published'))).toMatchObject({ action: 'publish' })
    expect(seen(published)).toEqual(['a', 'b', 'c'])
    expect(seen(after(published, 's', setting('b', 'excluded')))).toEqual(['a'])
    expect(seen(after(published, 's', edit('node.state', { node: 'c', draft: true })))).toEqual(['a', 'b'])
    expect(seen(after(published, 's', edit('node.break', { node: 'b', mode: 'keep', copies: 'k' })))).toEqual(
      ['a'],
    )
    expect(seen(world(...parts, node('d', 'a', { ...broken, web: 'published' })))).toEqual([])
    expect(onTheWeb(world(...parts, node('d', 'a', { ...broken, web: 'published' })), 'd')).toBe(true)
  })

  test('gives nobody who is signed in anything', () => {
    expect(may(after(world(...parts, person('p')), 's', setting('a', 'published')), 'p', 'a')).toBe(noActions)
  })

  test('is kept out by limits on everybody without see, not by those on somebody', () => {
    for (const principal of ['anyone', 'everyone', 'guests'] as const) {
      expect(
        seen(world(...parts, node('a', 'root', { ...home, web: 'published' }), limit('b', principal))),
      ).toEqual(['a'])
    }
    expect(
      seen(world(...parts, node('a', 'root', { ...home, web: 'published' }), limit('b', 'person:e'))),
    ).toHaveLength(3)
  })

  test('follows the policies of the workspace and the team', () => {
    const off = { code: 'publishing-off' }
    const closed = after(world(...parts), 'owner', edit('workspace.change', { allowsPublishing: false }))
    expect(refusal(closed, 's', setting('a', 'published'))).toEqual(off)
    const noTeam = after(world(...parts), 's', edit('team.change', { team: 't', allowsPublishing: false }))
    expect(refusal(noTeam, 's', setting('c', 'published'))).toEqual(off)
    expect(seen(after(published, 'owner', edit('workspace.change', { allowsPublishing: false })))).toEqual([])
  })

  test('ends with archiving, the team’s too, and with the bin, and stays ended', () => {
    const ways: [object, object][] = [
      [edit('node.state', { node: 'b', archived: true }), edit('node.state', { node: 'b', archived: false })],
      [edit('node.state', { node: 'b', binned: true }), edit('node.state', { node: 'b', binned: false })],
    ]
    const deep = after(world(...parts), 's', setting('c', 'published'))
    for (const [away, back] of ways)
      expect(seen(after(after(deep, 's', away as never), 's', back as never))).toEqual([])
    const archived = after(deep, 's', edit('team.archive', { team: 't', archived: true }))
    expect(refusal(archived, 's', setting('a', 'published'))).toMatchObject({ action: 'publish' })
    expect(seen(after(archived, 's', edit('team.archive', { team: 't', archived: false })))).toEqual([])
  })

  test('by a move needs publish at what is moved', () => {
    const other = world(
      ...parts,
      node('out', 'root'),
      node('x', 'out'),
      grant('out', 'person:s', steward),
      grant('out', 'person:e', levelActions('Curator')),
      grant('x', 'person:e', actions('share')),
    )
    const state = after(other, 's', setting('a', 'published'))
    const moving = edit('node.move', { node: 'x', parent: 'b' })
    expect(refusal(state, 'e', moving)).toMatchObject({ code: 'action-missing', action: 'publish' })
    expect(onTheWeb(after(state, 's', moving), 'x')).toBe(true)
  })
})

describe('levels of the workspace’s own', () => {
  const parts: Part[] = [
    person('a'),
    holding('a', 'role-administrator'),
    person('p'),
    level('scribe', editor),
    node('n', 'root'),
    grant('n', 'person:owner', steward),
  ]
  const given = after(world(...parts), 'owner', giving('n', 'person:p', 'scribe' as never))

  test('are held by reference: changing one changes what it gives', () => {
    expect(may(given, 'p', 'n')).toBe(editor)
    expect(may(after(given, 'a', edit('level.change', { level: 'scribe', actions: reader })), 'p', 'n')).toBe(
      reader,
    )
  })

  test('need their privilege, raise nobody’s own access, and stay while they are used', () => {
    expect(refusal(given, 'p', edit('level.change', { level: 'scribe', name: 'Clerk' }))).toMatchObject({
      privilege: 'edit levels',
    })
    const mine = after(given, 'owner', giving('n', 'person:a', 'scribe' as never))
    expect(refusal(mine, 'a', edit('level.change', { level: 'scribe', actions: steward }))).toMatchObject({
      code: 'own-raise',
    })
    const deleting = edit('level.delete', { level: 'scribe' })
    expect(refusal(given, 'a', deleting)).toEqual({ code: 'in-use', what: 'level' })
    expect(rowOf(after(world(...parts), 'a', deleting).levels, 'scribe' as never)).toBeUndefined()
    expect(refusal(world(...parts), 'owner', giving('n', 'person:p', 'unknown' as never))).toMatchObject({
      what: 'level',
    })
  })
})

describe('policies and order', () => {
  test('the ceiling needs security, and holds every guest at once', () => {
    const state = world(
      person('g', { kind: 'guest' }),
      person('m'),
      holding('m', 'role-people-lead'),
      node('n', 'root'),
      grant('n', 'person:g', editor),
      workspace(),
    )
    const lowering = edit('workspace.change', { guestCeiling: reader })
    expect(refusal(state, 'm', lowering)).toMatchObject({ privilege: 'security' })
    expect(may(after(state, 'owner', lowering), 'g', 'n')).toBe(reader)
    expect(refusal(state, 'm', edit('workspace.change', { name: 'Ours' }))).toMatchObject({
      privilege: 'edit settings',
    })
  })

  test('a team is archived by its leads or by who may archive any, and only read then', () => {
    const state = world(
      person('l'),
      person('m'),
      person('a'),
      holding('a', 'role-administrator'),
      team('t'),
      member('t', 'l', { lead: true }),
      member('t', 'm'),
      node('h', 'root', { home: { of: 'team', team: 't' as never } }),
      grant('h', 'leads:t', steward),
      grant('h', 'team:t', editor),
    )
    const archiving = edit('team.archive', { team: 't', archived: true })
    expect(refusal(state, 'm', archiving)).toEqual({ code: 'lead-missing', team: 't' })
    for (const who of ['l', 'a']) expect(may(after(state, who, archiving), 'm', 'h')).toBe(actions('copy'))
  })

  test('ordering needs arrange at the parent', () => {
    const state = world(person('p'), node('n', 'root'), node('c', 'n'), grant('n', 'person:p', editor))
    const ordering = edit('node.order', { node: 'c', order: 3 })
    expect(refusal(state, 'p', ordering)).toMatchObject({ action: 'arrange', node: 'n' })
    const raised = world(
      person('p'),
      node('n', 'root'),
      node('c', 'n'),
      grant('n', 'person:p', levelActions('Curator')),
    )
    expect(rowOf(after(raised, 'p', ordering).nodes, 'c' as NodeId)?.order).toBe(3)
  })
})
