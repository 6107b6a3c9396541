import { useState } from 'react'
import type { Problem } from '#contract/views/problem.ts'
import type { AppliedView } from '#contract/views/workspace.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { ChangeSetRequest } from '#contract/requests.ts'
import { say } from '../store/message.ts'
import { useAppDispatch } from '../store/store.ts'
import { api } from './api.ts'

/** What goes with the edits: why, and the effect that was seen. */
type Along = Omit<ChangeSetRequest, 'edits'>

export interface Change {
  /** Resolves to what was applied, or to the problem where it was refused. */
  readonly apply: (
    edits: readonly EditRequest[],
    done: string,
    along?: Along,
  ) => Promise<{ readonly applied?: AppliedView; readonly problem?: Problem }>
  readonly problem: Problem | undefined
  readonly isBusy: boolean
  /** While it takes long: how far it is, 0 to 1, and a way to stop it before anything is written. */
  readonly applying: { readonly done: number; readonly onStop: () => void } | undefined
}

/** Applies change sets to a workspace and says what was done. */
export function useChange(slug: string): Change {
  const dispatch = useAppDispatch()
  const [problem, setProblem] = useState<Problem>()
  const [isBusy, setBusy] = useState(false)
  const [applying, setApplying] = useState<Change['applying']>()
  const apply: Change['apply'] = async (edits, done, along = {}) => {
    setBusy(true)
    const onProgress = (share: number) => setApplying({ done: share, onStop: () => waiting.abort() })
    const waiting = dispatch(
      api.endpoints.change.initiate({ slug, edits: [...edits], ...along, onProgress }, { track: false }),
    )
    const { data, error } = await waiting
    setBusy(false)
    setApplying(undefined)
    const refused = error === undefined || 'type' in error ? error : undefined
    setProblem(refused)
    if (data === undefined) return refused === undefined ? {} : { problem: refused }
    // What one wants to be told of is in nobody's history.
    const isTold = edits.some(edit => !edit.kind.startsWith('watch.'))
    dispatch(say(isTold ? { text: done, revision: data.revision } : { text: done }))
    return { applied: data }
  }
  return { apply, problem, isBusy, applying }
}
