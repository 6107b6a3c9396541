import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { RoleDetailView, RolesView } from '#contract/views/roles.ts'
import { allPrivileges, type Privilege, privileges } from '#core/levels/privilege.ts'
import { countOf, editsOf, heldIn, mayToggle, type RolesDraft, toggled } from './draft.ts'

const anyPrivilege = fc.constantFrom(...allPrivileges)
const anyHeld = fc.subarray([...allPrivileges]).map(some => [...privileges(...some)])

const roleWith = (id: string, held: readonly Privilege[], more: Partial<RoleDetailView> = {}) =>
  ({ id, rank: 20, mayChange: true, privileges: held, ...more }) as RoleDetailView

const viewOf = (roles: readonly RoleDetailView[], mine: RolesView['mine'] = {}) =>
  ({ roles, mine }) as unknown as RolesView

const afterAll = (roles: readonly RoleDetailView[], steps: readonly (readonly [number, Privilege])[]) =>
  steps.reduce<RolesDraft>(
    (draft, [place, privilege]) => toggled(draft, roles[place] as RoleDetailView, privilege),
    {},
  )

const anySteps = fc.array(fc.tuple(fc.nat(1), anyPrivilege), { maxLength: 12 })

test('a draft holds what goes along with what it holds, and only roles that it changes', () => {
  fc.assert(
    fc.property(anyHeld, anyHeld, anySteps, (first, second, steps) => {
      const roles = [roleWith('a', first), roleWith('b', second)]
      const draft = afterAll(roles, steps)
      for (const role of roles) {
        const held = heldIn(draft, role)
        expect(new Set(privileges(...held))).toEqual(new Set(held))
        const isSame = new Set([...held, ...role.privileges]).size === role.privileges.length
        expect(role.id in draft).toBe(!(isSame && held.length === role.privileges.length))
      }
    }),
  )
})

test('its edits do what its counts say', () => {
  fc.assert(
    fc.property(anyHeld, anyHeld, anySteps, (first, second, steps) => {
      const roles = [roleWith('a', first), roleWith('b', second)]
      const draft = afterAll(roles, steps)
      const before = new Map(roles.map(role => [role.id, new Set<string>(role.privileges)]))
      let [added, taken] = [0, 0]
      for (const edit of editsOf(draft)) {
        if (edit.kind !== 'role.change') throw new Error(edit.kind)
        const held = new Set<string>(edit.privileges)
        const had = before.get(edit.role) ?? new Set()
        added += [...held].filter(each => !had.has(each)).length
        taken += [...had].filter(each => !held.has(each)).length
      }
      expect(countOf(viewOf(roles), draft)).toEqual({ added, taken })
    }),
  )
})

test('what is put in and taken out again leaves nothing to do', () => {
  fc.assert(
    fc.property(anyPrivilege, privilege => {
      const role = roleWith('a', [])
      const added = toggled({}, role, privilege)
      const back = heldIn(added, role).reduceRight((draft, each) => toggled(draft, role, each), added)
      expect([editsOf(added).length, editsOf(back)]).toEqual([1, []])
    }),
  )
})

test('nobody puts in what they do not hold at a rank as high, but may take out what is there', () => {
  const role = roleWith('a', ['suspend'])
  const view = viewOf([role], { 'view people': 30, 'invite members': 10 })
  const may = (privilege: Privilege, at = role) => mayToggle(view, at, privilege)
  expect([may('view people'), may('invite members'), may('suspend'), may('edit levels')]).toEqual([
    true,
    false,
    true,
    false,
  ])
  expect([may('own'), may('view people', roleWith('b', [], { mayChange: false }))]).toEqual([false, false])
})
