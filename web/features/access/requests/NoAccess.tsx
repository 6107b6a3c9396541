import { useState } from 'react'
import { Link } from 'react-router'
import { mineOf, useRequestsQuery } from '../../../api/requests.ts'
import { useHere } from '../../../api/use-here.ts'
import { Day } from '../../../ui/dates.tsx'
import { useLevelName } from '../../../ui/own-levels.ts'
import { AskForAccess } from './AskForAccess.tsx'

/** In the place of one that one may not open, or that is not there: it says the same of both, and lets one ask. */
export function NoAccess({ address }: { readonly address: string }) {
  const { slug } = useHere()
  const levelName = useLevelName()
  const [isAsking, setAsking] = useState(false)
  const { data: requests } = useRequestsQuery(slug)
  const request = mineOf(requests, 'access').find(each => each.wants.address === address)
  return (
    <main className="max-w-xl px-6 py-6">
      <h1 className="mb-2 text-xl font-bold">There is nothing here that you can open.</h1>
      <p className="mb-4">It may have been moved or deleted, or it is not shared with you.</p>
      {request !== undefined && (
        <p className="mb-3 border-l-4 border-base-content pl-3">
          You requested {levelName(request.wants.actions)} here on <Day at={request.at} />.{' '}
          {request.declined === null
            ? 'You are notified when it is answered.'
            : `${request.declined.by} declined your request${request.declined.comment === '' ? '.' : `: “${request.declined.comment}”`}`}{' '}
          <Link className="link" to={`/at/${slug}/oversight/requests`}>
            Your requests
          </Link>
        </p>
      )}
      {isAsking ? (
        <AskForAccess address={address} onDone={() => setAsking(false)} />
      ) : (
        (request === undefined || request.declined !== null) && (
          <button type="button" className="btn-main" onClick={() => setAsking(true)}>
            Request access
          </button>
        )
      )}
    </main>
  )
}
