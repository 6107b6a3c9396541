import type { EditRequest } from '#contract/requests.ts'
import { useChange } from './use-change.ts'
import { useForesee } from './use-foresee.ts'
import { useHere } from './use-here.ts'

/** Edits that are about to be decided: what they would do, and the act that does it. */
export function useDecision(edits: readonly EditRequest[], said: string, onDone: () => void) {
  const { slug } = useHere()
  const foreseen = useForesee(slug, edits)
  const { apply, problem, isBusy } = useChange(slug)
  const onAct = async () => {
    if ((await apply(edits, said)) !== undefined) onDone()
  }
  return { foreseen, problem, isBusy, onAct }
}
