import { describe, expect, test } from 'vitest'
import { allRows, rowOf } from '../../base/collection.ts'
import type { NodeId } from '../../base/ids.ts'
import { deepest } from '../../tree/node.ts'
import { after, edit, making, moving, reader, refusal, setting, steward } from '../judging.ts'
import { grant, node, type Part, person, world } from '../world.ts'

/** What one change set may come to at most, so that whoever sends it holds up nobody. */

const copying = (id: string, what: string, to: string) =>
  edit('node.duplicate', { node: what, parent: to, name: id, copies: id })

describe('duplicates', () => {
  const state = world(
    person('m'),
    node('n', 'root'),
    node('a', 'n'),
    node('b', 'a'),
    grant('n', 'person:m', steward),
  )

  test('hold nothing that the same change set has made, so that they do not double each time', () => {
    const many = Array.from({ length: 16 }, (_, index) => copying(`c${index}`, 'a', 'a'))
    const copied = after(state, 'm', ...many)
    // Each copy is the folder and what was in it before.
    expect(allRows(copied.nodes)).toHaveLength(allRows(state.nodes).length + 16 * 2)
  })

  test('are not made of what is made beside them', () => {
    expect(refusal(state, 'm', making('p', 'n'), copying('c', 'p', 'n'))).toEqual({
      code: 'too-much',
      what: 'copy of a copy',
    })
    expect(refusal(after(state, 'm', making('p', 'n')), 'm', copying('c', 'p', 'n'))).toBe('allowed')
  })

  test('of more than 5,000 places are refused', () => {
    const bulk: Part[] = Array.from({ length: 5000 }, (_, index) => node(`w${index}`, 'a', { kind: 'page' }))
    const large = world(
      person('m'),
      node('n', 'root'),
      node('a', 'n'),
      ...bulk,
      grant('n', 'person:m', steward),
    )
    const tooMany = { code: 'too-much', what: 'copies' }
    expect(refusal(large, 'm', copying('c', 'a', 'n'))).toEqual(tooMany)
    expect(refusal(large, 'm', copying('c', 'w0', 'n'), copying('d', 'w1', 'n'))).toBe('allowed')
    // In all, not each time.
    const half = after(
      large,
      'm',
      ...bulk.slice(2500).map((_, index) => setting(`w${index}`, { binned: true })),
    )
    expect(refusal(half, 'm', copying('c', 'a', 'n'))).toBe('allowed')
    expect(refusal(half, 'm', copying('c', 'a', 'n'), copying('d', 'a', 'n'))).toEqual(tooMany)
  })
})

test('no more than 50,000 records are changed at once, however few edits that takes', () => {
  const given = Array.from({ length: 600 }, (_, index) => [
    person(`p${index}`),
    grant('n', `person:p${index}`, reader),
  ]).flat()
  const inner = Array.from({ length: 84 }, (_, index) => node(`i${index}`, 'n'))
  const state = world(person('m'), node('n', 'root'), ...inner, ...given, grant('n', 'person:m', steward))
  const breaking = (count: number) =>
    Array.from({ length: count }, (_, index) =>
      edit('node.break', { node: `i${index}`, mode: 'keep', copies: `k${index}` }),
    )
  expect(refusal(state, 'm', ...breaking(2))).toBe('allowed')
  expect(refusal(state, 'm', ...breaking(84))).toEqual({ code: 'too-much', what: 'changes' })
})

test('places lie at most so deep, however they come there', () => {
  // The root is the first level.
  const chain: Part[] = Array.from({ length: deepest - 2 }, (_, index) =>
    node(`n${index}`, index === 0 ? 'root' : `n${index - 1}`),
  )
  const last = `n${deepest - 3}`
  const state = world(
    person('m'),
    ...chain,
    node('x', 'n0'),
    node('y', 'x'),
    grant('n0', 'person:m', steward),
  )
  const deep = { code: 'too-much', what: 'depth' }
  const one = after(state, 'm', making('p', last, 'folder'))
  expect(rowOf(one.nodes, 'p' as NodeId)).toBeDefined()
  expect(refusal(one, 'm', making('q', 'p'))).toEqual(deep)
  expect(refusal(state, 'm', moving('x', last))).toEqual(deep)
  expect(refusal(state, 'm', moving('y', last))).toBe('allowed')
  expect(refusal(state, 'm', copying('c', 'x', last))).toEqual(deep)
})
