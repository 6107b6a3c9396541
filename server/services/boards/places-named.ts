import { fold, foldedWords } from '#core/base/fold-words.ts'
import { rowOf } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { createBreath } from '../../breath.ts'
import type { Parts } from '../../parts.ts'
import { type Asker, maySee } from '../viewer/asker.ts'

/** Of so many names places are looked for at a time. */
const namesAtMost = 500

/** The places with some names that the asker may open, by folded name: a name that several have names none. */
export async function placesNamed(
  parts: Parts,
  asker: Asker,
  names: readonly string[],
): Promise<ReadonlyMap<string, NodeId>> {
  const found = new Map<string, NodeId>()
  const breathe = createBreath()
  for (const name of names.slice(0, namesAtMost)) {
    await breathe()
    const [first, second] = await nodesNamed(parts, asker, name)
    if (first !== undefined && second === undefined) found.set(fold(name.trim()), first)
  }
  return found
}

async function nodesNamed(parts: Parts, asker: Asker, name: string): Promise<NodeId[]> {
  const wanted = fold(name.trim())
  const words = foldedWords(name)
  if (words.length === 0) return []
  const { workspace, snapshot } = asker
  const found = new Set<NodeId>()
  const query = { workspace, words: [], name: words.join(' '), where: 'names' } as const
  for await (const numbers of parts.index.matches(query)) {
    for (const { node } of await parts.index.documents(workspace, [...numbers])) {
      const isIt = fold(rowOf(snapshot.state.nodes, node)?.name.trim() ?? '') === wanted
      if (isIt && maySee(asker, node)) found.add(node)
      if (found.size > 1) return [...found]
    }
  }
  return [...found]
}
