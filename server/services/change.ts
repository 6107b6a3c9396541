import type { AppliedView } from '#contract/views.ts'
import { type Problem, problemType, refusalStatus } from '#contract/problem.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { type ChangeSet, judge, type Judged, type Refused } from '#core/changes/judge.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import type { Instant } from '#core/base/instant.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { refusalInWords } from '#core/words/refusal.ts'
import { atRevision, type Moment } from '#core/state/state.ts'
import { writeRecords } from '../store/tables.ts'
import { type Candidates, type Prepared, submit } from '../store/writer.ts'
import { invitationMails } from '../mail/invitation.ts'
import type { Parts } from '../parts.ts'
import { ProblemError, problemOf } from '../problem-error.ts'
import { type Asker, namingFor } from './asker.ts'
import { editFrom } from './edits.ts'

/**
 * The one road of every change of access: judged on the state in memory, written with its history
 * entry and the mails that it causes, published after the commit.
 */
export async function applyChangeSet(
  parts: Parts,
  asker: Asker,
  request: ChangeSetRequest,
): Promise<AppliedView> {
  const { changeSet, made } = changeSetFrom(parts, asker, request)
  const result = await submit(parts.writer, candidates => prepare(parts, { asker, changeSet, candidates }))
  if (!result.ok) throw new ProblemError(problemFrom(result.error, asker))
  return { revision: result.value, made: Object.fromEntries(made) }
}

/** The change set that a request means, with the ids that were made for its `new:x`. */
export function changeSetFrom(
  parts: Parts,
  asker: Asker,
  request: ChangeSetRequest,
): { changeSet: ChangeSet; made: ReadonlyMap<string, string> } {
  const made = new Map<string, string>()
  const minting = { newId: parts.newId, now: parts.clock(), made }
  const edits = request.edits.map(edit => editFrom(edit, minting))
  return { changeSet: { author: asker.person, reason: request.reason ?? '', edits }, made }
}

interface Submission {
  readonly asker: Asker
  readonly changeSet: ChangeSet
  readonly candidates: Candidates
}

function prepare(
  parts: Parts,
  { asker, changeSet, candidates }: Submission,
): Result<Prepared<number>, Refused> {
  const before = candidates.momentOf(asker.workspace)
  if (before === undefined) throw problemOf('not-found')
  const judged = judge(before, changeSet)
  return judged.ok
    ? ok(writeJudged(parts, { ...asker, before, changeSet, judged: judged.value }))
    : refused(judged.error)
}

interface Judgement {
  readonly workspace: WorkspaceId
  readonly before: Moment
  readonly changeSet: ChangeSet
  readonly judged: Judged
}

/** The rows of a change set that was judged: its records, its history entry, its mails. */
export function writeJudged(
  parts: Parts,
  { workspace, before, changeSet, judged }: Judgement,
): Prepared<number> {
  const state = atRevision(judged.state, before.state.revision + 1)
  const after: Moment = { state, at: before.at }
  const mails = invitationMails(parts, { workspace, changeSet, after })
  return {
    state,
    value: state.revision,
    write: async transaction => {
      const { tables } = parts.writer
      await writeRecords(tables, { workspace, changes: judged.changes, transaction })
      const entry = historyEntry({ workspace, revision: state.revision, at: before.at, changeSet, judged })
      await tables.changeSets.create(entry, { transaction })
      if (mails.length > 0) await tables.mails.bulkCreate(mails as never, { transaction })
    },
  }
}

interface Entry {
  readonly workspace: WorkspaceId
  readonly revision: number
  readonly at: Instant
  readonly changeSet: ChangeSet
  readonly judged: Judged
}

const historyEntry = ({ workspace, revision, at, changeSet, judged }: Entry) => ({
  workspace,
  revision,
  at,
  author: changeSet.author,
  reason: changeSet.reason,
  edits: JSON.stringify(changeSet.edits),
  changes: JSON.stringify(judged.changes),
})

export function problemFrom({ refusal, edit }: Refused, asker: Asker): Problem {
  const { title, instead } = refusalInWords(refusal, namingFor(asker))
  const problem = {
    type: problemType(refusal.code),
    title,
    status: refusalStatus[refusal.code],
    detail: instead,
  }
  return edit === null ? problem : { ...problem, edit }
}
