import { useState } from 'react'
import { dayOf, endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { GrantView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../../ui/LevelChoice.tsx'
import { atMostFor } from '../at-most.ts'
import { DayField } from '../../../ui/DayField.tsx'

interface Props {
  readonly grant: GrantView
  readonly node: NodeView
  readonly onDone: () => void
}

/** Raise, lower, lengthen or shorten what is given here; or end it. */
export function GrantEditor({ grant, node, onDone }: Props) {
  const { workspace } = useHere()
  const [gives, setGives] = useState<Given>(grant.gives)
  const end = grant.until === null ? '' : dayOf(grant.until - 1, workspace.timeZone)
  const [through, setThrough] = useState(end)
  const until = through === '' ? null : through === end ? grant.until : endOfDay(through, workspace.timeZone)
  const isSame = gives === grant.gives && through === end
  const level = nameOfGiven(gives, workspace.ownLevels)
  const edit: EditRequest = isSame
    ? { kind: 'grant.end', grant: grant.id }
    : { kind: 'grant.change', grant: grant.id, gives, until }
  const confirmation = isSame
    ? `The grant of ${grant.name} has ended.`
    : `${grant.name} now has ${level} on ${node.name}.`
  const decision = useDecision([edit], confirmation, onDone)
  const change = gives === grant.gives ? 'Change the end' : `Change to ${level}`
  return (
    <Decision isDrastic={isSame} label={isSame ? 'End this grant' : change} onLeave={onDone} {...decision}>
      <div className="grid grid-cols-2 gap-2">
        <LevelChoice
          label={`Level of ${grant.name}`}
          value={gives}
          own={workspace.ownLevels}
          atMost={atMostFor(grant.kind, node.actions)}
          onChange={setGives}
        />
        <DayField isQuiet label={`Ends after, ${grant.name}`} value={through} onValue={setThrough} />
      </div>
    </Decision>
  )
}
