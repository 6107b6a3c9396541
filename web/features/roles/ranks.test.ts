import { expect, test } from 'vitest'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import type { Privilege } from '#core/levels/privilege.ts'
import { countOf, editsOf, mayToggle, toggled } from './draft.ts'
import { slotOf, slotsFor, standingOf } from './ranks.ts'

const role = (id: string, rank: number, privileges: Privilege[] = [], mayChange = true) =>
  ({ id, name: id.toUpperCase(), rank, privileges, mayChange }) as unknown as RoleDetailView
const ladder = [role('a', 80), role('b', 40), role('c', 40), role('d', 39), role('e', 1)]

test('a role can stand at each rank of others, and between two where there is room', () => {
  const slots = slotsFor(ladder, undefined)
  expect(slots.map(({ rank, roles }) => [rank, roles.map(each => each.id).join('')])).toEqual([
    [90, ''],
    [80, 'a'],
    [60, ''],
    [40, 'bc'],
    // None between 40 and 39, and none below 1.
    [39, 'd'],
    [20, ''],
    [1, 'e'],
  ])
})

test('wherever it is moved to, it is found there again', () => {
  for (const moved of [undefined, 'a', 'b', 'd', 'e']) {
    const slots = slotsFor(ladder, moved)
    for (const [index, slot] of slots.entries())
      expect([moved, slotOf(slots, slot.rank)]).toEqual([moved, index])
  }
  // Alone on its rank it stands in the gap that it leaves.
  const without = slotsFor(ladder, 'a')
  expect(without[slotOf(without, 80)]?.roles).toEqual([])
})

test('whom it outranks is said in names', () => {
  expect(standingOf(ladder, 'b', 40)).toBe('Outranks D and E. Same rank as C. Outranked by A.')
  expect(standingOf(ladder, undefined, 1)).toBe(
    'Outranks nobody. Same rank as E. Outranked by A, B, C and D.',
  )
  expect(standingOf([role('a', 5)], 'a', 5)).toBe('Outranks nobody.')
})

test('a draft takes along what is needed, counts it, and forgets a role that is as it was', () => {
  const one = role('a', 30, ['view people', 'suspend'])
  const view = { roles: [one, role('b', 20)], mine: { moderate: 30, security: 20 } } as unknown as RolesView
  const more = toggled({}, one, 'remove')
  expect(editsOf(more)).toEqual([
    { kind: 'role.change', role: 'a', privileges: ['view people', 'suspend', 'remove'] },
  ])
  const less = toggled(more, one, 'view people')
  expect([countOf(view, less), less]).toEqual([{ added: 0, taken: 2 }, { a: [] }])
  expect(toggled(toggled(less, one, 'suspend'), one, 'moderate')).toHaveProperty('a')
  expect(toggled(more, one, 'remove')).toEqual({})
  const may = (privilege: Privilege) => mayToggle(view, one, privilege)
  expect([may('suspend'), may('moderate'), may('security'), may('own')]).toEqual([true, true, false, false])
  expect(mayToggle(view, role('l', 9, ['moderate'], false), 'moderate')).toBe(false)
})
