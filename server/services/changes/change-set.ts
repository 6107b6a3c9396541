import { isDeepStrictEqual } from 'node:util'
import { nextMonth } from '#contract/dates.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { problemType, refusalStatus } from '#contract/problem.ts'
import type { Problem } from '#contract/views/problem.ts'
import { has } from '#core/levels/action.ts'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import type { NodeId } from '#core/base/ids.ts'
import type { Edit } from '#core/changes/edit.ts'
import type { ChangeSet, Refused } from '#core/changes/judge.ts'
import { type Naming, refusalInWords } from '#core/words/refusal.ts'
import { type RecordChange, type State, workspaceOf } from '#core/state/state.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import { contentKinds } from '../../store/content/all.ts'
import type { DraftRow } from '../../store/tables.ts'
import { type Asker, namingFor } from '../viewer/asker.ts'
import { editFrom, type Minting } from './edits.ts'
import { entryToUndo } from '../oversight/history.ts'
import { unknownIn } from './known-ids.ts'
import type { Written } from '../notifications/kind.ts'
import { checkPictures } from './pictures.ts'
import type { Turn } from '../viewer/turns.ts'

export interface Meant {
  readonly changeSet: ChangeSet
  /** The ids that were made for each `new:x`. */
  readonly made: ReadonlyMap<string, string>
  /** What it undoes, if that is what it does. */
  readonly undone: Written['undone']
  /** The kept change set that it is, and who handed it over. */
  readonly draft: Pick<DraftRow, 'id' | 'from'> | null
  readonly message: string
}

/** The change set that a request means. */
export async function changeSetFrom(
  parts: Parts,
  asker: Asker,
  { request, turn }: { readonly request: ChangeSetRequest; readonly turn: Turn },
): Promise<Meant> {
  const made = new Map<string, string>()
  const minting = mintingFor(parts, asker.snapshot.state, made)
  await checkPictures(parts, asker, request)
  const edits: Edit[] = []
  let undone: Written['undone'] = null
  for (const [index, edit] of request.edits.entries()) {
    await turn.breathe()
    if (edit.kind !== 'undo') {
      edits.push(editFrom(edit, minting))
      const refusal = unknownIn(asker, edit)
      if (refusal !== undefined) throw new ProblemError(problemFrom({ refusal, edit: index }, asker))
      continue
    }
    const { revision, author, at, changes } = await entryToUndo(parts, asker, edit.revision)
    undone = { revision, author, at }
    const records = JSON.parse(changes) as RecordChange[]
    edits.push({ kind: 'undo', revision, changes: records, written: await written(parts, asker, records) })
  }
  const draft = request.draft === undefined ? null : await draftOf(parts, asker, request.draft)
  // What was handed over is applied as it was, or not as that.
  if (draft !== null && !isDeepStrictEqual((JSON.parse(draft.items) as unknown[]).flat(), request.edits))
    throw problemOf('preview-changed')
  const changeSet = { author: asker.person, reason: request.reason ?? '', edits }
  return { changeSet, made, undone, draft, message: request.message?.trim() ?? '' }
}

/** One's own change set that was kept; any other answers like one that is not there. */
export async function draftOf(
  { writer }: Parts,
  { workspace, person }: Asker,
  id: string,
): Promise<DraftRow> {
  const row = await writer.tables.drafts.findOne({ where: { workspace, person, id }, raw: true })
  if (row === null) throw problemOf('not-found')
  return row as unknown as DraftRow
}

export function mintingFor({ newId, clock }: Parts, state: State, made: Map<string, string>): Minting {
  const { invitationDays: linkDays, timeZone } = workspaceOf(state)
  const now = clock()
  return { newId, now, made, linkDays, nextPeriod: () => nextMonth(now, timeZone) }
}

/** The places made by these changes in which something was written since. */
async function written(parts: Parts, asker: Asker, changes: readonly RecordChange[]): Promise<NodeId[]> {
  const made = changes.flatMap(change =>
    change.table === 'nodes' && change.before === null ? [change.id] : [],
  )
  if (made.length === 0) return []
  const found = new Set<NodeId>()
  for (const kind of contentKinds) {
    const { table, where } = kind.noneIn({ workspace: asker.workspace, nodes: made }, 'others-changed')
    const rows = await parts.writer.tables[table].findAll({ attributes: ['node'], where, raw: true })
    for (const { node } of rows as unknown as { node: NodeId }[]) found.add(node)
  }
  return [...found]
}

export const problemFrom = (refused: Refused, asker: Asker): Problem =>
  problemInWords(refused, namingFor(asker))

export function problemInWords({ refusal, edit }: Refused, naming: Naming): Problem {
  const { title, instead } = refusalInWords(refusal, naming)
  const problem = {
    type: problemType(refusal.code),
    title,
    status: refusalStatus[refusal.code],
    detail: instead,
  }
  const lacks = refusal.code === 'privilege-missing' ? { lacks: refusal.privilege } : {}
  return { ...problem, ...lacks, ...asksFor(refusal, naming), ...(edit === null ? {} : { edit }) }
}

/** What could be asked for: the lowest level with what was lacking, at a place that the reader sees. */
function asksFor(refusal: Refused['refusal'], naming: Naming): Pick<Problem, 'asks'> {
  if (refusal.code !== 'action-missing' || naming.place(refusal.node) === undefined) return {}
  const level = builtInLevels.find(each => has(levelActions(each), refusal.action))
  return level === undefined ? {} : { asks: { place: refusal.node, level, action: refusal.action } }
}
