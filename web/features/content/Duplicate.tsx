import { useState } from 'react'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import { type ActionSet, has } from '#core/levels/action.ts'
import { useMoveTargetsQuery } from '../../api/access.ts'
import { useNodeQuery } from '../../api/api.ts'
import { useDecision } from '../../api/use-decision.ts'
import { useHere } from '../../api/use-here.ts'
import { Combobox } from '../../ui/Combobox.tsx'
import { Decision } from '../../ui/Decision.tsx'
import { OpenedBox } from '../../ui/OpenedBox.tsx'

interface Goal {
  readonly id: string
  readonly name: string
}

interface Props {
  readonly node: NodeView
  readonly onDone: () => void
}

/** A copy of a place with what is in it, beside it or elsewhere. */
export function Duplicate({ node, onDone }: Props) {
  const { slug } = useHere()
  const [typed, setTyped] = useState('')
  const { data: goals = [] } = useMoveTargetsQuery(
    { slug, id: node.id, find: typed },
    { skip: typed.trim() === '' },
  )
  const beside = useBeside(node)
  const [chosen, setGoal] = useState<Goal>()
  const goal = chosen ?? beside
  const options = goals.map(({ id, name, path }) => ({ value: id, name, note: path }))
  const here = beside === undefined ? [] : [{ value: beside.id, name: beside.name, note: 'the same folder' }]
  const all = [...here, ...options]
  return (
    <OpenedBox onLeave={onDone}>
      <Combobox
        label={`Duplicate ${node.name} to`}
        placeholder={goal === undefined ? 'Duplicate to' : `${goal.name}, or another place`}
        options={all}
        onTyped={setTyped}
        nobody="No place found that you can add to"
        onChoose={({ value, name }) => setGoal({ id: value, name })}
      />
      {goal !== undefined && <CopyInto key={goal.id} node={node} goal={goal} onDone={onDone} />}
    </OpenedBox>
  )
}

/** The place around it, where one may add to that. */
function useBeside({ path }: NodeView): Goal | undefined {
  const { slug } = useHere()
  const around = path.at(-1)
  const { data } = useNodeQuery({ slug, id: around?.id ?? '' }, { skip: around === undefined })
  return data !== undefined && has(data.actions as ActionSet, 'add') ? around : undefined
}

function CopyInto({ node, goal, onDone }: Props & { readonly goal: Goal }) {
  const [name, setName] = useState(goal.id === node.path.at(-1)?.id ? `${node.name} (copy)` : node.name)
  const called = name.trim() === '' ? node.name : name.trim()
  const edit: EditRequest = { kind: 'node.duplicate', node: node.id, parent: goal.id, name: called }
  const decision = useDecision([edit], `${called} is now in ${goal.name}.`, onDone)
  return (
    <Decision label={`Duplicate to ${goal.name}`} onLeave={onDone} {...decision}>
      <input
        className="field"
        aria-label="Name of the copy"
        maxLength={200}
        value={name}
        onChange={event => setName(event.target.value)}
      />
      <p className="text-sm">
        Limits and broken inheritance are copied. Grants are not, nor places that you may not copy.
      </p>
    </Decision>
  )
}
