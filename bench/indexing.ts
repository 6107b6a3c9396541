import { rmSync } from 'node:fs'
import { eachRow } from '#core/base/collection.ts'
import type { NodeId } from '#core/base/ids.ts'
import { largeOwner } from '#demo/large.ts'
import type { Running } from '#server/assemble.ts'
import { saveText } from '#server/services/content/text.ts'
import { askerOf } from '#server/services/viewer/asker.ts'
import { followAgain, stopFollowing } from '#server/store/log.ts'
import { middle, once, type Reading } from './measure.ts'
import { copyOfLarge } from './seeded.ts'
import { changeable, stateOf } from './server.ts'
import { textOf } from './texts.ts'
import { quietServer } from './quiet-server.ts'

/** What the index of words, which follows what is written, adds to the writing. */

const pages = 600
const wordsEach = 400
/** With and without, in turns; the first two do not count. */
const turns = 24

export async function indexingReadings(): Promise<Reading[]> {
  const dataDir = await copyOfLarge('M')
  const running = await quietServer(dataDir)
  await running.indexed()
  const { log } = running.parts.writer
  // The one that follows last: see `startWorks`.
  const indexing = log.followings.at(-1)
  const nodes = pagesIn(running)
  if (indexing === undefined || nodes.length < pages) throw new Error('nothing to write, or nobody follows')
  const taken: { readonly with: number[]; readonly without: number[] } = { with: [], without: [] }
  for (let turn = 0; turn < turns; turn += 1) {
    const isWith = turn % 2 === 0
    if (!isWith) stopFollowing(indexing)
    taken[isWith ? 'with' : 'without'].push((await once(() => writeAll(running, nodes, turn))) / pages)
    if (!isWith) await followAgain(log, indexing)
    await running.indexed()
  }
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
  const floor = { what: 'the same without the index', value: middle(taken.without.slice(1)) }
  return [{ id: 'indexing.write', size: 'M', unit: 'ms', value: middle(taken.with.slice(1)), floor }]
}

function pagesIn(running: Running): NodeId[] {
  const state = stateOf(running)
  const kinds = new Map([...eachRow(state.nodes)].map(({ id, kind }) => [id, kind]))
  return changeable(state, 20_000)
    .filter(id => kinds.get(id) === 'page')
    .slice(0, pages)
}

async function writeAll({ parts }: Running, nodes: readonly NodeId[], version: number): Promise<void> {
  for (const id of nodes) {
    const request = { version, text: textOf(wordsEach) }
    await saveText(parts, askerOf(parts, largeOwner.account, 'large'), { id, request })
  }
}
