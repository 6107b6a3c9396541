import { useState } from 'react'
import type { Problem } from '#contract/problem.ts'
import type { EditRequest } from '#contract/requests.ts'
import type { AppliedView } from '#contract/views.ts'
import { say } from '../store/said.ts'
import { useAppDispatch } from '../store/store.ts'
import { api } from './api.ts'

export interface Change {
  /** Resolves to what was applied, or to `undefined` where it was refused: then `problem` tells why. */
  readonly apply: (edits: readonly EditRequest[], done: string) => Promise<AppliedView | undefined>
  readonly problem: Problem | undefined
  readonly isBusy: boolean
  readonly forget: () => void
}

/** Applies change sets to a workspace and says what was done. */
export function useChange(slug: string): Change {
  const dispatch = useAppDispatch()
  const [problem, setProblem] = useState<Problem>()
  const [isBusy, setBusy] = useState(false)
  const apply = async (edits: readonly EditRequest[], done: string) => {
    setBusy(true)
    const { data, error } = await dispatch(api.endpoints.change.initiate({ slug, edits: [...edits] }))
    setBusy(false)
    setProblem(error as Problem | undefined)
    if (data !== undefined) dispatch(say(done))
    return data
  }
  return { apply, problem, isBusy, forget: () => setProblem(undefined) }
}
