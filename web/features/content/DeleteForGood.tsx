import type { EditRequest } from '#contract/edit-requests.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'

interface Props {
  readonly place: { readonly id: string; readonly name: string }
  readonly onDone: () => void
  /** Where nothing was deleted. */
  readonly onLeave: () => void
}

/** A place goes for good, from the bin or out of the archive, with all that is in it. */
export function DeleteForGood({ place: { id, name }, onDone, onLeave }: Props) {
  const edit: EditRequest = { kind: 'node.delete', node: id }
  const decision = useDecision([edit], `${name} is deleted.`, onDone)
  return (
    <Decision label="Delete for good" isDrastic onLeave={onLeave} {...decision}>
      <p className="text-sm">
        Everything in it is deleted too. <strong>This cannot be undone.</strong>
      </p>
    </Decision>
  )
}
