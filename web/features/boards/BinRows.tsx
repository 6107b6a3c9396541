import type { EditRequest } from '#contract/edit-requests.ts'
import { counted, nounFor } from '#core/words/english.ts'
import { useDecision } from '../../api/use-decision.ts'
import { Decision } from '../../ui/Decision.tsx'
import type { ChosenRow } from './board-context.ts'

interface Props {
  readonly rows: readonly ChosenRow[]
  readonly onDone: () => void
}

/** Rows go to the bin together, with what that does to whom. */
export function BinRows({ rows, onDone }: Props) {
  const edits = rows.map(({ id }): EditRequest => ({ kind: 'node.state', node: id, binned: true }))
  const what = counted(rows.length, 'row', 'rows')
  const confirmation = `${what} ${nounFor(rows.length, 'is', 'are')} now in the bin.`
  const decision = useDecision(edits, confirmation, onDone)
  return (
    <Decision label={`Move ${what} to bin`} isDrastic onLeave={onDone} {...decision}>
      <ul className="max-h-48 overflow-y-auto text-sm">
        {rows.map(({ id, name }) => (
          <li key={id} className="truncate">
            {name}
          </li>
        ))}
      </ul>
      <p className="text-sm">
        Nobody can open them there. People who can remove them can restore them for 30 days.
      </p>
    </Decision>
  )
}
