import { useState } from 'react'
import { endOfDay, startOfDay } from '#contract/dates.ts'
import type { EditRequest } from '#contract/edit-requests.ts'
import type { NodeView } from '#contract/views/content.ts'
import type { PreviewView } from '#contract/views/impact.ts'
import { type ActionSet, holds } from '#core/levels/action.ts'
import { levelActions } from '#core/levels/level.ts'
import { useDecision } from '../../../api/use-decision.ts'
import type { Receiver } from '../../../api/use-receivers.ts'
import { useHere } from '../../../api/use-here.ts'
import { Decision } from '../../../ui/Decision.tsx'
import { type Given, LevelChoice, nameOfGiven } from '../../../ui/LevelChoice.tsx'
import { Span } from '../../../ui/Span.tsx'
import { atMostFor } from '../at-most.ts'

interface Props {
  readonly node: NodeView
  readonly receiver: Receiver
  readonly onDone: () => void
}

export function ShareForm({ node, receiver, onDone }: Props) {
  const { workspace } = useHere()
  const reader = levelActions('Reader')
  const [gives, setGives] = useState<Given>(
    holds(node.actions as ActionSet, reader) ? reader : levelActions('Preview'),
  )
  const [from, setFrom] = useState('')
  const [through, setThrough] = useState('')
  const [as, setAs] = useState<'guest' | 'member'>('guest')
  const level = nameOfGiven(gives, workspace.ownLevels)
  const { mail, principal, name } = receiver
  const until = through === '' ? null : endOfDay(through, workspace.timeZone)
  const grant: EditRequest = {
    kind: 'grant.add',
    node: node.id,
    principal,
    gives,
    from: from === '' ? null : startOfDay(from, workspace.timeZone),
    until,
  }
  const edits = mail === undefined ? [grant] : [inviting(mail, as), grant]
  const confirmation =
    from !== ''
      ? `${name} gets ${level} on ${node.name} later, from the day that you chose.`
      : mail === undefined
        ? `${name} now has ${level} on ${node.name}.`
        : `${name} has ${level} on ${node.name} once they accept.`
  const decision = useDecision(edits, confirmation, onDone)
  return (
    <Decision
      label={mail === undefined ? `Give ${level}` : `Invite and give ${level}`}
      onLeave={onDone}
      tells
      {...decision}
    >
      <p>
        Share <strong>{node.name}</strong> and everything in it with{' '}
        <strong className="break-words">{name}</strong>
      </p>
      {mail !== undefined && workspace.me.privileges.includes('invite members') && (
        <GuestOrMember as={as} onAs={setAs} />
      )}
      <LevelChoice
        label="Level"
        value={gives}
        own={workspace.ownLevels}
        atMost={atMostFor(mail === undefined ? receiver.kind : as, node.actions)}
        onChange={setGives}
      />
      {isNothing(decision.preview.preview) && (
        <p className="text-sm text-warning">
          This changes nothing: {name} already has this access, or a limit reduces it.
        </p>
      )}
      <Span from={from} through={through} onFrom={setFrom} onThrough={setThrough} />
    </Decision>
  )
}

/** Nothing changes, now or later. */
const isNothing = (preview: PreviewView | undefined): boolean =>
  preview?.isWhole === true &&
  preview.impact.every(each => each.differences.length === 0 && each.counted === null)

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
    <legend className="sr-only">Invite as</legend>
    <label className="flex items-center gap-2">
      <input
        type="radio"
        className="radio radio-sm border-base-content/60"
        name="as"
        checked={as === 'guest'}
        onChange={() => onAs('guest')}
      />
      guest, only for this place
    </label>
    <label className="flex items-center gap-2">
      <input
        type="radio"
        className="radio radio-sm border-base-content/60"
        name="as"
        checked={as === 'member'}
        onChange={() => onAs('member')}
      />
      member of the workspace
    </label>
  </fieldset>
)
