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
  readonly label: string
  readonly confirmation: string
  readonly isDrastic?: boolean
}

export function Deciding({ edits, label, confirmation, isDrastic = false, onLeave, onDone }: DecidingProps) {
  const decision = useDecision(edits, confirmation, onDone)
  return <Decision label={label} isDrastic={isDrastic} onLeave={onLeave} {...decision} />
}
