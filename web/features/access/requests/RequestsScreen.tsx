import { useState } from 'react'
import { Link } from 'react-router'
import type {
  AccessWantedView,
  MyAccessWantedView,
  MyRequestView,
  RequestView,
} from '#contract/views/requests.ts'
import { useNodeQuery } from '../../../api/api.ts'
import { mineOf, toDecideOf, useRequestsQuery } from '../../../api/requests.ts'
import { useChange } from '../../../api/use-change.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { useLevelName } from '../../../ui/own-levels.ts'
import { OversightHead } from '../../../ui/OversightHead.tsx'
import { ProblemNote } from '../../../ui/ProblemNote.tsx'
import { NotYet } from '../../../ui/NotYet.tsx'
import { AskedWords } from './AskedWords.tsx'
import { DecideRequest } from './DecideRequest.tsx'

/** Access that is asked for: what waits for one's own word, and what one asked for oneself. */
export function RequestsScreen() {
  const { slug, workspace } = useHere()
  const { data, error } = useRequestsQuery(slug)
  if (data === undefined) return <NotYet error={error} />
  const toDecide = toDecideOf(data, 'access')
  const mine = mineOf(data, 'access')
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <OversightHead me={workspace.me} />
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <section aria-label="Requests to decide">
          <h2 className="mb-1 text-lg font-bold">Requests to decide</h2>
          {toDecide.length === 0 && (
            <p>No open requests. When somebody requests access to a place that you share, it appears here.</p>
          )}
          <ul>
            {toDecide.map(request => (
              <ToDecide key={request.id} request={request} />
            ))}
          </ul>
        </section>
        <section aria-label="Your requests">
          <h2 className="mb-1 text-lg font-bold">Your requests</h2>
          {mine.length === 0 && (
            <p>No requests. Where you need more access, use “Request access” on the page of the place.</p>
          )}
          <ul>
            {mine.map(request => (
              <Mine key={request.id} request={request} />
            ))}
          </ul>
          <p className="mt-4 text-sm">
            <Link className="link" to={`/at/${slug}/roles/requests`}>
              Request a role
            </Link>{' '}
            <Link className="link ml-4" to={`/at/${slug}/teams`}>
              Request to join a team
            </Link>
          </p>
        </section>
      </div>
    </main>
  )
}

function ToDecide({ request }: { readonly request: RequestView<AccessWantedView> }) {
  const { slug } = useHere()
  const { data: node } = useNodeQuery({ slug, id: request.wants.place.id })
  const [isOpen, setOpen] = useState(false)
  const { person, wants } = request
  const { place } = wants
  return (
    <li className="border-t border-base-300 py-2">
      <AskedWords request={request} />
      <p className="text-sm leading-6">
        on{' '}
        <Link className="link" to={`/at/${slug}/content/${place.id}`}>
          {place.name}
        </Link>
        {place.path !== '' && <span className="quiet"> in {place.path}</span>}
      </p>
      {isOpen && node !== undefined ? (
        <DecideRequest request={request} held={node.actions} onDone={() => setOpen(false)} />
      ) : (
        <p className="flex gap-4 text-sm leading-7">
          <button
            type="button"
            className="btn-inline"
            aria-label={`Decide the request of ${person.name}`}
            onClick={() => setOpen(true)}
          >
            Decide …
          </button>
          <Link
            className="link"
            to={`/at/${slug}/oversight/check?ask=why&place=${place.id}&person=${person.id}`}
          >
            Show the present access of {person.name}
          </Link>
        </p>
      )}
    </li>
  )
}

function Mine({ request }: { readonly request: MyRequestView<MyAccessWantedView> }) {
  const { slug } = useHere()
  const levelName = useLevelName()
  const { apply, problem, isBusy } = useChange(slug)
  const { id, wants, at, reason, declined } = request
  const { address, place, actions } = wants
  const takeBack = () => apply([{ kind: 'request.withdraw', request: id }], 'Your request is withdrawn.')
  return (
    <li className="border-t border-base-300 py-2">
      <p>
        {levelName(actions)} on{' '}
        <Link className="link" to={`/at/${slug}/content/${address}`}>
          {place?.name ?? 'a place, by its address'}
        </Link>
        <span className="quiet">
          {' '}
          · <Day at={at} />
          {reason !== '' && ` · “${reason}”`}
        </span>
      </p>
      <p className="text-sm">
        {declined === null ? (
          <span className="text-warning">Waiting for an answer.</span>
        ) : (
          <span className="text-warning">
            {declined.by} declined your request{declined.comment === '' ? '.' : `: “${declined.comment}”`}
          </span>
        )}{' '}
        <button type="button" className="btn-inline" disabled={isBusy} onClick={() => void takeBack()}>
          {declined === null ? 'Withdraw' : 'Dismiss'}
        </button>
      </p>
      <ProblemNote problem={problem} />
    </li>
  )
}
