import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { AccessView } from '#contract/views/access.ts'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { useDecision } from '../../../api/use-decision.ts'
import { Decision } from '../../../ui/Decision.tsx'

interface Props {
  readonly access: Extract<AccessView, { detail: 'all' }>
  readonly node: NodeView
}

/** Breaking inheritance at a place, and restoring it. */
export function Inheritance({ access, node }: Props) {
  const isBroken = access.broken !== null
  const mayBreak = has(node.actions as ActionSet, 'seal') && node.home !== 'person'
  const [isOpen, setOpen] = useState(false)
  return (
    <section aria-label="Inheritance" className="mt-4 border-t border-base-content pt-2">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="font-bold">{isBroken ? 'Inheritance is broken' : 'Inheritance'}</h3>
        {mayBreak && !isOpen && (
          <button type="button" className="btn-inline shrink-0 text-sm" onClick={() => setOpen(true)}>
            {isBroken ? 'Restore inheritance …' : 'Break inheritance …'}
          </button>
        )}
      </div>
      {isOpen && <Deciding node={node} isBroken={isBroken} onDone={() => setOpen(false)} />}
    </section>
  )
}

const breaking = [
  { choice: 'keep', word: 'Keep the present access: copy inherited grants to this place' },
  { choice: 'empty', word: 'Start empty: keep only the grants on this place, and yourself' },
] as const

const restoring = [
  { choice: 'copies', word: 'Remove the copies that the break made' },
  { choice: 'none', word: 'Keep all grants on this place' },
  { choice: 'own', word: 'Remove all grants on this place' },
] as const

type Choice = (typeof breaking | typeof restoring)[number]['choice']

interface DecidingProps {
  readonly node: NodeView
  readonly isBroken: boolean
  readonly onDone: () => void
}

function Deciding({ node, isBroken, onDone }: DecidingProps) {
  const choices = isBroken ? restoring : breaking
  const [choice, setChoice] = useState<Choice>(choices[0].choice)
  const confirmation = isBroken
    ? `Inheritance is restored on ${node.name}.`
    : `Inheritance is broken on ${node.name}.`
  const decision = useDecision([editFor(node.id, choice)], confirmation, onDone)
  return (
    <Decision
      label={isBroken ? 'Restore inheritance' : 'Break inheritance'}
      isDrastic={choice === 'empty' || choice === 'own'}
      onLeave={onDone}
      {...decision}
    >
      <fieldset className="grid gap-1">
        <legend className="sr-only">How</legend>
        {choices.map(each => (
          <label key={each.choice} className="flex items-center gap-2">
            <input
              type="radio"
              name="how"
              className="radio radio-sm border-base-content/60"
              checked={choice === each.choice}
              onChange={() => setChoice(each.choice)}
            />
            {each.word}
          </label>
        ))}
      </fieldset>
    </Decision>
  )
}

function editFor(node: string, choice: Choice): EditRequest {
  return choice === 'empty' || choice === 'keep'
    ? { kind: 'node.break', node, mode: choice }
    : { kind: 'node.restore', node, drop: choice }
}
