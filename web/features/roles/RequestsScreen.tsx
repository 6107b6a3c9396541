import { useState } from 'react'
import { useSearchParams } from 'react-router'
import type { MyRequestView, RequestView, RequestsView, RoleWantedView } from '#contract/views/requests.ts'
import { allPrivileges, isPrivilege, type Privilege } from '#core/levels/privilege.ts'
import { privilegeWords } from '#core/words/privilege.ts'
import { mineOf, toDecideOf, useRequestsQuery } from '../../api/requests.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Choice } from '../../ui/Choice.tsx'
import { Day } from '../../ui/dates.tsx'
import { onSubmit } from '../../ui/on-submit.ts'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { TextField } from '../../ui/TextField.tsx'
import { NotYet } from '../../ui/NotYet.tsx'
import { Deciding } from './Deciding.tsx'
import { RolesHead } from './RolesHead.tsx'
import { wantedWords } from '../../ui/wanted-words.ts'

/** Roles and privileges that are asked for: those to decide, and one's own. */
export function RequestsScreen() {
  const { slug } = useHere()
  const { data, error } = useRequestsQuery(slug)
  if (data === undefined) return <NotYet error={error} />
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <RolesHead />
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <ToDecide requests={toDecideOf(data, 'role', 'privilege')} />
        <Mine view={data} />
      </div>
    </main>
  )
}

function ToDecide({ requests }: { readonly requests: readonly RequestView<RoleWantedView>[] }) {
  const [chosen, setChosen] = useState<string>()
  return (
    <section aria-label="Requests to decide">
      <h2 className="mb-1 text-lg font-bold">Requests to decide</h2>
      {requests.length === 0 && (
        <p>No open requests. When somebody requests a role that you can assign, it appears here.</p>
      )}
      <ul>
        {requests.map(request => (
          <li key={request.id} className="border-t border-base-300 py-2">
            <p>
              <strong>{request.person.name}</strong> requests to {wantedWords(request.wants)}
              <span className="quiet">
                {' '}
                · <Day at={request.at} />
              </span>
            </p>
            {request.reason !== '' && <p className="quiet">“{request.reason}”</p>}
            {chosen === request.id ? (
              <Deciding request={request} onDone={() => setChosen(undefined)} />
            ) : (
              <button type="button" className="btn-inline text-sm" onClick={() => setChosen(request.id)}>
                Decide …
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

function Mine({ view }: { readonly view: RequestsView }) {
  const { workspace } = useHere()
  return (
    <section aria-label="Your requests">
      <h2 className="mb-1 text-lg font-bold">Your requests</h2>
      <ul>
        {mineOf(view, 'role', 'privilege').map(request => (
          <MyRequest key={request.id} request={request} />
        ))}
      </ul>
      {workspace.me.kind === 'member' ? (
        <Asking roles={view.roles} />
      ) : (
        <p>Guests cannot hold roles. Ask the person who invited you.</p>
      )}
    </section>
  )
}

function MyRequest({ request }: { readonly request: MyRequestView<RoleWantedView> }) {
  const { slug } = useHere()
  const { apply, problem, isBusy } = useChange(slug)
  const { id, wants, at, reason, declined } = request
  const takeBack = () => apply([{ kind: 'request.withdraw', request: id }], 'Your request is withdrawn.')
  return (
    <li className="border-t border-base-300 py-2">
      <p>
        You request to {wantedWords(wants)}
        <span className="quiet">
          {' '}
          · <Day at={at} />
          {reason !== '' && ` · “${reason}”`}
        </span>
      </p>
      {declined === null ? (
        <p className="text-sm">
          <span className="text-warning">Waiting for an answer.</span>{' '}
          <button type="button" className="btn-inline" disabled={isBusy} onClick={() => void takeBack()}>
            Withdraw
          </button>
        </p>
      ) : (
        <p className="text-sm text-warning">
          {declined.by} declined it{declined.comment === '' ? '.' : `: “${declined.comment}”`}
        </p>
      )}
      <ProblemNote problem={problem} />
    </li>
  )
}

/** Asking for what a privilege lets one do, or for a role that one knows of. */
function Asking({ roles }: Pick<RequestsView, 'roles'>) {
  const { slug, workspace } = useHere()
  const [params, setParams] = useSearchParams()
  const [reason, setReason] = useState('')
  const { apply, problem, isBusy } = useChange(slug)
  const lacking = allPrivileges.filter(each => each !== 'own' && !workspace.me.privileges.includes(each))
  const privilege = params.get('privilege') ?? ''
  const options = [
    { value: '', name: 'Choose what you want to do' },
    ...lacking.map(each => ({ value: `p ${each}`, name: privilegeWords[each] })),
    ...roles.map(({ id, name }) => ({ value: `r ${id}`, name: `hold the role ${name}` })),
  ]
  const [chosen, setChosen] = useState(isPrivilege(privilege) ? `p ${privilege}` : '')
  const value = options.some(each => each.value === chosen) ? chosen : ''
  const ask = async () => {
    const wants = value.startsWith('p ')
      ? ({ of: 'privilege', privilege: value.slice(2) as Privilege } as const)
      : ({ of: 'role', role: value.slice(2) } as const)
    const { applied } = await apply(
      [{ kind: 'request.make', wants, reason }],
      'The people who can assign it are notified.',
    )
    if (applied === undefined) return
    setChosen('')
    setReason('')
    setParams({}, { replace: true })
  }
  return (
    <form className="mt-3 grid max-w-lg gap-3 border-t border-base-content pt-3" onSubmit={onSubmit(ask)}>
      <Choice label="You want to" value={value} options={options} onValue={setChosen} />
      <TextField
        label="Message to the person who decides"
        maxLength={1000}
        value={reason}
        onValue={setReason}
      />
      <ProblemNote problem={problem} />
      <button className="btn-main justify-self-start" disabled={isBusy || value === ''}>
        Send request
      </button>
    </form>
  )
}
