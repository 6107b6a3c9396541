import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { FilterWords } from '../../../ui/FilterWords.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
}

/** Ends all access from outside here and below at once, and lets it be as it was before just as fast. */
export function CloseNow({ access, node }: Props) {
  const [isOpen, setOpen] = useState(false)
  const closed = access.limits.find(each => each.isHere && each.principal === 'guests' && each.allows === 0)
  const word =
    closed === undefined ? 'Close to guests and the web …' : 'Closed to guests and the web: open again …'
  if (!isOpen)
    return (
      <button type="button" className="btn-inline text-sm" onClick={() => setOpen(true)}>
        {word}
      </button>
    )
  return (
    <div className="w-full">
      {closed === undefined ? (
        <Closing access={access} node={node} onDone={() => setOpen(false)} />
      ) : (
        <Opening node={node} limit={closed.id} onDone={() => setOpen(false)} />
      )}
    </div>
  )
}

const choices = { guests: 'Guests and the web', web: 'Only the web' } as const
type Choice = (typeof choices)[keyof typeof choices]

function Closing({ access, node, onDone }: Props & { readonly onDone: () => void }) {
  const mayPublish = has(node.actions as ActionSet, 'publish')
  const hasWeb = node.isPublic || access.published.length > 0
  const words: Choice[] = hasWeb && mayPublish ? [choices.guests, choices.web] : [choices.guests]
  const [choice, setChoice] = useState<Choice>(choices.guests)
  const decision = useDecision(
    choice === choices.guests ? [closing(node.id)] : offTheWeb(access, node),
    `${node.name} is closed to ${choice === choices.guests ? 'guests and the web' : 'the web'}.`,
    onDone,
  )
  return (
    <Decision label="Close now" isDrastic onLeave={onDone} {...decision}>
      {words.length > 1 && (
        <FilterWords label="Close to" words={words} chosen={choice} onChoose={setChoice} />
      )}
      <p className="text-sm">
        {choice === choices.guests
          ? 'Guests and the web lose access to this place and everything in it. Their grants stay, and count again when you open it.'
          : 'Nobody can read this place or anything in it without signing in.'}
      </p>
    </Decision>
  )
}

const closing = (node: string): EditRequest => ({
  kind: 'limit.add',
  node,
  principal: 'guests',
  allows: 0,
  sparesStewards: true,
  from: null,
  until: null,
})

/** What is published here and below goes off; what is published above is kept from reaching here. */
function offTheWeb({ published }: Props['access'], node: NodeView): EditRequest[] {
  const here: EditRequest[] = node.isPublic ? [{ kind: 'node.web', node: node.id, web: 'excluded' }] : []
  const below = published
    .filter(each => each.id !== node.id)
    .map(each => ({ kind: 'node.web', node: each.id, web: null }) as const)
  return [...here, ...below]
}

interface OpeningProps {
  readonly node: NodeView
  readonly limit: string
  readonly onDone: () => void
}

function Opening({ node, limit, onDone }: OpeningProps) {
  const decision = useDecision(
    [{ kind: 'limit.end', limit }],
    `${node.name} is open to guests and the web again.`,
    onDone,
  )
  return <Decision label="Open again" onLeave={onDone} {...decision} />
}
