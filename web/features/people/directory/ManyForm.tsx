import type { EditRequest } from '#contract/edit-requests.ts'
import type { PersonName } from '#contract/views/names.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { Decision } from '../../../ui/Decision.tsx'

/** What the acts on many people are made of. */

export interface FormProps {
  readonly people: readonly PersonName[]
  readonly onLeave: () => void
  readonly onDone: () => void
}

interface DecidingProps extends FormProps {
  readonly edits: readonly EditRequest[]
  readonly act: string
  readonly said: string
  readonly isDrastic?: boolean
}

export function Deciding({ edits, act, said, isDrastic = false, onLeave, onDone }: DecidingProps) {
  const decision = useDecision(edits, said, onDone)
  return <Decision act={act} isDrastic={isDrastic} onLeave={onLeave} {...decision} />
}
