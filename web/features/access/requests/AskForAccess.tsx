import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { type ActionSet, holds, noActions } from '#core/levels/action.ts'
import { builtInLevels, levelActions } from '#core/levels/level.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { ActOrLeave } from '../../../ui/ActOrLeave.tsx'
import { Choice } from '../../../ui/Choice.tsx'
import { OpenedForm } from '../../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextField } from '../../../ui/TextField.tsx'

interface Props {
  /** The id in the address of the place, whether there is anything or not. */
  readonly address: string
  /** What one has there already. */
  readonly has?: number
  readonly onDone: () => void
}

/** Asks whoever gives access at a place for a level, with a word. */
export function AskForAccess({ address, has = noActions, onDone }: Props) {
  const { slug, workspace } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [params] = useSearchParams()
  const most = workspace.me.kind === 'guest' ? levelActions('Curator') : levelActions('Steward')
  const more = builtInLevels.filter(name => {
    const actions = levelActions(name)
    return !holds(has as ActionSet, actions) && holds(most, actions)
  })
  const first =
    more.find(name => name === params.get('ask')) ?? more.find(name => name === 'Reader') ?? more[0]
  const [level, setLevel] = useState<string>(first ?? '')
  const [reason, setReason] = useState('')
  const ask = async () => {
    const actions = levelActions(level as (typeof more)[number])
    const { applied } = await apply(
      [{ kind: 'request.make', wants: { of: 'access', node: address, actions }, reason: reason.trim() }],
      'Your request was sent. If there is something at this address, its stewards are notified.',
    )
    if (applied !== undefined) onDone()
  }
  return (
    <OpenedForm label="Request access" onAct={ask} onLeave={onDone}>
      <Choice
        label="Level that you request"
        value={level}
        options={more.map(name => ({ value: name, name }))}
        onValue={setLevel}
      />
      <TextField
        label="Message to the person who decides"
        maxLength={1000}
        value={reason}
        onValue={setReason}
      />
      <ProblemNote problem={problem} />
      <ActOrLeave label={`Request ${level}`} isDisabled={isBusy || level === ''} onLeave={onDone} />
    </OpenedForm>
  )
}
