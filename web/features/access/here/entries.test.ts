import { expect, test } from 'vitest'
import type { GrantView } from '#contract/views/access.ts'
import { levelActions } from '#core/levels/level.ts'
import { groupsOf } from './entries.ts'

const grant = (principal: string, more: Partial<GrantView> = {}): GrantView => ({
  id: `${principal} ${more.at?.id ?? 'here'}`,
  principal: principal as GrantView['principal'],
  name: principal,
  people: 1,
  kind: 'member',
  status: 'active',
  actions: levelActions('Reader'),
  gives: levelActions('Reader'),
  at: null,
  isHere: true,
  from: null,
  until: null,
  by: null,
  since: 0,
  isWaiting: false,
  ...more,
})

test('what is given stands in groups, in an order that is always the same, and none of them is empty', () => {
  const groups = groupsOf([
    grant('person:new', { kind: 'guest', status: 'invited' }),
    grant('person:g', { kind: 'guest' }),
    grant('person:p'),
    grant('everyone', { kind: 'everyone', status: null }),
    grant('leads:t', { kind: 'leads', status: null }),
    grant('team:t', { kind: 'team', status: null }),
  ])
  expect(groups.map(({ name, entries }) => [name, entries.map(each => each.principal)])).toEqual([
    ['Teams', ['leads:t', 'team:t']],
    ['All members', ['everyone']],
    ['People', ['person:p']],
    ['Guests', ['person:g']],
    ['Invited', ['person:new']],
  ])
  expect(groupsOf([])).toEqual([])
})

test('several grants to one are one entry: their sum, without what has not begun', () => {
  const above = { id: 'home', name: 'Home' }
  const [group] = groupsOf([
    grant('person:p', { actions: levelActions('Commenter') }),
    grant('person:p', { actions: levelActions('Editor'), isHere: false, at: above }),
    grant('person:p', { actions: levelActions('Steward'), isWaiting: true, from: 9 }),
  ])
  const [entry] = group?.entries ?? []
  expect(entry?.grants).toHaveLength(3)
  expect(entry?.actions).toBe(levelActions('Editor') | levelActions('Commenter'))
})
