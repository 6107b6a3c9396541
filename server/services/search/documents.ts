import { setImmediate } from 'node:timers/promises'
import type { NodeId, WorkspaceId } from '#core/base/ids.ts'
import type { NodeKind } from '#core/tree/node.ts'
import type { Instant } from '#core/base/instant.ts'
import type { PersonId } from '#core/base/ids.ts'
import type { Parts } from '../../parts.ts'
import { render } from '../../renderer/renderer.ts'
import { fileVersions, type FileVersionRow } from '../../store/content/file-versions.ts'
import { pageText, type TextRow } from '../../store/content/page-text.ts'
import type { Indexed, IndexChanges, SearchDocument, WaitingFile } from '../../store/search/index-port.ts'
import type { BlobRow, PlaceChangeRow } from '../../store/tables.ts'
import { formOf } from '../content/previews.ts'
import { type CellText, cellTexts } from './cells.ts'

/** What of places goes into the index: their names and notes, what is written in them, and what stands in files. */

export interface Places {
  readonly workspace: WorkspaceId
  /** A few hundred at most. */
  readonly nodes: readonly NodeId[]
  /** Whether only what stands in their cells may be another. */
  readonly isOfCells?: boolean
}

interface NodeRow {
  readonly id: NodeId
  readonly kind: NodeKind
  readonly name: string
  readonly note: string
  readonly maker: PersonId
  readonly madeAt: Instant
}

/** Others are let in after so much text. */
export const textAtOnce = 250_000

/** What is to change in the index so that it has some places as they are now. */
export async function changesFor(
  parts: Parts,
  { workspace, nodes, isOfCells = false }: Places,
): Promise<IndexChanges> {
  const { tables } = parts.writer
  const { index } = parts
  const where = { workspace, id: [...nodes] }
  const rows = (await tables.records.nodes.findAll({ where, raw: true })) as unknown as NodeRow[]
  const changes = (await tables.placeChanges.findAll({ where, raw: true })) as unknown as PlaceChangeRow[]
  const ofKind = (kind: NodeKind) => rows.flatMap(each => (each.kind === kind ? [each.id] : []))
  const texts = await pageText.newestIn(tables, { workspace, nodes: ofKind('page') })
  const files = await fileVersions.newestIn(tables, { workspace, nodes: ofKind('file') })
  const cells = await cellTexts(parts, { workspace, rows: ofKind('row') })
  const before = await index.indexed(workspace, nodes)
  const of = <T extends { readonly node: NodeId }>(list: readonly T[], id: NodeId) =>
    list.find(each => each.node === id)
  const changeOf = new Map(changes.map(each => [each.id, each]))
  const all: Changes[] = []
  let prepared = 0
  for (const row of rows) {
    if (row.kind === 'root') continue
    const text = of(texts, row.id)
    const inCells = cells.get(row.id) ?? []
    all.push(
      changesOf(workspace, {
        row,
        change: changeOf.get(row.id),
        text,
        file: of(files, row.id),
        cells: inCells,
        before: before.filter(each => each.node === row.id),
      }),
    )
    prepared += (text?.text.length ?? 0) + inCells.reduce((sum, each) => sum + each.body.length, 0)
    if (prepared > textAtOnce) {
      prepared = 0
      await setImmediate()
    }
  }
  const there = new Set(rows.map(each => each.id))
  const gone = before.filter(each => !there.has(each.node))
  return {
    puts: all.flatMap(each => (isOfCells ? each.puts.filter(({ part }) => part !== 'place') : each.puts)),
    drops: [...gone.map(each => ({ workspace, ...each })), ...all.flatMap(each => each.drops)],
    waiting: all.flatMap(each => each.waiting),
    read: nodes.filter(each => !there.has(each)).map(node => ({ workspace, node })),
  }
}

interface Written {
  readonly row: NodeRow
  readonly change: PlaceChangeRow | undefined
  readonly text: TextRow | undefined
  readonly file: FileVersionRow | undefined
  readonly cells: readonly CellText[]
  /** What is in the index of it. */
  readonly before: readonly Indexed[]
}

type Changes = Pick<IndexChanges, 'puts' | 'drops' | 'waiting'>

function changesOf(workspace: WorkspaceId, { row, change, text, file, cells, before }: Written): Changes {
  const { id: node, name, note, kind } = row
  const of = { workspace, node, name, kind }
  const changed = {
    changedAt: change?.at ?? row.madeAt,
    changedBy: change === undefined ? row.maker : change.by,
  }
  const place: SearchDocument = { ...of, part: 'place', source: '', body: note, ...changed }
  const isSame = (part: Indexed['part'], source: string) =>
    before.some(each => each.part === part && each.source === source && each.name === name)
  const written: SearchDocument[] =
    text === undefined || text.text === '' || isSame('text', String(text.version))
      ? []
      : [
          {
            ...of,
            part: 'text',
            source: String(text.version),
            body: withoutSigns(text.text),
            changedAt: text.changedAt,
            changedBy: text.changedBy,
          },
        ]
  const inCells = cells.filter(({ part, source }) => !isSame(part, source)).map(each => ({ ...of, ...each }))
  // Of a file what is read of it comes later; until then nothing is found in it that is not in it any more.
  const isSearchedFile = file !== undefined && isSearched(file.kind)
  const isRead = isSearchedFile && isSame('file', sourceOf(file))
  const isOver = ({ part }: Indexed) =>
    (part === 'file' && !isRead) ||
    (part === 'text' && (text?.text ?? '') === '') ||
    (isOfCellsPart(part) && !cells.some(each => each.part === part))
  return {
    puts: [place, ...written, ...inCells],
    drops: before.filter(isOver).map(({ part }) => ({ workspace, node, part })),
    waiting: isSearchedFile && !isRead ? [{ workspace, node }] : [],
  }
}

const isOfCellsPart = (part: Indexed['part']): boolean => part === 'cells' || part.startsWith('column:')

/** CommonMark as it is read: what only says how it looks is not looked for, nor shown. */
const withoutSigns = (text: string): string =>
  withoutTables(text)
    .replaceAll(/^\s*(#{1,6}|[-*+>]|\d+[.)])\s+/gm, '')
    .replaceAll(/(\*\*|__|`)/g, '')

const withoutTables = (text: string): string =>
  text.includes('|')
    ? text.replaceAll(/^\s*\|?[\s:|-]+\|[\s:|-]*$/gm, '').replaceAll(/\s*\|\s*/g, ' · ')
    : text

const sourceOf = ({ version, hash }: FileVersionRow): string => `${version} ${hash}`

const searchedForms: ReadonlySet<string> = new Set(['text', 'document', 'rows', 'pages'])
const isSearched = (kind: string): boolean => searchedForms.has(formOf(kind))

/** Who reads files for the index, among those who have them read. */
const reader = 'the index'

/** The same for a file whose text is to be read. */
export async function changesForFile(parts: Parts, file: WaitingFile): Promise<IndexChanges> {
  const { writer, files } = parts
  const { workspace, node } = file
  const done: IndexChanges = { puts: [], drops: [], waiting: [], read: [file] }
  const newest = await fileVersions.newest(writer.tables, file)
  const where = { workspace, id: node }
  const row = (await writer.tables.records.nodes.findOne({ where, raw: true })) as unknown as NodeRow | null
  if (newest === undefined || row === null || !isSearched(newest.kind)) return done
  const { hash, kind: media } = newest
  const blob = (await writer.tables.blobs.findOne({
    where: { workspace, hash },
    raw: true,
  })) as unknown as BlobRow | null
  if (blob === null) return done
  const path = files.pathOf(blob.name)
  const text = await files.madeOf(blob.name, 'plain.txt', async () => {
    const { content } = await render(parts.renderer, reader, { kind: 'plain', path, media })
    return Buffer.from(typeof content === 'string' ? content : '')
  })
  const { name, kind } = row
  const { changedAt, changedBy } = newest
  const body = text.toString('utf8')
  const document = { workspace, node, part: 'file', source: sourceOf(newest), name, kind, body } as const
  return { ...done, puts: [{ ...document, changedAt, changedBy }] }
}
