import type { AppliedView, ForeseenView } from '#contract/views.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { type ChangeSet, judge, type Judged, type Refused } from '#core/changes/judge.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import { atRevision, type Moment, type RecordChange } from '#core/state/state.ts'
import type { Transaction } from 'sequelize'
import { put } from '../store/batch.ts'
import { type Candidates, type Prepared, submit } from '../store/writer.ts'
import { invitationMails } from '../mail/invitation.ts'
import type { Parts } from '../parts.ts'
import { ProblemError, problemOf } from '../problem-error.ts'
import type { Asker } from './asker.ts'
import { changeSetFrom, type Meant, problemFrom } from './change-set.ts'
import { foreseenBy } from './foresee.ts'
import { doneSince } from './history.ts'
import { leavesBin, type Told, writingOf } from './record.ts'
import { copyTexts } from './text.ts'

/**
 * The one road of every change of access: judged on the state in memory, written with its history
 * entry and the mails and notices that it causes, published after the commit. Where its author saw an
 * effect, it is worked out anew, and another one is a refusal that tells it.
 */
export async function applyChangeSet(
  parts: Parts,
  asker: Asker,
  request: ChangeSetRequest,
): Promise<AppliedView> {
  const meant = await changeSetFrom(parts, asker, request)
  if (locksOut(parts, asker, meant)) throw problemOf('second-step-first')
  const result = await submit(parts.writer, candidates =>
    prepare(parts, { asker, meant, seen: request.seen, candidates }),
  )
  if (result.ok) return { revision: result.value, made: Object.fromEntries(meant.made) }
  const seenRevision = Number(request.seen?.split('.')[0] ?? Number.NaN)
  const meanwhile = Number.isNaN(seenRevision) ? [] : await doneSince(parts, asker, seenRevision)
  const told = meanwhile.length === 0 ? {} : { meanwhile }
  if ('effect' in result.error) throw problemOf('effect-changed', { effect: result.error.effect, ...told })
  throw new ProblemError({ ...problemFrom(result.error, asker), ...told })
}

/** Whether the author would ask a second step of themselves that they do not have. */
function locksOut({ secured }: Parts, { moment, person }: Asker, { changeSet }: Meant): boolean {
  const { account } = rowOf(moment.state.persons, person) ?? { account: null }
  if (account !== null && secured.has(account)) return false
  const held = rowsBy(moment.state.holdings, 'person', person).map(each => each.role)
  return changeSet.edits.some(
    edit =>
      edit.kind === 'workspace.change' && edit.secondFactorFor?.some(role => held.includes(role)) === true,
  )
}

interface Submission {
  readonly asker: Asker
  readonly meant: Meant
  readonly seen: string | undefined
  readonly candidates: Candidates
}

function prepare(
  parts: Parts,
  { asker, meant, seen, candidates }: Submission,
): Result<Prepared<number>, Refused | { readonly effect: ForeseenView }> {
  const before = candidates.momentOf(asker.workspace)
  if (before === undefined) throw problemOf('not-found')
  const { changeSet, undone, draft, message } = meant
  const judged = judge(before, changeSet)
  if (!judged.ok) return refused(judged.error)
  if (seen !== undefined) {
    const effect = foreseenBy(asker, before, { ...meant, judged: judged.value })
    if (digestIn(effect.seen) !== digestIn(seen)) return refused({ effect })
  }
  const { workspace } = asker
  const told = { message, handedBy: draft?.from ?? null }
  const judgement = { workspace, before, changeSet, judged: judged.value, undone, told }
  return ok(writeJudged(parts, { ...judgement, draft: draft?.id }))
}

const digestIn = (seen: string): string => seen.slice(seen.indexOf('.') + 1)

interface Judgement {
  readonly workspace: WorkspaceId
  readonly before: Moment
  readonly changeSet: ChangeSet
  readonly judged: Judged
  readonly undone?: Meant['undone']
  readonly told?: Told
  /** The kept change set that it is: gone with it. */
  readonly draft?: string | undefined
}

/** The rows of a change set that was judged: its records, its history entry, its mails and notices. */
export function writeJudged(
  parts: Parts,
  { workspace, before, changeSet, judged, undone = null, told = {}, draft }: Judgement,
): Prepared<number> {
  const state = atRevision(judged.state, before.state.revision + 1)
  const after: Moment = { state, at: before.at }
  const touching = { changes: judged.changes, before, after }
  const writing = writingOf(parts, { ...changeSet, workspace, touching, after, undone, told })
  const mails = invitationMails(parts, { workspace, changeSet, after })
  return {
    state,
    value: state.revision,
    write: async batch => {
      const { transaction } = batch
      const kept = judged.changes.filter(change => !leavesBin(before, change))
      await keepWhatIsWritten(parts, { workspace, changes: kept, transaction })
      await writing.write(batch)
      if (draft !== undefined)
        await parts.writer.tables.drafts.destroy({ where: { workspace, id: draft }, transaction })
      await copyTexts(parts, { workspace, before, judged, transaction })
      put(batch, parts.writer.tables.mails, { rows: mails })
    },
    after: writing.after,
  }
}

interface Keeping {
  readonly workspace: WorkspaceId
  readonly changes: readonly RecordChange[]
  readonly transaction: Transaction
}

/** Between asking and writing somebody may have written on a page that is about to be unmade. */
async function keepWhatIsWritten(
  { writer }: Parts,
  { workspace, changes, transaction }: Keeping,
): Promise<void> {
  const unmade = changes.flatMap(({ table, id, after }) => (table === 'nodes' && after === null ? [id] : []))
  if (unmade.length === 0) return
  const written = await writer.tables.texts.count({ where: { workspace, node: unmade }, transaction })
  if (written > 0) throw problemOf('effect-changed')
}
