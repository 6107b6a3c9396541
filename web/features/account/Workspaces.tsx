import { useState } from 'react'
import { Link, Navigate, useNavigate } from 'react-router'
import type { WaitingInvitation } from '#contract/views/account.ts'
import type { Problem } from '#contract/views/problem.ts'
import { useAcceptMineMutation, useCreateWorkspaceMutation } from '../../api/account.ts'
import { useSessionQuery, useSignOutMutation } from '../../api/api.ts'
import { Entry } from '../../ui/SignInFrame.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { OpenedForm } from '../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { Tick } from '../../ui/Tick.tsx'
import { ActOrLeave } from '../../ui/ActOrLeave.tsx'

/** The workspaces of one's account, the invitations that wait, and the way to a new one. */
export function Workspaces() {
  const { data: session } = useSessionQuery()
  const [signOut] = useSignOutMutation()
  const navigate = useNavigate()
  if (session === undefined) return null
  if (session.account === null) return <Navigate to="/sign-in" state={{ then: '/workspaces' }} replace />
  return (
    <Entry title="Your workspaces">
      {session.workspaces.length === 0 && (
        <p className="mb-3">You are not in a workspace. Ask somebody to invite you.</p>
      )}
      <ul className="mb-6">
        {session.workspaces.map(each => (
          <li key={each.slug} className="border-t border-base-300">
            <Link className="block py-2 font-semibold hover:underline" to={`/at/${each.slug}`}>
              {each.name}
            </Link>
          </li>
        ))}
      </ul>
      {session.invitations.map(each => (
        <Waiting key={each.id} invitation={each} />
      ))}
      {session.mayMakeWorkspaces && <Making />}
      <p className="mt-8 flex gap-5 text-sm">
        <Link className="link" to="/account">
          Your account
        </Link>
        <button
          type="button"
          className="btn-inline"
          onClick={() => void signOut().then(() => navigate('/sign-in'))}
        >
          Sign out
        </button>
      </p>
    </Entry>
  )
}

function Waiting({ invitation }: { readonly invitation: WaitingInvitation }) {
  const { id, workspace, by, as, houseRules } = invitation
  const [agrees, setAgrees] = useState(houseRules === '')
  const [accept, { error, isLoading }] = useAcceptMineMutation()
  const navigate = useNavigate()
  const submit = async () => {
    const { data } = await accept({ id, agrees })
    if (data !== undefined) await navigate(`/at/${data.slug}`)
  }
  return (
    <form
      aria-label={`Invitation to ${workspace}`}
      className="mb-4 grid gap-3 bg-base-200 p-3"
      onSubmit={onSubmit(submit)}
    >
      <p>
        <strong>{by}</strong> invites you to <strong>{workspace}</strong> as a {as}.
      </p>
      {houseRules !== '' && (
        <>
          <p
            className="max-h-40 overflow-y-auto border-l-4 border-base-300 pl-3 whitespace-pre-line"
            tabIndex={0}
          >
            {houseRules}
          </p>
          <Tick isOn={agrees} onTick={setAgrees}>
            I accept the house rules
          </Tick>
        </>
      )}
      <ProblemNote problem={error as Problem | undefined} />
      <button className="btn-main justify-self-start" disabled={isLoading || !agrees}>
        Join
      </button>
    </form>
  )
}

function Making() {
  const [isOpen, setOpen] = useState(false)
  const [name, setName] = useState('')
  const [make, { error, isLoading }] = useCreateWorkspaceMutation()
  const navigate = useNavigate()
  const submit = async () => {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions()
    const { data } = await make({ name, timeZone })
    if (data !== undefined) await navigate(`/at/${data.slug}`)
  }
  if (!isOpen)
    return (
      <button type="button" className="btn-plain" onClick={() => setOpen(true)}>
        Create workspace …
      </button>
    )
  return (
    <OpenedForm
      label="Create workspace"
      className="grid gap-3 bg-base-200 p-3"
      onAct={submit}
      onLeave={() => setOpen(false)}
    >
      <TextField label="Name of the workspace" required value={name} onValue={setName} />
      <p className="quiet text-sm">
        You become its owner. It has its own people, roles and places, separate from other workspaces.
      </p>
      <ProblemNote problem={error as Problem | undefined} />
      <ActOrLeave
        label="Create workspace"
        isDisabled={isLoading || name.trim() === ''}
        onLeave={() => setOpen(false)}
      />
    </OpenedForm>
  )
}
