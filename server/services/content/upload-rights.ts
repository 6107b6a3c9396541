import type { ServerProblem } from '#contract/problem.ts'
import type { NodeId } from '#core/base/ids.ts'
import { rowOf } from '#core/base/collection.ts'
import { lacksEditing } from '#core/changes/context.ts'
import { type ChangeSet, judge, type Refused } from '#core/changes/judge.ts'
import type { Snapshot } from '#core/state/state.ts'
import { ProblemError, problemOf } from '../../problem-error.ts'
import type { Condition, UseCondition } from '../../store/commit.ts'
import type { UploadRow } from '../../store/tables.ts'
import { problemFrom } from '../changes/change-set.ts'
import type { Asker } from '../viewer/asker.ts'

/** What an upload is to become. */
export type Upload = Pick<UploadRow, 'person' | 'place' | 'isVersion' | 'name'>

export interface Failed {
  readonly problem: ServerProblem
}
export type Refusing = Refused | Failed

export const failed = (problem: ServerProblem): Failed => ({ problem })
export const asFailed = (condition: UseCondition<ServerProblem>): Condition<Failed> => ({
  ...condition,
  orElse: failed(condition.orElse),
})

/** An upload as the change set that makes a file of it, with the id that this gets. */
export const makingFile = ({ person, place, name }: Upload, node: NodeId): ChangeSet => ({
  author: person,
  reason: '',
  edits: [{ kind: 'node.create', node, parent: place, as: 'file', name }],
})

/** Why an upload could not become what it is to become, as things are. */
export function refusalOf(before: Snapshot, upload: Upload): Refused | undefined {
  const { person: author, place, isVersion } = upload
  if (!isVersion) {
    const judged = judge(before, makingFile(upload, 'upload' as NodeId))
    return judged.ok ? undefined : judged.error
  }
  const refusal = lacksEditing({ author, before, now: before }, place)
  if (refusal !== undefined) return { refusal, edit: null }
  const isFile = rowOf(before.state.nodes, place)?.kind === 'file'
  return isFile ? undefined : { refusal: { code: 'unknown', what: 'place' }, edit: null }
}

export const problemFor = (asker: Asker, error: Refusing): ProblemError =>
  'problem' in error ? problemOf(error.problem) : new ProblemError(problemFrom(error, asker))
