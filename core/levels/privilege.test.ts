import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  allPrivileges,
  isAsleep,
  isPrivilege,
  needsOf,
  type Privilege,
  privilegeGroups,
  privileges,
  withoutPrivilege,
} from './privilege.ts'

const anySet = fc.subarray<Privilege>([...allPrivileges]).map(names => [...privileges(...names)])
const anyPrivilege = fc.constantFrom(...allPrivileges)

test('a privilege needs only such as stand above it, so none needs itself', () => {
  for (const [index, privilege] of allPrivileges.entries())
    for (const needed of needsOf(privilege)) expect(allPrivileges.indexOf(needed)).toBeLessThan(index)
})

test('a set holds all that its members need', () => {
  fc.assert(
    fc.property(anySet, set => {
      for (const each of set) expect(set).toEqual(expect.arrayContaining([...needsOf(each)]))
    }),
  )
  expect([...privileges('see as')]).toEqual(['view people', 'see the outline', 'check access', 'see as'])
})

test('taking one out takes what needs it, and nothing else', () => {
  fc.assert(
    fc.property(anySet, anyPrivilege, (set, dropped) => {
      const left = [...withoutPrivilege(set, dropped)]
      expect(left).not.toContain(dropped)
      expect([...privileges(...left)]).toEqual(left)
      // Each that went would bring the dropped one back.
      for (const each of set.filter(one => !left.includes(one)))
        expect([...privileges(...left, each)]).toContain(dropped)
    }),
  )
})

test('each privilege is in one group', () => {
  const grouped = Object.values(privilegeGroups).flat()
  expect(grouped.toSorted()).toEqual(allPrivileges.toSorted())
  expect([isPrivilege('suspend'), isPrivilege('toString'), isPrivilege('Suspend')]).toEqual([
    true,
    false,
    false,
  ])
})

test.each([
  ['team', ['view people', 'edit profiles', 'reset sign-in', 'suspend', 'remove', 'assign roles']],
  ['guests', ['view people', 'invite guests', 'edit profiles', 'reset sign-in', 'suspend', 'remove']],
  ['workspace', [...allPrivileges]],
] as const)('over %s these have effect', (over, awake) => {
  expect(allPrivileges.filter(each => !isAsleep(each, over))).toEqual(awake)
})
