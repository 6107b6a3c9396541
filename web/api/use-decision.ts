import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AppliedView, ForeseenView } from '#contract/views.ts'
import { useChange } from './use-change.ts'
import { useForesee } from './use-foresee.ts'
import { useHere } from './use-here.ts'

interface Newer {
  readonly asked: string
  readonly effect: ForeseenView
  /** What its author had seen. */
  readonly earlier: ForeseenView | undefined
}

/**
 * Edits that are about to be decided: what they would do, and the act that does just that. Where it would do
 * something else by then, nothing is done: the new effect is shown, with the one that was seen.
 */
export function useDecision(
  edits: readonly EditRequest[],
  said: string,
  onDone: (applied: AppliedView) => void,
) {
  const { slug } = useHere()
  const asked = JSON.stringify(edits)
  const [newer, setNewer] = useState<Newer>()
  const [reason, onReason] = useState('')
  const first = useForesee(slug, edits)
  const foreseen =
    newer?.asked === asked
      ? { effect: newer.effect, problem: undefined, earlier: newer.earlier }
      : { ...first, earlier: undefined }
  const { apply, problem, isBusy } = useChange(slug)
  const onAct = async () => {
    const seen = foreseen.effect?.seen
    const done = await apply(edits, said, { ...(seen === undefined ? {} : { seen }), reason: reason.trim() })
    if (done.applied !== undefined) onDone(done.applied)
    else if (done.problem?.effect !== undefined)
      setNewer({ asked, effect: done.problem.effect, earlier: foreseen.effect })
  }
  return { foreseen, problem, isBusy, onAct, reason, onReason }
}
