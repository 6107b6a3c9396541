import { useState } from 'react'
import { endOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/requests.ts'
import type { NodeView, PrincipalName } from '#contract/views.ts'
import { type ActionSet, holds } from '#core/levels/action.ts'
import { levelActions, nameOfActions } from '#core/levels/level.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { LevelChoice } from '../../ui/LevelChoice.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { atMostFor } from './GrantEditor.tsx'
import { onSubmit } from '../../ui/on-submit.ts'

/** Who is about to get access. One with a `mail` is from outside and invited in the same act. */
export interface Receiver extends Pick<PrincipalName, 'principal' | 'name' | 'kind'> {
  readonly mail?: string
}

interface Props {
  readonly node: NodeView
  readonly receiver: Receiver
  readonly onDone: () => void
}

export function ShareForm({ node, receiver, onDone }: Props) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const reader = levelActions('Reader')
  const [actions, setActions] = useState<number>(
    holds(node.actions as ActionSet, reader) ? reader : levelActions('Preview'),
  )
  const [through, setThrough] = useState('')
  const [as, setAs] = useState<'guest' | 'member'>('guest')
  const level = nameOfActions(actions as ActionSet).name
  const mayBeMember = receiver.mail !== undefined && workspace.me.privileges.includes('invite members')
  const submit = async () => {
    const until = through === '' ? null : endOfDay(through, workspace.timeZone)
    const grant: EditRequest = {
      kind: 'grant.add',
      node: node.id,
      principal: receiver.principal,
      gives: actions,
      from: null,
      until,
    }
    const edits = receiver.mail === undefined ? [grant] : [inviting(receiver.mail, as), grant]
    const done = await apply(
      edits,
      `${receiver.name} has ${level} on ${node.name}${receiver.mail ? ' once they accept' : ' now'}.`,
    )
    if (done !== undefined) onDone()
  }
  return (
    <form className="grid gap-3 border border-base-content bg-base-200 p-3" onSubmit={onSubmit(submit)}>
      <p>
        Open <strong>{node.name}</strong> and all below it for{' '}
        <strong className="break-words">{receiver.name}</strong>
      </p>
      {mayBeMember && <GuestOrMember as={as} onAs={setAs} />}
      <LevelChoice
        label="Level"
        value={actions}
        atMost={atMostFor(receiver.mail === undefined ? receiver.kind : as, node.actions)}
        onChange={setActions}
      />
      <TextField
        label="Through"
        type="date"
        hint="The last day, included. Leave empty for no end."
        value={through}
        onValue={setThrough}
      />
      <ProblemNote problem={problem} />
      <div className="flex justify-between gap-2">
        <button className="btn-act" disabled={isBusy}>
          {receiver.mail === undefined ? `Give ${level}` : `Invite and give ${level}`}
        </button>
        <button type="button" className="btn-plain" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  )
}

const inviting = (mail: string, as: 'guest' | 'member'): EditRequest => ({
  kind: 'person.invite',
  person: 'new:guest',
  mail,
  name: '',
  as,
  role: null,
  scope: { over: 'workspace' },
  until: null,
  message: '',
})

const GuestOrMember = ({
  as,
  onAs,
}: {
  readonly as: 'guest' | 'member'
  readonly onAs: (as: 'guest' | 'member') => void
}) => (
  <fieldset className="grid gap-1">
    <legend className="sr-only">They come as</legend>
    <label className="flex items-center gap-2">
      <input
        type="radio"
        className="radio radio-sm border-base-content/60"
        name="as"
        checked={as === 'guest'}
        onChange={() => onAs('guest')}
      />
      a guest for this place alone
    </label>
    <label className="flex items-center gap-2">
      <input
        type="radio"
        className="radio radio-sm border-base-content/60"
        name="as"
        checked={as === 'member'}
        onChange={() => onAs('member')}
      />
      a member of the workspace
    </label>
  </fieldset>
)
