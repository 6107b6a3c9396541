import { setImmediate } from 'node:timers/promises'
import { QueryTypes } from 'sequelize'
import type { StorageView, StoredFile } from '#contract/views/storage.ts'
import type { NodeId, PersonId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { rowOf } from '#core/base/collection.ts'
import { knowsTeam } from '#core/changes/context.ts'
import { parentOf, pathOf, workspaceOf } from '#core/state/state.ts'
import type { ContentNode } from '#core/tree/node.ts'
import type { Parts } from '../../parts.ts'
import { problemOf } from '../../problem-error.ts'
import { sizeOf } from './storage.ts'
import { type Asker, asks, knowsPerson, maySee, nameOf, pathWords } from '../viewer/asker.ts'

/** What takes the room of a workspace, for whoever sees storage: sizes of all, names of what they see. */

const listedAtMost = 100
const peopleAtMost = 50
const year = 365 * 86_400_000
/** So many versions are read in one statement. */
const together = 2000

interface VersionRow {
  readonly node: NodeId
  readonly version: number
  readonly size: number
  readonly kind: string
  readonly changedAt: Instant
  readonly changedBy: PersonId
  readonly openedAt: Instant | null
}

/** One file, all versions together. */
interface Summed {
  readonly node: NodeId
  bytes: number
  versions: number
  changedAt: Instant
  openedAt: Instant | null
}

export async function storageView(parts: Parts, asker: Asker): Promise<StorageView> {
  if (!asks(asker, 'see storage')) throw problemOf('not-found')
  const { tables } = parts.writer
  const where = { workspace: asker.workspace }
  const kinds = createShares<StorageView['kinds'][number]['kind']>()
  const people = createShares<PersonId>()
  const homes = createShares<NodeId>()
  const files: Summed[] = []
  const homeOf = homesIn(asker)
  let last: Summed | undefined
  for await (const row of versionsIn(parts, asker)) {
    const isNext = last?.node !== row.node
    if (isNext) {
      last = { node: row.node, bytes: 0, versions: 0, changedAt: 0, openedAt: row.openedAt }
      files.push(last)
    }
    const file = last as Summed
    file.bytes += row.size
    file.versions += 1
    file.changedAt = Math.max(file.changedAt, row.changedAt)
    kinds.add(groupOf(row.kind), row.size, row.node)
    people.add(row.changedBy, row.size, row.node)
    homes.add(homeOf(row.node), row.size, row.node)
  }
  const coming = await sizeOf(tables.uploads, where)
  const now = parts.clock()
  const unused = files.filter(each => Math.max(each.changedAt, each.openedAt ?? 0) < now - year)
  const bytesOf = (some: readonly Summed[]) => some.reduce((sum, each) => sum + each.bytes, 0)
  return {
    used: bytesOf(files) + coming,
    coming,
    stored: await sizeOf(tables.blobs, where),
    quota: workspaceOf(asker.snapshot.state).storageQuota,
    files: files.length,
    kinds: kinds.all().map(({ key: kind, ...share }) => ({ kind, ...share })),
    people: peopleShares(asker, people.all()),
    homes: homeShares(asker, homes.all()),
    largest: largestOf(asker, files),
    unused: { bytes: bytesOf(unused), files: unused.length, largest: largestOf(asker, unused) },
  }
}

/** All versions of all files, those of one after another. */
async function* versionsIn({ writer }: Parts, { workspace }: Asker): AsyncGenerator<VersionRow> {
  let after: Pick<VersionRow, 'node' | 'version'> = { node: '' as NodeId, version: 0 }
  for (;;) {
    const rows = await writer.tables.database.query<VersionRow>(
      `SELECT v.node AS node, v.version AS version, v.size AS size, v.kind AS kind, v."changedAt" AS "changedAt",
          v."changedBy" AS "changedBy", o."at" AS "openedAt"
        FROM "fileVersions" v LEFT JOIN "fileOpens" o ON o.workspace = v.workspace AND o.id = v.node
        WHERE v.workspace = $workspace AND (v.node > $node OR (v.node = $node AND v.version > $version))
        ORDER BY v.node, v.version LIMIT $most`,
      { type: QueryTypes.SELECT, bind: { workspace, ...after, most: together } },
    )
    yield* rows
    const last = rows.at(-1)
    if (last === undefined || rows.length < together) return
    after = { node: last.node, version: last.version }
    await setImmediate()
  }
}

interface Share {
  readonly bytes: number
  readonly files: number
}

/** Sums by something, each file counted once in each. */
function createShares<K>() {
  const shares = new Map<K, { bytes: number; files: number; last: NodeId | null }>()
  return {
    add: (key: K, bytes: number, node: NodeId): void => {
      const share = shares.get(key) ?? { bytes: 0, files: 0, last: null }
      shares.set(key, share)
      share.bytes += bytes
      if (share.last !== node) share.files += 1
      share.last = node
    },
    all: (): (Share & { readonly key: K })[] =>
      [...shares]
        .map(([key, { bytes, files }]) => ({ key, bytes, files }))
        .toSorted((a, b) => b.bytes - a.bytes),
  }
}

const groups: readonly (readonly [RegExp, StorageView['kinds'][number]['kind']])[] = [
  [/^image\//, 'pictures'],
  [/^audio\//, 'sound'],
  [/^video\//, 'film'],
  [/^text\//, 'texts'],
  [/^application\/(pdf|msword|rtf|vnd\.)/, 'documents'],
  [/^application\/(zip|gzip|x-(7z|rar|tar|bzip|xz))/, 'packed'],
]

const groupOf = (kind: string) => groups.find(([pattern]) => pattern.test(kind))?.[1] ?? 'other'

/** The home in which a place lies. */
function homesIn({ snapshot: { state } }: Asker): (node: NodeId) => NodeId {
  const known = new Map<NodeId, NodeId>()
  return node => {
    const parent = parentOf(state, node) ?? node
    const before = known.get(parent)
    if (before !== undefined) return before
    const home = pathOf(state, parent).find(each => each.home !== null)?.id ?? parent
    known.set(parent, home)
    return home
  }
}

function peopleShares(
  asker: Asker,
  shares: readonly (Share & { readonly key: PersonId })[],
): StorageView['people'] {
  const known = shares.filter(each => knowsPerson(asker, each.key)).slice(0, peopleAtMost)
  const shown = known.map(({ key: id, ...share }) => ({ id, name: nameOf(asker.snapshot, id), ...share }))
  return [
    ...shown,
    ...rest(shares.filter(each => !known.includes(each))).map(each => ({ id: null, name: null, ...each })),
  ]
}

function homeShares(
  asker: Asker,
  shares: readonly (Share & { readonly key: NodeId })[],
): StorageView['homes'] {
  const { nodes } = asker.snapshot.state
  const homeOf = (id: NodeId): NonNullable<ContentNode['home']>['of'] =>
    rowOf(nodes, id)?.home?.of ?? 'shared'
  const shown = shares.flatMap(({ key: id, ...share }) => {
    const of = homeOf(id)
    // What somebody keeps for themselves is told of all together.
    if (of === 'person') return []
    return [{ ...homeNamed(asker, id), of, ...share }]
  })
  const kept = rest(shares.filter(each => homeOf(each.key) === 'person'))
  return [...shown, ...kept.map(each => ({ id: null, name: null, of: 'person' as const, ...each }))]
}

/** A home that is seen; of one that is not, the team whose it is, where that is known. */
function homeNamed(asker: Asker, id: NodeId): Pick<StorageView['homes'][number], 'id' | 'name'> {
  const { state } = asker.snapshot
  const node = rowOf(state.nodes, id)
  if (node === undefined) return { id: null, name: null }
  if (maySee(asker, id)) return { id, name: node.name }
  const { home } = node
  const isKnown = home?.of === 'team' && knowsTeam(asker.snapshot, asker.person, home.team)
  return { id: null, name: isKnown ? (rowOf(state.teams, home.team)?.name ?? null) : null }
}

/** Those that are not listed by themselves, as one; nothing where there are none. */
const rest = (shares: readonly Share[]): Share[] =>
  shares.length === 0
    ? []
    : [
        {
          bytes: shares.reduce((sum, each) => sum + each.bytes, 0),
          files: shares.reduce((sum, each) => sum + each.files, 0),
        },
      ]

/** The largest of some files. */
const largestOf = (asker: Asker, files: readonly Summed[]): StoredFile[] =>
  files
    .toSorted((a, b) => b.bytes - a.bytes)
    .slice(0, listedAtMost)
    .map(({ node: id, bytes, versions, changedAt, openedAt }) => ({
      place: maySee(asker, id)
        ? {
            id,
            name: rowOf(asker.snapshot.state.nodes, id)?.name ?? '',
            path: pathWords(asker, pathOf(asker.snapshot.state, id).slice(1)),
          }
        : null,
      bytes,
      versions,
      changedAt,
      openedAt,
    }))
