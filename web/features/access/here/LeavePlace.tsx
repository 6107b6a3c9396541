import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'

/** Giving up what one was given here by name. What comes through a team, or from above, stays. */
export function LeavePlace({ node }: { readonly node: NodeView }) {
  const [isOpen, setOpen] = useState(false)
  if (node.mine.length === 0) return null
  return isOpen ? (
    <Offboarding node={node} onLeave={() => setOpen(false)} />
  ) : (
    <button type="button" className="btn-plain mt-4" onClick={() => setOpen(true)}>
      Leave this place …
    </button>
  )
}

function Offboarding({ node, onLeave }: { readonly node: NodeView; readonly onLeave: () => void }) {
  const { slug } = useHere()
  const navigate = useNavigate()
  const edits: EditRequest[] = node.mine.map(grant => ({ kind: 'grant.end', grant }))
  const decision = useDecision(
    edits,
    `You have left ${node.name}.`,
    () => void navigate(`/at/${slug}/content`),
  )
  return (
    <Decision isDrastic label={`Leave ${node.name}`} {...decision} onLeave={onLeave}>
      <p className="text-sm">
        Your own grants on this place end. Access from a team or from a place above stays.
      </p>
    </Decision>
  )
}
