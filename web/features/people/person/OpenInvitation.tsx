import { useState } from 'react'
import { useLocation } from 'react-router'
import { dayOf, endOfDay } from '#contract/dates.ts'
import type { InvitedView, ManagedView, PersonView } from '#contract/views/people.ts'
import type { Problem } from '#contract/views/problem.ts'
import { usePassOnInvitationMutation } from '../../../api/people.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { Choice } from '../../../ui/Choice.tsx'
import { Copy } from '../../../ui/Copy.tsx'
import { Day, Through } from '../../../ui/dates.tsx'
import { OpenedForm } from '../../../ui/OpenedForm.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { TextArea } from '../../../ui/TextArea.tsx'
import { DayField } from '../../../ui/DayField.tsx'
import { ActOrLeave } from '../../../ui/ActOrLeave.tsx'

interface Props {
  readonly person: PersonView
  readonly managed: ManagedView
  readonly invitation: InvitedView
  readonly onClose: () => void
}

/** What was offered to somebody who has not come in yet: sent anew, passed on, changed, withdrawn. */
export function OpenInvitation({ person, managed, invitation, onClose }: Props) {
  const { workspace } = useHere()
  const [openedAt] = useState(Date.now)
  const isDead = invitation.until <= openedAt
  return (
    <section aria-label="Invitation" className="mt-5 border-t border-base-content pt-3">
      <h3 className="mb-1 font-bold">Invitation</h3>
      <p className="mb-2">
        Invited by {invitation.by} on <Day at={invitation.at} />. The link{' '}
        {isDead ? (
          <span className="text-warning">has expired.</span>
        ) : (
          <>
            works <Through until={invitation.until} timeZone={workspace.timeZone} />.
          </>
        )}
      </p>
      {managed.may.includes('invite') && (
        <Acts person={person} managed={managed} invitation={invitation} isDead={isDead} onClose={onClose} />
      )}
    </section>
  )
}

function Acts({ person, managed, invitation, isDead, onClose }: Props & { readonly isDead: boolean }) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const [askLink, link] = usePassOnInvitationMutation()
  const { state } = useLocation() as { readonly state: { readonly isChangingInvitation?: boolean } | null }
  const [isChanging, setChanging] = useState(state?.isChangingInvitation === true)
  const renew = () =>
    apply(
      [{ kind: 'invitation.renew', person: person.id }],
      `The invitation was sent again to ${person.mail}.`,
    )
  const withdraw = async () => {
    const confirmation = `The invitation of ${person.name} is withdrawn.`
    const { applied } = await apply([{ kind: 'invitation.withdraw', person: person.id }], confirmation)
    if (applied !== undefined) onClose()
  }
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn-plain" disabled={isBusy} onClick={() => void renew()}>
          Send invitation again
        </button>
        {!isDead && managed.may.includes('pass on') && (
          <button type="button" className="btn-plain" onClick={() => void askLink({ slug, id: person.id })}>
            Copy invitation link
          </button>
        )}
        <button
          type="button"
          className="btn-plain"
          aria-expanded={isChanging}
          onClick={() => setChanging(!isChanging)}
        >
          Change …
        </button>
        <button
          type="button"
          className="btn-plain text-error"
          disabled={isBusy}
          onClick={() => void withdraw()}
        >
          Withdraw invitation
        </button>
      </div>
      {link.data !== undefined && <ByHand address={link.data.address} />}
      {isChanging && (
        <Changing
          person={person}
          managed={managed}
          invitation={invitation}
          onDone={() => setChanging(false)}
        />
      )}
      <ProblemNote problem={problem ?? (link.error as Problem | undefined)} />
    </>
  )
}

const ByHand = ({ address }: { readonly address: string }) => (
  <div className="mt-2 bg-base-200 p-3">
    <Copy label="Invitation link" text={address} />
    <p className="quiet mt-1 text-sm">
      Anybody with this link can join as this person. The address counts as not confirmed until they open a
      mail.
    </p>
  </div>
)

interface ChangingProps {
  readonly person: PersonView
  readonly managed: ManagedView
  readonly invitation: InvitedView
  readonly onDone: () => void
}

function Changing({ person, managed, invitation, onDone }: ChangingProps) {
  const { slug, workspace } = useHere()
  const { timeZone, roles } = workspace
  const { apply, problem, isBusy } = useChange(slug)
  const [first] = managed.roles
  const [role, setRole] = useState(first?.role ?? '')
  const [through, setThrough] = useState(managed.until === null ? '' : dayOf(managed.until - 1, timeZone))
  const [message, setMessage] = useState(invitation.message)
  const submit = async () => {
    const { applied } = await apply(
      [
        {
          kind: 'invitation.change',
          person: person.id,
          until: through === '' ? null : endOfDay(through, timeZone),
          message,
          ...(role === first?.role || person.kind === 'guest' ? {} : { role }),
        },
      ],
      `The invitation of ${person.name} is changed.`,
    )
    if (applied !== undefined) onDone()
  }
  const isOffered = roles.some(each => each.id === role)
  return (
    <OpenedForm label="Change invitation" onAct={submit} onLeave={onDone}>
      {person.kind === 'member' && (
        <Choice
          label="Role"
          value={role}
          options={[
            ...(isOffered ? [] : [{ value: role, name: first?.name ?? '' }]),
            ...roles.map(({ id, name }) => ({ value: id, name })),
          ]}
          onValue={setRole}
        />
      )}
      <DayField label="Ends after" hint="Empty: no end." value={through} onValue={setThrough} />
      <TextArea label="Message" value={message} onValue={setMessage} rows={2} />
      <p className="quiet text-sm">
        Change teams below, and places on the page of each place. The link keeps working.
      </p>
      <ProblemNote problem={problem} />
      <ActOrLeave label="Change invitation" isDisabled={isBusy} onLeave={onDone} />
    </OpenedForm>
  )
}
