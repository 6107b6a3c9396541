import type { PreviewView } from '#contract/views/impact.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { type ChangeSet, type Judged, judging, type Refused, proposedOf } from '#core/changes/judge.ts'
import { type Steps, toEnd } from '#core/changes/steps.ts'
import { differencesIn } from '#core/impact/bulk.ts'
import { rowOf, rowsBy } from '#core/base/collection.ts'
import type { WorkspaceId } from '#core/base/ids.ts'
import { ok, refused, type Result } from '#core/base/result.ts'
import type { Edit } from '#core/changes/edit.ts'
import { snapshotOf } from '#core/state/snapshot.ts'
import { atRevision, type Snapshot, type RecordChange } from '#core/state/state.ts'
import type { ServerProblem } from '#contract/problem.ts'
import type { Commit, Condition, RowChange } from '../../store/commit.ts'
import { contentKinds } from '../../store/content/all.ts'
import { type Candidates, submit } from '../../store/writer.ts'
import { invitationMails } from '../../mail/invitation.ts'
import type { Parts } from '../../parts.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import type { Asker } from '../viewer/asker.ts'
import { changeSetFrom, type Meant, problemFrom } from './change-set.ts'
import { previewOf } from './preview.ts'
import { doneSince } from '../oversight/history.ts'
import { goesForGood, type SentAlong, writingIn } from './audit-entry.ts'
import { spending } from '../viewer/quota.ts'
import { ifShort, inTurns } from '../viewer/turns.ts'
import type { Patience } from '../../worker/asking.ts'

/** So often a large change is worked out anew because others wrote meanwhile. */
const triesAtMost = 5

/**
 * The one road of every change of access: judged on the state in memory, written with its history
 * entry and the mails and notifications that it causes, published after the commit. Where its author saw an
 * effect, it is worked out anew, and another one is a refusal that tells it. What takes long to work out is not worked
 * out while other writes wait: it holds as long as nobody else writes. Until it is written it can be stopped.
 */
export async function applyChangeSet(
  parts: Parts,
  asker: Asker,
  { request, patience }: { readonly request: ChangeSetRequest; readonly patience: Patience },
): Promise<AppliedView> {
  return inTurns(parts, { asker, patience }, async turn => {
    const meant = await changeSetFrom(parts, asker, { request, turn })
    if (locksOut(parts, asker, meant)) throw problemOf('two-step-first')
    const trying = { asker, meant, seen: request.preview }
    let known: Known | undefined
    for (let tries = 0; tries <= triesAtMost; tries += 1) {
      // What others have outrun so often, and is none of the long ones, is worked out in its place.
      const mayHold = tries === triesAtMost && !turn.isLong()
      const result = await submit(parts.writer, candidates =>
        prepare(parts, { ...trying, candidates, known, mayHold }),
      )
      if (result.ok) return { revision: result.value, made: Object.fromEntries(meant.made) }
      if (result.error !== 'long') throw await refusalOf(parts, trying, result.error)
      const published = parts.writer.states.published.get(asker.workspace)
      if (published === undefined) throw problemOf('not-found')
      const before = snapshotOf(published.snapshot.state, parts.clock())
      known = { before, outcome: await turn.run(workingOut(parts, trying, before)) }
    }
    throw problemOf('others-changed')
  })
}

/** What a change set comes to, worked out while others went on. */
interface Known {
  readonly before: Snapshot
  readonly outcome: Outcome
}

type Outcome = Result<Writing, Unfit>
/** Refused, or what its author saw is not what it does. */
type Unfit = Refused | { readonly preview: PreviewView } | Failed

async function refusalOf(parts: Parts, { asker, seen }: Trying, error: Unfit): Promise<ProblemError> {
  const seenRevision = Number(seen?.split('.')[0] ?? Number.NaN)
  const meanwhile = Number.isNaN(seenRevision) ? [] : await doneSince(parts, asker, seenRevision)
  const details = meanwhile.length === 0 ? {} : { meanwhile }
  if ('problem' in error) return problemOf(error.problem)
  if ('preview' in error) return problemOf('preview-changed', { preview: error.preview, ...details })
  return new ProblemError({ ...problemFrom(error, asker), ...details })
}

/** Whether the author would ask a second step of themselves that they do not have. */
function locksOut({ secured }: Parts, { snapshot, person }: Asker, { changeSet }: Meant): boolean {
  const { account } = rowOf(snapshot.state.persons, person) ?? { account: null }
  if (account !== null && secured.has(account)) return false
  const held = rowsBy(snapshot.state.holdings, 'person', person).map(each => each.role)
  return changeSet.edits.some(
    edit => edit.kind === 'workspace.change' && edit.twoStepFor?.some(role => held.includes(role)) === true,
  )
}

interface Trying {
  readonly asker: Asker
  readonly meant: Meant
  readonly seen: string | undefined
}

interface Submission extends Trying {
  readonly candidates: Candidates
  readonly known: Known | undefined
  /** Whether it may take as long as it takes, while others wait. */
  readonly mayHold: boolean
}

function prepare(
  parts: Parts,
  { candidates, known, mayHold, ...trying }: Submission,
): Result<Commit<number, Unfit | 'long'>, Unfit | 'long'> {
  const before = candidates.snapshotOf(trying.asker.workspace)
  if (before === undefined) throw problemOf('not-found')
  if (known?.before.state === before.state) return known.outcome
  if (mayHold) return toEnd(workingOut(parts, trying, before))
  if (known !== undefined) return refused('long')
  return ifShort(workingOut(parts, trying, before))?.value ?? refused('long')
}

function* workingOut(parts: Parts, { asker, meant, seen }: Trying, before: Snapshot): Steps<Outcome> {
  const { changeSet, undone, draft, message } = meant
  const judged = yield* judging(before, changeSet)
  if (!judged.ok) return refused(judged.error)
  const proposed = proposedOf(before, changeSet, judged.value)
  if (seen !== undefined) {
    const impacts = yield* differencesIn(proposed, asker.person)
    const preview = yield* previewOf(asker, before, { ...meant, judged: judged.value, impacts })
    if (digestIn(preview.digest) !== digestIn(seen)) return refused({ preview })
  }
  const sentAlong = { message, handedBy: draft?.from ?? null }
  const { workspace } = asker
  const judgement = { workspace, before, changeSet, judged: judged.value, undone, sentAlong }
  return ok(yield* writingJudged(parts, { ...judgement, draft: draft?.id }))
}

const digestIn = (seen: string): string => seen.slice(seen.indexOf('.') + 1)

interface Judgement {
  readonly workspace: WorkspaceId
  readonly before: Snapshot
  readonly changeSet: ChangeSet
  readonly judged: Judged
  readonly undone?: Meant['undone']
  readonly sentAlong?: SentAlong
  /** The kept change set that it is: gone with it. */
  readonly draft?: string | undefined
}

/** A change set that was judged, as it is written: its records, its history entry, its mails and notifications. */
export const writeJudged = (parts: Parts, judgement: Judgement): Writing =>
  toEnd(writingJudged(parts, judgement))

type Writing = Commit<number, Failed>
/** What else may stand in the way once it is written. */
export type Failed = { readonly problem: ServerProblem }

function* writingJudged(
  parts: Parts,
  { workspace, before, changeSet, judged, undone = null, sentAlong = {}, draft }: Judgement,
): Steps<Writing> {
  const state = atRevision(judged.state, before.state.revision + 1)
  const after: Snapshot = { state, at: before.at }
  const transition = { changes: judged.changes, before, after }
  const writing = yield* writingIn(parts, { ...changeSet, workspace, transition, after, undone, sentAlong })
  const mails = invitationMails(parts, { workspace, changeSet, after })
  const kept = judged.changes.filter(change => !goesForGood(transition, change))
  const copies = judged.copies.flatMap(({ from, to, columns = [] }) => {
    const by = rowOf(state.nodes, to)?.maker
    return by === undefined ? [] : [{ from: from.id, to, by, columns }]
  })
  return {
    state,
    value: state.revision,
    conditions: [
      ...unwritten(workspace, kept),
      ...spent(parts, { workspace, changeSet, mails: mails.length + writing.mails }),
    ],
    rows: [
      ...writing.rows,
      { kind: 'copies', workspace, at: before.at, copies },
      { kind: 'put', table: 'mails', rows: mails },
      ...dropped(workspace, draft),
    ],
    news: [...writing.news, ...(mails.length > 0 ? [{ of: 'mails' } as const] : [])],
  }
}

const dropped = (workspace: WorkspaceId, draft: string | undefined): RowChange[] =>
  draft === undefined ? [] : [{ kind: 'drop', table: 'drafts', workspace, ids: [draft] }]

/** What is asked for, and taken back again, so that others are called to it. */
const asking: ReadonlySet<Edit['kind']> = new Set(['request.make', 'request.withdraw'])

interface Spent {
  readonly workspace: WorkspaceId
  readonly changeSet: ChangeSet
  readonly mails: number
}

/** Mails count for their author; those that somebody caused who came by a link, for the link. */
function spent(parts: Parts, { workspace, changeSet: { author, edits }, mails }: Spent): Condition<Failed>[] {
  const use = edits.find(edit => edit.kind === 'link.use')
  const requests = edits.filter(edit => asking.has(edit.kind)).length
  const conditions =
    use !== undefined
      ? spending(parts, { workspace, who: use.link, what: 'comers' })
      : [
          ...spending(parts, { workspace, who: author, what: 'mails', count: mails }),
          ...spending(parts, { workspace, who: author, what: 'requests', count: requests }),
        ]
  return conditions.map(each => ({ ...each, orElse: { problem: each.orElse } }))
}

/** Between asking and writing somebody may have written on a page that is about to be unmade. */
function unwritten(workspace: WorkspaceId, changes: readonly RecordChange[]): Condition<Failed>[] {
  const nodes = changes.flatMap(({ table, id, after }) => (table === 'nodes' && after === null ? [id] : []))
  if (nodes.length === 0) return []
  return contentKinds.map(kind => kind.noneIn({ workspace, nodes }, { problem: 'preview-changed' }))
}
