import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  actions,
  allActions,
  decodeActions,
  has,
  holds,
  intersect,
  listActions,
  union,
  without,
} from './action.ts'
import { builtInLevels, gaugeOf, levelActions, nameOfActions } from './level.ts'
import { allPrivileges, needsOf, privileges } from './privilege.ts'

const name = fc.constantFrom(...allActions)
const set = fc.array(name).map(names => actions(...names))
const everyClosedSet = Array.from({ length: 1024 }, (_, mask) => decodeActions(mask)).filter(
  each => each !== undefined,
)

test('an action brings along all that it needs', () => {
  expect(listActions(actions('publish'))).toEqual(['see', 'copy', 'share', 'publish'])
  expect(listActions(actions('seal', 'remove'))).toEqual(['see', 'change', 'remove', 'share', 'seal'])
})

test('stored positions never move', () => {
  const stored = {
    see: 1,
    copy: 3,
    comment: 5,
    add: 9,
    change: 17,
    remove: 49,
    arrange: 81,
    share: 129,
    seal: 385,
    publish: 643,
  }
  expect(Object.fromEntries(allActions.map(each => [each, actions(each)]))).toEqual(stored)
})

test('every operation keeps its result closed', () => {
  fc.assert(
    fc.property(set, set, name, (a, b, dropped) => {
      for (const result of [union(a, b), intersect(a, b), without(a, dropped)])
        expect(decodeActions(result)).toBe(result)
    }),
  )
})

test('without gives the largest closed subset that lacks the name', () => {
  fc.assert(
    fc.property(set, name, (held, dropped) => {
      const candidates = everyClosedSet.filter(each => holds(held, each) && !has(each, dropped))
      expect(without(held, dropped)).toBe(candidates.reduce(union))
    }),
  )
})

test.each([0b10, 1 << 20, -1, 1.5, 32])('the mask %d is not a closed set', mask => {
  expect(decodeActions(mask)).toBeUndefined()
})

test('each level holds all of the one before, and is called by its own name', () => {
  for (const [index, level] of builtInLevels.entries()) {
    const before = builtInLevels[index - 1]
    if (before !== undefined) expect(holds(levelActions(level), levelActions(before))).toBe(true)
    expect(nameOfActions(levelActions(level))).toEqual({ name: level, step: index + 1, more: false })
  }
})

test('a set between levels is called by the highest one within it and more, or by the workspace’s own name', () => {
  const sorting = actions('comment', 'copy', 'arrange')
  expect(nameOfActions(sorting)).toEqual({ name: 'Commenter+', step: 3, more: true })
  const own = { id: 'own' as never, name: 'Sorter', note: '', actions: sorting }
  expect(nameOfActions(sorting, [own]).name).toBe('Sorter')
  expect(gaugeOf(sorting)).toEqual(['full', 'full', 'full', 'none', 'full', 'half', 'none'])
})

test('a privilege names only privileges before it, so none needs itself', () => {
  for (const [index, privilege] of allPrivileges.entries())
    for (const needed of needsOf(privilege)) expect(allPrivileges.indexOf(needed)).toBeLessThan(index)
  expect([...privileges('see as')]).toEqual(['view people', 'see the outline', 'check access', 'see as'])
})
