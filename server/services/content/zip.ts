import { createReadStream } from 'node:fs'
import { setImmediate } from 'node:timers/promises'
import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import { check } from '#core/access/evaluate.ts'
import type { NodeId } from '#core/base/ids.ts'
import { has } from '#core/levels/action.ts'
import { childrenOf, pathOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { fileVersions } from '../../store/content/file-versions.ts'
import { pageText } from '../../store/content/page-text.ts'
import { snapshotAt } from '../../store/states.ts'
import { type Asker, readerAt, visiblePlace } from '../viewer/asker.ts'
import { findVersion } from './files.ts'
import { leftOutName, namesIn } from './zip-names.ts'

/**
 * What lies below a place as one ZIP: the files and pages that its reader may take, in folders as they lie. What they may
 * only look at is named in a list in it; what they do not see is not in it in any way.
 */
export interface Zip {
  readonly name: string
  readonly bytes: Readable
}

/** So many places go into one, and so many are made for one person at once. */
const placesAtMost = 20_000
const atOnce = 2
/** Others are let in after so many. */
const together = 500

/** Kinds whose bytes are packed already. */
const packed =
  /^(image\/(?!bmp|tiff)|video\/|audio\/(?!wav|x-wav|aiff)|application\/(zip|gzip|x-7z|x-rar|vnd\.openxml))/

export async function zipOf(parts: Parts, asker: Asker, id: string): Promise<Zip> {
  const { node } = visiblePlace(asker, id).place
  if (node.kind === 'file' || node.kind === 'page') throw problemOf('not-found')
  return zipWith(parts, asker, { name: node.name, first: childrenOf(asker.snapshot.state, node.id) })
}

/** Several places, each as it is called. */
export async function zipOfPlaces(parts: Parts, asker: Asker, ids: readonly string[]): Promise<Zip> {
  const { state } = asker.snapshot
  const nodes = [...new Set(ids)].map(id => visiblePlace(asker, id).place.node)
  const isPicked = new Set(nodes.map(each => each.id))
  // What lies in another one of them comes with that.
  const first = nodes.filter(({ id }) =>
    pathOf(state, id).every(each => each.id === id || !isPicked.has(each.id)),
  )
  return zipWith(parts, asker, { name: first.length === 1 ? (first[0]?.name ?? '') : 'places', first })
}

interface Wanted {
  readonly name: string
  readonly first: readonly ContentNode[]
}

async function zipWith(parts: Parts, asker: Asker, { name, first }: Wanted): Promise<Zip> {
  const { person } = asker
  const going = parts.zipping.get(person) ?? 0
  if (going >= atOnce) throw problemOf('many-zips')
  const listing = await listed(asker, first)
  const kinds = await kindsOf(parts, asker, listing.taken)
  parts.zipping.set(person, (parts.zipping.get(person) ?? 0) + 1)
  const zip = new ZipFile()
  // It is one, whatever its types say.
  const bytes = zip.outputStream as unknown as Readable
  bytes.once('close', () => {
    const left = (parts.zipping.get(person) ?? 1) - 1
    if (left > 0) parts.zipping.set(person, left)
    else parts.zipping.delete(person)
  })
  zip.on('error', error => bytes.destroy(error as Error))
  for (const each of listing.taken) add(parts, asker, { zip, kinds, ...each })
  if (listing.leftOut.length > 0)
    zip.addBuffer(Buffer.from(`${listing.leftOut.join('\r\n')}\r\n`), leftOutName)
  zip.end()
  return { name: `${name}.zip`, bytes }
}

interface Taken {
  readonly node: ContentNode
  readonly path: string
}

interface Listing {
  readonly taken: readonly Taken[]
  readonly leftOut: readonly string[]
}

async function listed(asker: Asker, first: readonly ContentNode[]): Promise<Listing> {
  const taken: Taken[] = []
  const leftOut: string[] = []
  const waiting: { readonly nodes: readonly ContentNode[]; readonly path: string }[] = [
    { nodes: first, path: '' },
  ]
  const names = namesIn()
  for (let count = 0, next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    for (const node of next.nodes) {
      count += 1
      if (count > placesAtMost) throw problemOf('zip-too-large')
      if (count % together === 0) await setImmediate()
      const actions = check(asker.snapshot, asker.person, node.id)
      const isSeen = has(actions, 'see')
      // What is seen in a folder that is not stands where that folder would: its name is told nowhere.
      const path = isSeen ? names(next.path, node) : next.path
      if (isSeen && has(actions, 'copy')) taken.push({ node, path })
      else if (isSeen && (node.kind === 'file' || node.kind === 'page')) leftOut.push(path)
      waiting.push({ nodes: childrenOf(asker.snapshot.state, node.id), path: isSeen ? `${path}/` : path })
    }
  }
  return { taken, leftOut }
}

/** The media types of the files, where they have any bytes. */
async function kindsOf({ writer }: Parts, { workspace }: Asker, taken: readonly Taken[]) {
  const nodes = taken.flatMap(({ node }) => (node.kind === 'file' ? [node.id] : []))
  const newest = await fileVersions.newestIn(writer.tables, { workspace, nodes })
  return new Map(newest.map(({ node, kind }) => [node, kind]))
}

interface Adding extends Taken {
  readonly zip: ZipFile
  readonly kinds: ReadonlyMap<NodeId, string>
}

function add(parts: Parts, asker: Asker, { zip, node, path, kinds }: Adding): void {
  if (node.kind === 'folder') zip.addEmptyDirectory(path)
  if (node.kind !== 'file' && node.kind !== 'page') return
  const compress = !packed.test(kinds.get(node.id) ?? '')
  // Read when it is its turn: as it is then, for whom it is then.
  zip.addReadStreamLazy(path, { compress }, give => {
    contentOf(parts, asker, node).then(
      bytes => give(null, bytes),
      (error: unknown) => give(error, Readable.from([])),
    )
  })
}

async function contentOf(parts: Parts, { workspace, person }: Asker, node: ContentNode): Promise<Readable> {
  const snapshot = snapshotAt(parts.writer.states, workspace, parts.clock())
  const now = snapshot === undefined ? undefined : readerAt(workspace, snapshot, person)
  if (now === undefined || !has(check(now.snapshot, person, node.id), 'copy')) throw problemOf('not-found')
  if (node.kind === 'page') {
    const newest = await pageText.newest(parts.writer.tables, { workspace, node: node.id })
    return Readable.from([newest?.text ?? ''])
  }
  const stored = await findVersion(parts, now, { id: node.id })
  return stored === undefined ? Readable.from(['']) : createReadStream(stored.path)
}
