import type { ForeseenView } from '#contract/effect-views.ts'
import type { AppliedView } from '#contract/views.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { type ChangeSet, judge, type Judged, type Refused, wholeOf } from '#core/changes/judge.ts'
import type { ImpactAt } from '#core/impact/impact.ts'
import { isWide, type Recorded } from '#core/impact/wide.ts'
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
import { askEffects, askRecord, effectsOf } from './effects.ts'
import { foreseenBy } from './foresee.ts'
import { doneSince } from './history.ts'
import { goesForGood, type Told, writingOf } from './record.ts'
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
  const trying = { asker, meant, seen: request.seen }
  let result = await submit(parts.writer, candidates => prepare(parts, { ...trying, candidates }))
  if (!result.ok && 'wide' in result.error) {
    const known = await askAbout(parts, trying, result.error.wide)
    result = await submit(parts.writer, candidates => prepare(parts, { ...trying, candidates, known }))
  }
  if (result.ok) return { revision: result.value, made: Object.fromEntries(meant.made) }
  const seenRevision = Number(request.seen?.split('.')[0] ?? Number.NaN)
  const meanwhile = Number.isNaN(seenRevision) ? [] : await doneSince(parts, asker, seenRevision)
  const told = meanwhile.length === 0 ? {} : { meanwhile }
  if ('effect' in result.error) throw problemOf('effect-changed', { effect: result.error.effect, ...told })
  if ('wide' in result.error) throw problemOf('fault')
  throw new ProblemError({ ...problemFrom(result.error, asker), ...told })
}

/** A wide change that was judged: what it does has to be known first. */
interface Wide {
  readonly before: Moment
  readonly judged: Judged
}

/** What a wide change does, asked of the thread while others go on; it holds as long as nobody writes meanwhile. */
interface Known extends Wide {
  readonly effects: readonly ImpactAt[]
  readonly record: Recorded
}

async function askAbout(
  parts: Parts,
  { asker, meant, seen }: Omit<Submission, 'candidates' | 'known'>,
  { before, judged }: Wide,
): Promise<Known> {
  const { workspace, person } = asker
  const whole = wholeOf(before, meant.changeSet, judged)
  return {
    before,
    judged,
    effects: seen === undefined ? [] : await askEffects(parts, { workspace, whole, asker: person }),
    record: await askRecord(parts, { workspace, whole }),
  }
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
  readonly known?: Known
}

function prepare(
  parts: Parts,
  { asker, meant, seen, candidates, known }: Submission,
): Result<Prepared<number>, Refused | { readonly effect: ForeseenView } | { readonly wide: Wide }> {
  const before = candidates.momentOf(asker.workspace)
  if (before === undefined) throw problemOf('not-found')
  const { changeSet, undone, draft, message } = meant
  const still = known?.before.state === before.state ? known : undefined
  const judged = judgedNow(before, changeSet, still)
  if (!judged.ok) return refused(judged.error)
  const whole = wholeOf(before, changeSet, judged.value)
  if (known === undefined && isWide(whole)) return refused({ wide: { before, judged: judged.value } })
  const effects = () => still?.effects ?? effectsOf(whole, asker.person)
  const effect = changedEffect({ asker, meant, seen }, before, { judged: judged.value, effects })
  if (effect !== undefined) return refused({ effect })
  const { workspace } = asker
  const told = { message, handedBy: draft?.from ?? null }
  const record = still?.record
  const judgement = { workspace, before, changeSet, judged: judged.value, undone, told, record }
  return ok(writeJudged(parts, { ...judgement, draft: draft?.id }))
}

/** Not judged again where nobody wrote since. */
const judgedNow = (before: Moment, changeSet: ChangeSet, still: Known | undefined) =>
  still === undefined ? judge(before, changeSet) : ok(still.judged)

/** What a change set does by now, where its author saw something else. */
function changedEffect(
  { asker, meant, seen }: Pick<Submission, 'asker' | 'meant' | 'seen'>,
  before: Moment,
  { judged, effects }: { readonly judged: Judged; readonly effects: () => readonly ImpactAt[] },
): ForeseenView | undefined {
  if (seen === undefined) return undefined
  const effect = foreseenBy(asker, before, { ...meant, judged, effects: effects() })
  return digestIn(effect.seen) === digestIn(seen) ? undefined : effect
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
  /** What it does, where that is known already. */
  readonly record?: Recorded | undefined
}

/** The rows of a change set that was judged: its records, its history entry, its mails and notices. */
export function writeJudged(
  parts: Parts,
  { workspace, before, changeSet, judged, undone = null, told = {}, draft, record }: Judgement,
): Prepared<number> {
  const state = atRevision(judged.state, before.state.revision + 1)
  const after: Moment = { state, at: before.at }
  const touching = { changes: judged.changes, before, after }
  const writing = writingOf(parts, { ...changeSet, workspace, touching, after, undone, told, record })
  const mails = invitationMails(parts, { workspace, changeSet, after })
  return {
    state,
    value: state.revision,
    write: async batch => {
      const { transaction } = batch
      const kept = judged.changes.filter(change => !goesForGood(touching, change))
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
