import { useState } from 'react'
import { Link } from 'react-router'
import type { OwnAccessView, PersonAccessView } from '#contract/views/access.ts'
import type { Problem } from '#contract/views/problem.ts'
import { type Action, type ActionSet, has } from '#core/levels/action.ts'
import { useOwnAccessQuery, usePeopleWithAccessQuery } from '../../../api/access.ts'
import { counted, numberWords, peopleWords, placesWords } from '#core/words/english.ts'
import { useHere } from '../../../api/use-here.ts'
import { BreakSign } from '../../../ui/BreakSign.tsx'
import { Level } from '../../../ui/Gauge.tsx'
import { doing } from '../doing.ts'
import { NotTold } from './NotTold.tsx'
import { Recover } from './Recover.tsx'

interface Props {
  readonly place: string
  readonly action: Action
}

/** Everybody who can do something at a place, and where below it that is different. */
export function WhoAnswer({ place, action }: Props) {
  const { slug } = useHere()
  const [from, setFrom] = useState<string>()
  const query = from === undefined ? { slug, id: place } : { slug, id: place, from }
  const { currentData: answer, error } = usePeopleWithAccessQuery(query)
  if (error !== undefined) return <NotTold problem={error as Problem} />
  if (answer === undefined) return <p className="quiet">Loading …</p>
  const able = answer.items.filter(each => has(each.actions as ActionSet, action))
  const here = able.filter(each => each.status === 'active')
  return (
    <>
      <p className="mb-2">
        <strong>{peopleWords(here.length)}</strong> can {doing[action]}.
        {able.length > here.length &&
          ` ${numberWords(able.length - here.length)} more once they accept their invitation.`}
        {answer.total > answer.items.length &&
          ` The list shows ${numberWords(answer.items.length)} of ${numberWords(answer.total)} people.`}
      </p>
      {from === undefined && !answer.items.some(isSteward) && <Recover place={place} />}
      <Below place={place} />
      <div className="max-w-3xl overflow-x-auto">
        <table className="sheet">
          <thead>
            <tr>
              <th scope="col">Name</th>
              <th scope="col" className="w-36">
                Kind
              </th>
              <th scope="col" className="w-36">
                Level
              </th>
              <th scope="col" className="w-20" />
            </tr>
          </thead>
          <tbody>
            {able.map(each => (
              <Line key={each.id} reach={each} place={place} />
            ))}
          </tbody>
        </table>
      </div>
      {able.length === 0 && <p className="quiet py-2">Nobody.</p>}
      {answer.next !== null && (
        <button type="button" className="btn-plain mt-2" onClick={() => setFrom(String(answer.next))}>
          Show the next {answer.total - answer.next}
        </button>
      )}
    </>
  )
}

/** The highest come first: none on the first page is none at all. */
const isSteward = ({ actions, status }: PersonAccessView): boolean =>
  status === 'active' && has(actions as ActionSet, 'share')

function Line({
  reach: { id, name, kind, status, actions },
  place,
}: {
  readonly reach: PersonAccessView
  readonly place: string
}) {
  const { slug } = useHere()
  return (
    <tr>
      <td className="font-semibold">{name}</td>
      <td>
        {kind}
        {status === 'invited' && <span className="text-warning"> · invited</span>}
      </td>
      <td>
        <Level actions={actions} />
      </td>
      <td>
        <Link
          className="link text-sm"
          aria-label={`Why? ${name}`}
          to={`/at/${slug}/oversight/check?ask=why&place=${place}&person=${id}`}
        >
          Why?
        </Link>
      </td>
    </tr>
  )
}

/** Where what is true of a place is not true of what lies in it. */
function Below({ place }: { readonly place: string }) {
  const { slug } = useHere()
  const { currentData: view } = useOwnAccessQuery({ slug, id: place })
  if (view === undefined || view.below.length + view.moreBelow + view.hiddenBelow === 0) return null
  return (
    <section aria-label="Places below that differ" className="mb-5 max-w-3xl border-l-4 border-base-300 pl-3">
      <h2 className="label-line">Access differs on these places below</h2>
      <ul>
        {view.below.map(each => (
          <Exception key={each.id} exception={each} />
        ))}
        {view.moreBelow > 0 && (
          <li className="quiet border-t border-base-300 py-1.5">
            and {placesWords(view.moreBelow)} more, listed on the folders that contain them
          </li>
        )}
        {view.hiddenBelow > 0 && (
          <li className="quiet border-t border-base-300 py-1.5">
            {placesWords(view.hiddenBelow)} that you cannot see
          </li>
        )}
      </ul>
    </section>
  )
}

function Exception({ exception }: { readonly exception: OwnAccessView['below'][number] }) {
  const { slug } = useHere()
  const { id, name, isBroken, grants, limits, heldBack } = exception
  const check = `/at/${slug}/oversight/check?place=${id}`
  return (
    <li className="border-t border-base-300 py-1.5">
      <span className="flex items-center gap-2">
        {isBroken && <BreakSign />}
        <Link className="link font-semibold" to={`${check}&ask=who`}>
          {name}
        </Link>
        <span className="quiet text-sm">
          {[
            isBroken ? 'inheritance broken' : '',
            grants > 0 ? counted(grants, 'grant', 'grants') : '',
            limits > 0 ? counted(limits, 'limit', 'limits') : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </span>
      {heldBack.map(person => (
        <span key={person.id} className="block pl-4 text-sm">
          {person.name} has a grant here that a limit reduces.{' '}
          <Link
            className="link"
            aria-label={`Why not? ${person.name}, ${name}`}
            to={`${check}&ask=whynot&person=${person.id}`}
          >
            Why not?
          </Link>
        </span>
      ))}
    </li>
  )
}
