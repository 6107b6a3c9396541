import { useState } from 'react'
import { Link } from 'react-router'
import type { AccessRequestView, MyAccessRequestView } from '#contract/access-views.ts'
import { useAccessRequestsQuery } from '../../api/access.ts'
import { useNodeQuery } from '../../api/api.ts'
import { useChange } from '../../api/use-change.ts'
import { useHere } from '../../api/use-here.ts'
import { Day } from '../../ui/dates.tsx'
import { useLevelName } from '../../ui/own-levels.ts'
import { OversightHead } from '../../ui/OversightHead.tsx'
import { ProblemNote } from '../../ui/ProblemNote.tsx'
import { AskedWords } from './AskedWords.tsx'
import { DecideRequest } from './DecideRequest.tsx'

/** Access that is asked for: what waits for one's own word, and what one asked for oneself. */
export function AskedScreen() {
  const { slug, workspace } = useHere()
  const { data } = useAccessRequestsQuery(slug)
  if (data === undefined) return <main aria-busy />
  return (
    <main className="min-h-0 overflow-y-auto px-4 pt-3 pb-6">
      <OversightHead me={workspace.me} />
      <div className="grid gap-x-12 gap-y-6 lg:grid-cols-2">
        <section aria-label="To decide">
          <h2 className="mb-1 text-lg font-bold">For you to decide</h2>
          {data.toDecide.length === 0 && (
            <p>Nothing waits. When somebody asks for access to a place where you give it, it stands here.</p>
          )}
          <ul>
            {data.toDecide.map(request => (
              <ToDecide key={request.id} request={request} />
            ))}
          </ul>
        </section>
        <section aria-label="What I ask for">
          <h2 className="mb-1 text-lg font-bold">What you ask for</h2>
          {data.mine.length === 0 && (
            <p>
              Nothing. At a place that you cannot open, or where you would like to do more, there is “Ask for
              access”.
            </p>
          )}
          <ul>
            {data.mine.map(request => (
              <Mine key={request.id} request={request} />
            ))}
          </ul>
          <p className="mt-4 text-sm">
            Roles are asked for{' '}
            <Link className="act" to={`/at/${slug}/roles/asked`}>
              among the roles
            </Link>
            , teams at the team.
          </p>
        </section>
      </div>
    </main>
  )
}

function ToDecide({ request }: { readonly request: AccessRequestView }) {
  const { slug } = useHere()
  const { data: node } = useNodeQuery({ slug, id: request.place.id })
  const [isOpen, setOpen] = useState(false)
  const { place, person } = request
  return (
    <li className="border-t border-base-300 py-2">
      <AskedWords request={request} />
      <p className="text-sm leading-6">
        on{' '}
        <Link className="act" to={`/at/${slug}/content/${place.id}`}>
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
            className="act"
            aria-label={`Decide what ${person.name} asks for`}
            onClick={() => setOpen(true)}
          >
            Decide …
          </button>
          <Link
            className="act"
            to={`/at/${slug}/oversight/check?ask=why&place=${place.id}&person=${person.id}`}
          >
            What {person.name} has there, and why
          </Link>
        </p>
      )}
    </li>
  )
}

function Mine({ request }: { readonly request: MyAccessRequestView }) {
  const { slug } = useHere()
  const levelName = useLevelName()
  const { apply, problem, isBusy } = useChange(slug)
  const { id, address, place, wants, at, word, declined } = request
  const takeBack = () => apply([{ kind: 'access.unask', request: id }], 'You do not ask for it any more.')
  return (
    <li className="border-t border-base-300 py-2">
      <p>
        {levelName(wants)} on{' '}
        <Link className="act" to={`/at/${slug}/content/${address}`}>
          {place?.name ?? 'a place by its address'}
        </Link>
        <span className="quiet">
          {' '}
          · <Day at={at} />
          {word !== '' && ` · “${word}”`}
        </span>
      </p>
      <p className="text-sm">
        {declined === null ? (
          <span className="text-warning">Waits for an answer.</span>
        ) : (
          <span className="text-warning">
            {declined.by} declined it{declined.word === '' ? '.' : `: “${declined.word}”`}
          </span>
        )}{' '}
        <button type="button" className="act" disabled={isBusy} onClick={() => void takeBack()}>
          {declined === null ? 'Take it back' : 'Put it away'}
        </button>
      </p>
      <ProblemNote problem={problem} />
    </li>
  )
}
