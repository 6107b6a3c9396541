import { type Base, baseOf } from '#core/base/collection.ts'
import { type Vector, none, read } from '#core/base/vector.ts'
import type { NodeId } from '#core/base/ids.ts'
import { type PackedIds, packedIdOf, packedNumberOf } from '#core/base/packed-ids.ts'
import { inTree } from '#core/index/layout.ts'
import { nodes as kind } from '#core/records/nodes.ts'
import type { IndexOf } from '#core/state/kinds.ts'
import { type ContentNode, plainNode } from '#core/tree/node.ts'
import { readerOf } from './fields.ts'
import { recordsMade } from './packed.ts'

/** The fields in which most places differ; the name last, so that a search finds where it begins. */
export const plainFields = [
  'kind',
  'maker',
  'madeAt',
  'order',
  'section',
  'serial',
  'name',
] as const satisfies (keyof ContentNode)[]

const readPlain = readerOf<Pick<ContentNode, (typeof plainFields)[number]>>(kind.fields, plainFields)

/** All places of a workspace, by number. */
export interface PackedNodes {
  readonly ids: PackedIds
  readonly root: number
  /** The tree of the index that was built of them. */
  readonly tree: Vector
  /** Those that differ in more than the plain fields. */
  readonly special: readonly ContentNode[]
  /** The plain fields, a line of JSON each. */
  readonly lines: Buffer
}

export function packedNodes(packed: PackedNodes): Base<ContentNode, IndexOf<'nodes'>> {
  const { ids, root, tree, special, lines } = packed
  const { at, put, linesIn } = recordsMade<ContentNode>({ count: ids.count, lines }, (values, number) => {
    const parent = read(tree, number * inTree.width + inTree.parent)
    return {
      ...readPlain(values),
      ...plainNode,
      id: packedIdOf(ids, number) as NodeId,
      parent: parent === none ? null : (packedIdOf(ids, parent) as NodeId),
    }
  })
  for (const node of special) put(packedNumberOf(ids, node.id) as number, node)
  // Who has a home or lies in the bin is special.
  const { home, bin } = kind.indexes
  const seldom = baseOf<ContentNode, 'home' | 'bin'>(special, { home, bin })
  const below = (id: string) => {
    const parent = packedNumberOf(ids, id)
    return parent === undefined ? [] : childrenIn(tree, parent)
  }
  const among = (index: 'home' | 'bin', key: string) =>
    Array.from(seldom.by(index, key), each => packedNumberOf(ids, seldom.at(each).id) as number)
  return {
    size: ids.count,
    numberOf: id => packedNumberOf(ids, id),
    at,
    by: (index, key) => (index !== 'parent' ? among(index, key) : key === 'none' ? [root] : below(key)),
    holding: (text, range) =>
      numbersNamed(linesIn(range), text).map(at => packedIdOf(ids, range.first + at) as NodeId),
  }
}

/** Which of some lines have a text in their last value: the others need not be parsed. */
function numbersNamed(lines: string, text: string): number[] {
  const wanted = JSON.stringify(text).slice(1, -1)
  const all = lines.toLowerCase()
  if (!all.includes(wanted)) return []
  const numbers: number[] = []
  for (const [number, line] of all.split('\n').entries())
    if (line.indexOf(wanted, line.lastIndexOf(',"')) >= 0) numbers.push(number)
  return numbers
}

function childrenIn(tree: Vector, parent: number): number[] {
  const children: number[] = []
  let child = read(tree, parent * inTree.width + inTree.first)
  for (; child !== none; child = read(tree, child * inTree.width + inTree.next)) children.push(child)
  return children
}
